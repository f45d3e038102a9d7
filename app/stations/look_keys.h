#pragma once

#include <QWidget>

#include "procedure/procedure.h"

class QGridLayout;
class QPushButton;

namespace rigging::app {

/// Big keys for what was seen: one row per thing, a key for each way in which it can be. What was not looked at stays
/// open.
class LookKeys : public QWidget {
  Q_OBJECT
 public:
  explicit LookKeys(QWidget* parent = nullptr);

  /// New rows, with nothing pressed.
  void ask(const std::vector<LookRow>& rows);
  /// Presses what the controller itself says of these rows.
  void hear(const std::vector<LookRow>& rows);
  /// The value of each row in which a key is pressed.
  std::map<std::string, int> seen() const;

 Q_SIGNALS:
  void pressed();

 private:
  struct Keys {
    LookRow row;
    std::vector<QPushButton*> buttons;  ///< in the order of the row's choices
    std::optional<int> chosen;
  };
  void choose(std::size_t row, int value);
  void add(const LookRow& row);

  std::vector<Keys> rows_;
  QGridLayout* grid_ = nullptr;
  QWidget* inside_ = nullptr;
};

}  // namespace rigging::app
