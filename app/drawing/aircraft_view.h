#pragma once

#include <QWidget>
#include <set>

#include "airframe/airframe.h"

class QPainter;

namespace rigging::app {

/// The aircraft, drawn from its own dimensions, from one direction. Surfaces move, can be pointed at, and can carry
/// arrows.
class AircraftView : public QWidget {
  Q_OBJECT
 public:
  enum class From { side, above, front, behind_above };

  explicit AircraftView(From from, QWidget* parent = nullptr);

  void set_panels(std::vector<Panel> panels);
  /// Degrees, trailing edge up (rudder: right) positive; motors −1 to 1.
  void set_deflections(const std::map<Surface, double>& deflections);
  /// Arrows at trailing edges: +1 up (right, faster), −1 the other way, 0 a dot for "still".
  void set_arrows(const std::map<Surface, int>& arrows);
  void set_pose(double roll_deg, double pitch_deg, double yaw_deg);
  /// The furthest pose that will be shown: the picture leaves room for it.
  void set_reach(double roll_deg, double pitch_deg, double yaw_deg);
  /// The model will be held any way round: there is room for all of them.
  void set_any_pose(bool on) { any_pose_ = on; }
  /// Where the model should be: drawn as a dashed outline over where it is.
  void set_ghost(const std::optional<std::array<double, 3>>& pose_deg);
  void set_selected(std::set<Surface> surfaces);
  void set_pickable(bool pickable);
  /// Shown in a corner: what this picture is.
  void set_caption(const QString& caption);
  /// Corners that can be taken by the hand, each with what it changes; seen from above.
  struct Handle {
    QString words;
    Point at;
  };
  void set_handles(std::vector<Handle> handles);
  /// Said beside the handle that is held.
  void set_held_words(const QString& words);
  /// Where a handle is drawn; for pointing at it.
  QPointF at_handle(int handle) const { return on_screen(handles_[static_cast<std::size_t>(handle)].at); }
  /// Lets the model be held tilted by dragging or, with the keyboard, by the arrow keys; Home sets it down.
  void set_dragging_turns(bool on);
  /// How many times the true angle is drawn, so that small deflections can be seen.
  void set_exaggeration(double factor) { exaggeration_ = factor; }

  QSize sizeHint() const override { return {320, 200}; }
  QSize minimumSizeHint() const override { return {120, 80}; }

 Q_SIGNALS:
  void picked(rigging::Surface surface);
  /// The model is dragged: change of roll and pitch in degrees since the drag began.
  void turned(double roll_deg, double pitch_deg);
  void released();
  /// The n-th handle was dragged by so much since it was taken, m in body axes; then let go.
  void handle_dragged(int handle, double forward_m, double right_m);
  void handle_let_go();

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

 private:
  struct Drawn {
    const Panel* panel;
    QPolygonF outline;
    double depth;
  };
  static Point posed(Point p, const std::array<double, 3>& pose_deg);
  Point posed(Point p) const { return posed(p, {roll_, pitch_, yaw_}); }
  /// To the picture's plane: x to the right, y down, depth away from the eye; metres.
  Point seen(Point p) const;
  std::vector<Drawn> drawn() const;
  QPointF on_screen(Point p) const;
  void fit();
  std::optional<int> handle_near(QPointF at) const;
  void draw_handles(QPainter& painter) const;
  void draw_arrow(QPainter& painter, Surface surface, int direction) const;

  From from_;
  std::vector<Panel> panels_;
  std::map<Surface, double> deflections_;
  std::map<Surface, int> arrows_;
  std::set<Surface> selected_;
  std::optional<Surface> hovered_;
  std::vector<Handle> handles_;
  std::optional<int> over_handle_, held_handle_;
  QString held_words_;
  double roll_ = 0, pitch_ = 0, yaw_ = 0;
  std::array<double, 3> reach_{};
  double exaggeration_ = 1;
  QString caption_;
  bool pickable_ = false, dragging_turns_ = false, any_pose_ = false;
  std::optional<std::array<double, 3>> ghost_deg_;
  QPoint drag_start_;
  double held_roll_ = 0, held_pitch_ = 0;
  double scale_ = 1;
  QPointF origin_;
};

}  // namespace rigging::app
