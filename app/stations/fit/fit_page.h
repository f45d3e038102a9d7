#pragma once

#include "stations/fit/places_view.h"
#include "stations/station_page.h"

class QCheckBox;
class QComboBox;
class QGridLayout;
class QDoubleSpinBox;
class QLabel;
class QListWidget;
class QPushButton;
class QVBoxLayout;

namespace rigging::app {

class BaudBox;

/// Where does everything go, which way up?
class FitPage : public StationPage {
  Q_OBJECT
 public:
  explicit FitPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<NamedAction> named_actions() override;
  /// Adds a part of the kind behind what is there, with a name of its own.
  void add_part(const std::string& kind);

 protected:
  void refresh() override;

 private:
  QLayout* make_head();
  /// The parts, and what is known of the chosen one.
  QWidget* make_side();
  void make_position(QGridLayout& form);
  void make_fixing(QGridLayout& form);
  void make_frame(QGridLayout& form);
  void choose(const std::string& part);
  void show_chosen();
  void edit_place(const std::function<void(Mounting&)>& change);
  void remove_chosen();
  void ask_for_part();
  void ask_figures();
  void show_list_to_get();
  void ask_bay_and_place();
  void ask_small_angles();

  PlacesView* view_;
  QListWidget* list_;
  QLabel *balance_, *compass_, *board_, *chosen_name_;
  QDoubleSpinBox *behind_, *right_, *down_;
  NumberBox *frame_mass_, *frame_at_, *mass_;
  QComboBox* turn_;
  QComboBox *surface_, *held_, *plug_, *motor_plug_;
  BaudBox* baud_;
  QPushButton *remove_, *angles_, *figures_of_;
  QVBoxLayout* ticks_;
  std::string shown_ticks_, shown_list_;
  bool refreshing_ = false;
};

}  // namespace rigging::app
