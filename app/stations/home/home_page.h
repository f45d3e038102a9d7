#pragma once

#include "stations/home/home_plan.h"
#include "stations/home/home_trials.h"
#include "stations/home/reach_chart.h"
#include "stations/home/story_strip.h"
#include "stations/home/switch_deck.h"
#include "stations/station_page.h"

class QPushButton;
class QScrollArea;
class QSlider;
class QStackedWidget;

namespace rigging::app {

/// What happens when the link goes? The field with wind and reach, and the failsafe as a story.
class HomePage : public StationPage {
  Q_OBJECT
 public:
  explicit HomePage(const PageContext& context);
  QWidget* first_focus() override { return chart_; }
  QList<NamedAction> named_actions() override;
  bool uses_bench() const override;
  /// The area from a track in GPX.
  void take_track(const QString& file);
  /// The reach as GPX where the file is called so, else as GeoJSON.
  void write_reach(const QString& file);

 protected:
  void refresh() override;

 private:
  void show_chart(const SteadyWind& wind);
  void show_story();
  void show_moment();
  void show_words();
  QWidget* make_bench();
  void show_picture();
  void show_track(std::vector<HomePlace> track);
  void open_track();
  void save_reach();
  const HomeReport* report() const;
  /// Charge of the slider.
  double left_mah(const HomeReport& r) const;

  ReachChart* chart_;
  SwitchDeck* deck_;
  QStackedWidget* pictures_;
  StoryStrip* strip_;
  HomePlan* boxes_;
  HomeTrials* trials_;
  QScrollArea* plan_;
  QLabel *caution_, *moment_, *charge_words_, *words_;
  QSlider* charge_;
  QPushButton *obstacle_, *working_, *give_, *switches_, *bench_key_, *lay_out_, *launch_, *triggers_, *by_itself_,
      *goggles_;
  std::string track_of_;        ///< the rig whose track is drawn
  bool charge_chosen_ = false;  ///< by hand
};

}  // namespace rigging::app
