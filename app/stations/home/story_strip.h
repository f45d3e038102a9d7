#pragma once

#include <QWidget>
#include <vector>

#include "home/home.h"

namespace rigging::app {

/// The failsafe as a story from the last good frame to the ground: its steps one after the other, the height over them,
/// and a mark that can be drawn along.
class StoryStrip : public QWidget {
  Q_OBJECT
 public:
  explicit StoryStrip(QWidget* parent = nullptr);

  void show_story(std::vector<StoryStep> story);
  const std::vector<StoryStep>& story() const { return story_; }
  /// Seconds since the link was lost, where the mark stands.
  double at_s() const { return at_s_; }
  void set_at(double seconds);
  /// The step that the mark stands in; null without a story.
  const StoryStep* step() const;

  QSize sizeHint() const override { return {640, 118}; }
  QSize minimumSizeHint() const override { return {380, 104}; }

 Q_SIGNALS:
  void scrubbed(double seconds);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  /// Short steps are drawn wide enough to be read: the strip is no ruler.
  std::vector<double> edges() const;
  double x_of(double seconds) const;
  double seconds_at(double x) const;

  std::vector<StoryStep> story_;
  double at_s_ = 0;
};

}  // namespace rigging::app
