#pragma once

#include "stations/feel/feel_view.h"
#include "stations/station_page.h"

class QButtonGroup;
class QLineEdit;
class QPushButton;
class QScrollArea;

namespace rigging::app {

class GustStrip;

/// How hard may it correct? Speed along, firmness up, per axis; the first setting and the steps from there.
class FeelPage : public StationPage {
  Q_OBJECT
 public:
  explicit FeelPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override { return view_; }
  QList<Request> requests() override;

  /// What a flight's log tells, from a file.
  void take_log(const QString& file);

 protected:
  void refresh() override;

 private:
  void show_axis(Axis axis);
  void show_advice();
  void show_words(double height);
  void show_gust();
  void set_place(double height);
  void type_place();
  void set_first();
  void read_log();
  void ask_takeoff();
  const FeelReport* report() const;
  /// What is set, as a rate gain, when today's mark stands at this height.
  double gain_at(double height) const;

  Axis axis_ = Axis::roll;
  QButtonGroup *axis_keys_, *start_keys_, *list_keys_;
  FeelView* view_;
  GustStrip* strip_;
  QLabel *verdict_, *gust_words_, *caution_, *list_, *typed_label_, *why_;
  QLineEdit* typed_;
  QPushButton *first_, *log_, *holes_, *takeoff_, *working_button_;
  QLabel* working_;
  QScrollArea* area_;
};

}  // namespace rigging::app
