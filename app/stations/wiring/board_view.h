#pragma once

#include <QWidget>
#include <optional>

#include "catalogue/controller_class.h"

namespace rigging::app {

/// A board from above, arrow up, to scale: sockets at their edges, pads on its face. What is dragged, or moved by the
/// arrow keys, goes in steps of half a millimetre and stays on the board.
class BoardView : public QWidget {
  Q_OBJECT
 public:
  explicit BoardView(QWidget* parent = nullptr);
  void show_board(const ControllerClass& board);
  /// "/outputs/0"; marks it.
  void choose(const QString& pointer);
  /// Where a terminal is drawn.
  QPointF spot(const QString& pointer) const;

 Q_SIGNALS:
  void chosen(const QString& pointer);
  /// The edge is empty for what has none.
  void moved(const QString& pointer, double x_mm, double y_mm, const QString& side);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  struct Spot {
    QString pointer;
    Terminal* terminal = nullptr;
    bool pad = false;
  };
  std::vector<Spot> spots();
  QRectF board() const;
  QPointF on_screen(const Terminal& t) const;
  void move_to(const Spot& spot, double x_mm, double y_mm);
  std::optional<Spot> chosen_spot();

  ControllerClass board_;
  QString chosen_;
  bool dragging_ = false;
};

}  // namespace rigging::app
