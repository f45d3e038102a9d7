#pragma once

#include <QWidget>

#include "signal/signal.h"
#include "sticks/sticks.h"

namespace rigging::app {

/// Every channel that is no stick, as it stands now: its number, what it is for, a short ruler with the positions that
/// are known, and the mode that is chosen.
class SwitchBars : public QWidget {
  Q_OBJECT
 public:
  explicit SwitchBars(QWidget* parent = nullptr);
  /// `sticks`: numbers of the channels that are shown elsewhere.
  /// `most`: channels that the transmitter has; a receiver sends more.
  void set_lines(std::vector<SwitchLine> lines, std::vector<int> sticks, const std::vector<ModeChoice>& modes,
                 int most);
  /// The latest frame; null while nothing is heard.
  void set_now(const ChannelFrame* frame);
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override { return {200, sizeHint().height()}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  struct Cell {
    int channel = 0;
    QString name;
    std::vector<SwitchPosition> positions;
  };
  /// Those of the plan, and what else the receiver sends.
  std::vector<Cell> cells() const;

  std::vector<SwitchLine> lines_;
  std::vector<int> sticks_;
  std::vector<ModeChoice> modes_;
  int most_ = 16;
  std::optional<ChannelFrame> now_;
};

}  // namespace rigging::app
