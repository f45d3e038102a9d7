#pragma once

#include <QWidget>

#include "sticks/sticks.h"

namespace rigging::app {

/// A ruler for each stick: ticks where its pulses should land, ink where they did land and where the stick is now, and
/// what to dial in as big numbers beside it.
class ReachRulers : public QWidget {
  Q_OBJECT
 public:
  explicit ReachRulers(QWidget* parent = nullptr);
  void set_lines(std::vector<ChannelLine> lines, const Transmitter& transmitter);
  /// The latest frame; null while nothing is heard.
  void set_now(const ChannelFrame* frame);
  /// Which stick the builder is asked to move, and to which side.
  void set_asked(std::optional<ChannelFunction> function, int side);
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override;
  /// Whether a stick that was read can be asked for once more, by the words below its name.
  void set_again(bool possible);

 Q_SIGNALS:
  void again(rigging::ChannelFunction function);

 protected:
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<ChannelLine> lines_;
  Transmitter transmitter_;
  std::optional<ChannelFrame> now_;
  std::optional<ChannelFunction> asked_;
  const ChannelLine* again_at(QPointF at) const;
  double row_height() const;

  int side_ = 0;
  bool again_ = false;
};

}  // namespace rigging::app
