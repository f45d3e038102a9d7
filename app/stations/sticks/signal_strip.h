#pragma once

#include <QWidget>
#include <deque>

#include "signal/signal.h"

namespace rigging::app {

/// The last seconds of what was heard: one pen line per channel, gaps and lost frames marked.
class SignalStrip : public QWidget {
  Q_OBJECT
 public:
  explicit SignalStrip(QWidget* parent = nullptr);
  /// Channels to draw with their names, in order.
  void set_channels(std::vector<std::pair<int, QString>> channels);
  /// Draws from here; the frames stay with their owner and must outlive the next call.
  void set_frames(const std::deque<ChannelFrame>* frames, const QString& words);

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<std::pair<int, QString>> channels_;
  const std::deque<ChannelFrame>* frames_ = nullptr;
  QString words_;
};

}  // namespace rigging::app
