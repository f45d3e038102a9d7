#pragma once

#include "document/worker.h"
#include "flight/flight.h"
#include "home/rehearsal.h"
#include "stations/home/reach_chart.h"
#include "stations/home/story_strip.h"
#include "stations/home/switch_deck.h"
#include "stations/station_page.h"

class QCheckBox;
class QComboBox;
class QDoubleSpinBox;
class QGridLayout;
class QLineEdit;
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
  QList<Request> requests() override;
  bool uses_bench() const override;
  /// The area from a track in GPX.
  void take_track(const QString& file);
  /// The reach as GPX where the file is called so, else as GeoJSON.
  void write_reach(const QString& file);

 protected:
  void refresh() override;

 private:
  /// A number of the plan; `unknown` for one that may be open.
  QDoubleSpinBox* box(const char* id, const QString& label, const QString& unit, Span range, int decimals,
                      const QString& unknown, void (*put)(Home&, std::optional<double>));
  void change(const QString& label, const std::function<void(Home&)>& how);
  void show_chart(const SteadyWind& wind);
  void show_story();
  void show_moment();
  void show_words();
  QWidget* make_bench();
  void show_picture();
  void fly_it();
  void tell_flight(const Flight& flight);
  void open_track();
  void save_reach();
  void rehearse_it();
  void tell_rehearsal(const Result<RehearsalTable>& table);
  const HomeReport* report() const;

  QGridLayout* grid_;
  ReachChart* chart_;
  SwitchDeck* deck_;
  QStackedWidget* pictures_;
  StoryStrip* strip_;
  QScrollArea* plan_;
  QLabel *caution_, *moment_, *charge_words_, *words_, *choice_words_;
  QComboBox *on_loss_, *arrival_;
  QCheckBox* climb_first_;
  QDoubleSpinBox *hold_, *height_, *circle_, *area_, *warn_;
  QSlider* charge_;
  QLineEdit* looked_up_;
  QPushButton *obstacle_, *working_, *give_, *switches_, *bench_key_, *rehearse_, *fly_, *lay_out_, *launch_,
      *triggers_, *by_itself_, *goggles_;
  Worker<Result<RehearsalTable>> rehearser_;
  QString rehearsed_;                ///< what the rehearsals of this plan told; empty when none were
  QString flown_;                    ///< the same of the flight of the bench's model
  std::optional<FlightPlan> asked_;  ///< that is being flown there
  Rig of_;                           ///< the plan that they were of
  bool filling_ = false;
  bool charge_chosen_ = false;  ///< by hand
};

}  // namespace rigging::app
