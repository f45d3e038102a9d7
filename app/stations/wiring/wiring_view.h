#pragma once

#include <QWidget>

#include "document/rig_document.h"
#include "wiring/layout.h"

namespace rigging::app {

/// The board with its sockets and pads, the parts around it, and the leads between in their colours. A lead can be
/// traced, and its end at the board dragged to another socket.
class WiringView : public QWidget {
  Q_OBJECT
 public:
  explicit WiringView(RigDocument& document, QWidget* parent = nullptr);
  void refresh();
  void trace(const std::string& lead);
  const std::string& traced() const { return traced_; }
  /// Where a socket of the board is drawn.
  QPointF at_socket(const std::string& socket) const;
  /// The lead that is drawn there; empty where none is.
  std::string lead_under(QPointF at) const {
    const auto* line = line_at(at);
    return line ? line->lead : std::string();
  }
  QSize minimumSizeHint() const override;

 Q_SIGNALS:
  void picked(const std::string& lead);
  void moved(const std::string& lead, const std::string& socket);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void resizeEvent(QResizeEvent*) override;

 private:
  QPointF on_screen(double x, double y) const { return {x * scale_, y * scale_}; }
  QPainterPath path_of(const WiringLayout::Line& line, double offset_mm) const;
  const WiringLayout::Line* line_at(QPointF at) const;
  QFont font(double mm, bool bold = false) const;
  void draw_lead(QPainter& p, const WiringLayout::Line& line) const;
  void draw_number(QPainter& p, const WiringLayout::Line& line) const;
  void draw_parts(QPainter& p) const;
  void draw_sockets(QPainter& p) const;
  std::string lead_at_socket(const std::string& socket) const;
  std::optional<Severity> conflict_at(const std::string& socket) const;

  RigDocument& document_;
  WiringLayout layout_;
  double scale_ = 1;
  std::string traced_, dragged_;
  QPointF drag_at_;
};

}  // namespace rigging::app
