#pragma once

#include <QWidget>

#include "look/number_box.h"
#include "stations/procedure_runner.h"

class QBoxLayout;
class QComboBox;
class QDoubleSpinBox;
class QGridLayout;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace rigging::app {

class LookKeys;
class MovingAircraft;

/// Shows any procedure: what to do now, the picture of it, what follows, and what can be done. Its parts are called
/// after the procedure: "throws_todo", "throws_lines"; its buttons after their actions.
class ProcedureCard : public QWidget, public HearsRefusals {
  Q_OBJECT
 public:
  /// One column, or what to do with its picture at the left and the answers beside it.
  enum class Form { column, wide };
  ProcedureCard(ProcedureRunner& runner, Form form, QWidget* parent = nullptr);

  ProcedureRunner& runner() { return runner_; }
  const ProcedureRunner& runner() const { return runner_; }
  /// Where the keyboard starts.
  QWidget* first_focus() const;
  /// Says so; whoever takes the number asks again.
  void hear_refusal(NumberBox& box) override { Q_EMIT runner_.said(box.refusal()); }

 private:
  QLabel* words(const char* part, double points, bool bold, const char* property = nullptr);
  void show_card();
  void show_looks(const Card& card);
  void show_number(const Card& card);
  void show_actions(const Card& card);
  void hold_still(bool busy);
  void order_tabs();
  QPushButton* button(const std::string& id);
  void press(const std::string& id);

  ProcedureRunner& runner_;
  QString id_;
  Form form_;
  QLabel *title_, *todo_, *caution_, *picture_words_, *remark_, *says_, *lines_, *note_;
  MovingAircraft* view_;
  QWidget *entry_, *minor_;
  NumberBox* value_;
  QComboBox* unit_;
  LookKeys* keys_;
  QVBoxLayout* actions_;
  QGridLayout* minor_grid_;
  std::map<std::string, QPushButton*> buttons_;
  std::vector<std::string> order_;  ///< of the buttons that stand there
  std::optional<std::pair<std::string, int>> look_;
  std::string subject_;
};

}  // namespace rigging::app
