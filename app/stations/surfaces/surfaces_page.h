#pragma once

#include "drawing/aircraft_view.h"
#include "drawing/stick_square.h"
#include "stations/station_page.h"
#include "surfaces/throws_procedure.h"

class QButtonGroup;
class QComboBox;
class QDoubleSpinBox;
class QCheckBox;
class QLabel;
class QPushButton;
class QSlider;
class QStackedWidget;
class QVBoxLayout;

namespace rigging::app {

class BenchLink;
class LinkagePanel;
class LinkageView;
class MixPanel;

/// Does everything move the right way, by the right amount? Mixing and saturation, the linkage of each surface, and its
/// throws as read.
class SurfacesPage : public StationPage {
  Q_OBJECT
 public:
  explicit SurfacesPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override { return square_; }
  QList<NamedAction> named_actions() override;
  void show_surface(Surface surface);
  enum class Side { mix, linkage, throws };
  void show_side(Side side);
  const ThrowsProcedure& throws() const { return static_cast<const ThrowsProcedure&>(throws_->runner().procedure()); }

 protected:
  void refresh() override;

 private:
  void make_picture();
  QLayout* make_sticks();
  QLayout* make_saturation_row();
  QLayout* make_side_keys();
  QWidget* make_surface_row();
  QWidget* make_throws_side();
  void show_gauges();
  void note_trim_flight();
  void measure_release();
  void choose_surface(Surface surface);
  void draw_linkage();
  /// What the readings say of the linkage that is shown; null without enough of them, and while it is computed.
  const Estimate* as_read() const;
  void show_deflections(const Rig& rig, const Command& command);
  void move_surfaces();
  void show_room();

  AircraftView* view_;
  StickSquare* square_;
  LinkageView* sketch_;
  MixPanel* mix_;
  LinkagePanel* linkage_;
  ProcedureCard* throws_;
  QStackedWidget *picture_, *sides_;
  QButtonGroup* side_keys_;
  QComboBox *surface_box_, *saturation_box_;
  QLabel* mix_words_;
  QDoubleSpinBox* differential_;
  QPushButton* release_;
  QCheckBox* auto_trim_;
  QLabel* trim_words_;
  QWidget* surface_row_;
  Surface surface_;
  std::optional<Linkage> preview_;  ///< while a hole is dragged
  QSlider *yaw_, *throttle_, *flap_;
  QLabel* saturation_;
  Command command_;
  bool refreshing_ = false;
};

}  // namespace rigging::app
