#pragma once

#include <QImage>
#include <QWidget>

#include "document/rig_document.h"

namespace rigging::app {

/// The aircraft from the left and from above, nose up, with its parts to drag; balance point and allowed band; the
/// field of the leads round the compass as a cloud. While a part is dragged it says how far and what that does.
class PlacesView : public QWidget {
  Q_OBJECT
 public:
  explicit PlacesView(RigDocument& document, QWidget* parent = nullptr);
  void refresh();
  void select(const std::string& part);
  /// Fills the picture with the fuselage instead of the whole aircraft.
  void set_closer(bool on);
  const std::string& selected() const { return selected_; }
  QSize minimumSizeHint() const override { return {380, 300}; }
  /// Where the middle of a part is drawn in the view from above; for pointing at it.
  QPointF above_of(const std::string& part) const;
  /// While a part is dragged: how far it has come, and what balance, compass and room would be if it were let go.
  QStringList what_it_does() const;

 Q_SIGNALS:
  void picked(const std::string& part);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void resizeEvent(QResizeEvent*) override { cloud_ = {}; }
  bool event(QEvent*) override;

 private:
  // Pixels: round the drawing, between the two views, above and below them, for names beside a bay, and from a part to
  // its name.
  static constexpr double margin_px = 14, gutter_px = 44, head_px = 26, foot_px = 24, names_px = 120, leader_px = 20;
  enum class View { side, above };
  void fit();
  QPointF on_screen(View view, Point p) const;
  Point in_model(View view, QPointF at, Point keep) const;
  Point path_of(const std::string& part) const;
  QSizeF size_of(View view, const std::string& part) const;
  QRectF box_of(View view, const std::string& part) const;
  std::string part_at(View view, QPointF at) const;
  const FitReport& report() const;
  Point snapped(Point to);
  void draw_aircraft(QPainter& p, View view);
  void draw_cloud(QPainter& p);
  void draw_parts(QPainter& p, View view);
  void draw_names(QPainter& p);
  void draw_balance(QPainter& p);
  void draw_guides(QPainter& p);
  void draw_what_it_does(QPainter& p);
  void move_to(const std::string& part, Point to);
  std::vector<std::string> things() const;
  std::string part_label(const std::string& part) const;

  RigDocument& document_;
  std::string selected_;
  std::optional<Point> dragged_, from_;
  std::optional<FitReport> live_;            ///< of the rig as it would be if the part were let go here
  std::optional<double> guide_x_, guide_y_;  ///< what the dragged part is lined up with
  View drag_view_ = View::above;
  QPointF grip_;
  double scale_ = 1;
  QPointF origin_side_, origin_above_;
  double split_ = 0;  ///< between the view from the left and the one from above
  bool closer_ = false;
  QImage cloud_;
};

}  // namespace rigging::app
