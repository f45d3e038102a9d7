#pragma once

#include <QImage>
#include <QWidget>

#include "document/rig_document.h"

namespace rigging::app {

/// The aircraft from the side and from above with its parts, to drag; balance point and allowed band; the field of the
/// leads round the compass as a cloud.
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

 Q_SIGNALS:
  void picked(const std::string& part);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void resizeEvent(QResizeEvent*) override { cloud_ = {}; }

 private:
  enum class View { side, above };
  void fit();
  QPointF on_screen(View view, Point p) const;
  Point in_model(View view, QPointF at, Point keep) const;
  Point place_of(const std::string& part) const;
  QSizeF size_of(View view, const std::string& part) const;
  QRectF box_of(View view, const std::string& part) const;
  void draw_cloud(QPainter& p);
  void draw_parts(QPainter& p, View view);
  void draw_balance(QPainter& p);
  void move_to(const std::string& part, Point to);
  std::vector<std::string> things() const;

  RigDocument& document_;
  std::string selected_;
  std::optional<Point> dragged_;
  View drag_view_ = View::above;
  QPointF grip_;
  double scale_ = 1;
  QPointF origin_side_, origin_above_;
  double split_ = 0;
  bool closer_ = false;
  QImage cloud_;
};

}  // namespace rigging::app
