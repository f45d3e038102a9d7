#pragma once

#include "stations/feel/feel_view.h"
#include "stations/station_page.h"

class QButtonGroup;
class QLineEdit;
class QPushButton;
class QStackedWidget;

namespace rigging::app {

class AdviceList;
class FlightPicture;
class FlyControls;
class GustStrip;
class LogReader;

/// How hard may it correct? Speed along, firmness up, per axis; the first setting and the steps from there.
class FeelPage : public StationPage {
  Q_OBJECT
 public:
  explicit FeelPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override { return view_; }
  QList<NamedAction> named_actions() override;

  /// What a flight's log tells, from a file.
  void take_log(const QString& file);
  /// What was given to it is read, judged and answered.
  bool log_taken() const;
  /// The flying in simulation, or the firmness.
  void show_flying(bool on);

 protected:
  void refresh() override;

 private:
  void show_axis(Axis axis);
  void show_controls();
  FeelView::Shown picture_of(const FeelReport& report) const;
  void show_words(double height);
  void show_gust();
  void set_place(double height);
  void type_place();
  void set_first();
  void ask_more();
  const FeelReport* report() const;
  /// Something can be said of the axis that is shown.
  bool known() const;
  /// Of the class; nothing without one.
  std::optional<GainScale> scale() const;
  /// What is set, as a rate gain, when today's mark stands at this height.
  double gain_at(double height) const;

  Axis axis_ = Axis::roll;
  QButtonGroup *axis_keys_, *start_keys_;
  FeelView* view_;
  GustStrip* strip_;
  AdviceList* advice_;
  FlightPicture* flight_;
  FlyControls* flying_;
  LogReader* reader_;
  QStackedWidget *pictures_, *sides_;
  QLabel *verdict_, *gust_words_, *caution_, *typed_label_, *why_;
  QLineEdit* typed_;
  QPushButton *first_, *log_, *holes_, *give_, *fly_, *more_;
};

}  // namespace rigging::app
