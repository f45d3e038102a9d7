#pragma once

#include <QWidget>

#include "direction/case.h"

class QLabel;
class QGridLayout;
class QPushButton;

namespace rigging::app {

/// Big keys for what was seen: one row per surface (and per channel), three keys each. Surfaces that were not looked at
/// stay open.
class LookKeys : public QWidget {
  Q_OBJECT
 public:
  explicit LookKeys(QWidget* parent = nullptr);

  void ask(const direction::Observation& observation, const std::vector<Surface>& surfaces, bool channels);
  /// Presses the channel keys from what the controller hears, in µs.
  void hear(const std::map<std::string, double>& channels);
  /// What was pressed, filled into the observation that was asked.
  direction::Observation observation() const;
  bool anything_pressed() const;

 Q_SIGNALS:
  void pressed();

 private:
  struct Row {
    std::optional<Surface> surface;
    Axis channel = Axis::roll;
    std::array<QPushButton*, 3> keys{};  ///< +1, −1, 0
    int chosen = 9;
  };
  void choose(std::size_t row, int value);
  void add_row(Row row, const QString& name, const QString& id, const std::array<QString, 3>& words);

  direction::Observation asked_;
  std::vector<Row> rows_;
  QGridLayout* grid_;
  QWidget* inside_ = nullptr;
};

}  // namespace rigging::app
