#pragma once

#include "drawing/aircraft_view.h"
#include "stations/station_page.h"
#include "stations/surfaces/stick_square.h"

class QLabel;
class QSlider;
class QVBoxLayout;
class QScrollArea;

namespace rigging::app {

/// Does everything move the right way, by the right amount? (Here: mixing, reversal, saturation.)
class SurfacesPage : public StationPage {
  Q_OBJECT
 public:
  SurfacesPage(RigDocument& document, QWidget* parent);
  void refresh() override;
  void go_to(const QString& subject) override;
  QWidget* first_focus() override { return square_; }
  void show_surface(Surface surface);

 private:
  void rebuild_rows();
  void move_surfaces();
  QWidget* row_for(const Output& output);
  void edit_output(const std::string& id, const QString& label, const std::function<void(Output&)>& change);

  AircraftView* view_;
  StickSquare* square_;
  QSlider *yaw_, *throttle_, *flap_;
  QLabel *saturation_, *pulse_words_;
  QScrollArea* area_;
  std::map<std::string, QLabel*> pulses_;
  std::map<std::string, QWidget*> rows_;
  std::string shape_;  ///< which rows stand there; they are rebuilt only when this changes
  Command command_;
  bool refreshing_ = false;
};

}  // namespace rigging::app
