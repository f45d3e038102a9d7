#pragma once

#include <functional>

#include "airframe/handles.h"
#include "airframe/planform.h"
#include "drawing/aircraft_view.h"
#include "stations/station_page.h"

class QComboBox;
class QDoubleSpinBox;
class QGridLayout;
class QLabel;
class QPushButton;

namespace rigging::app {

class MotorChoices;

/// What am I building, and with which controller?
class AirframePage : public StationPage {
  Q_OBJECT
 public:
  explicit AirframePage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<NamedAction> named_actions() override;

 protected:
  void refresh() override;
  /// The wheel scrolls the sizes; it changes only what has the keyboard.
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  struct Dimension {
    Member member;
    /// As measured, or as it follows by usual proportions.
    std::function<double(const Airframe&, const Planform&)> value;
    bool (*of)(AirframeKind);  ///< kinds that have it; null: all
    NumberBox* box = nullptr;
    QLabel* label = nullptr;
  };
  /// What it is and how large, as boxes.
  QWidget* make_controls();
  void make_choices(QGridLayout& form);
  void describe_dimensions();
  void make_sizes(QGridLayout& form);
  void compare_classes();
  /// What answers a stick, above the drawings.
  QLayout* make_answer_keys();
  QLayout* make_views();
  QLayout* make_foot();
  void show_answers();
  void drag_outline(int handle, double forward_m, double right_m);
  void show_handles(const Airframe& airframe);
  /// What was typed and did not fit is said; a guess that was typed as it stands is one no more.
  void finish(NumberBox* box, const char* member);

  MotorChoices* choices_;
  QComboBox *kind_, *controller_, *v_span_;
  QLabel *kind_words_, *controller_words_, *figures_, *working_, *answer_words_, *v_span_label_;
  QPushButton* working_button_;
  std::array<QPushButton*, 3> axes_{};
  NumberBox* mass_;
  std::vector<Dimension> dimensions_;
  AircraftView *above_, *side_, *front_;
  std::optional<Axis> shown_axis_;
  std::vector<OutlineHandle> handles_;
  std::optional<std::pair<std::string, double>> dragged_;  ///< measure and what it is under the hand
  bool refreshing_ = false;
};

}  // namespace rigging::app
