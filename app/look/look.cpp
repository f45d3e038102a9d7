#include "look/look.h"

#include "look/plain_text.h"

#include <QApplication>
#include <QLocale>
#include <QPainter>
#include <QPainterPath>
#include <QPalette>
#include <QWidget>
#include <algorithm>
#include <cmath>
#include <utility>

#include "look/literals.h"
#include "paper.h"

namespace rigging::app {

Style& Style::instance() {
  static Style look;
  return look;
}

Style::Style() {
  // Boxes show what sentences, files and the command line show: a point, and nothing between thousands.
  QLocale plain = QLocale::c();
  plain.setNumberOptions(QLocale::OmitGroupSeparator | QLocale::RejectGroupSeparator);
  QLocale::setDefault(plain);
  add_shipped_fonts();
  apply();
  if (qApp) qApp->installEventFilter(new PlainText(qApp));
}

const Inks& Style::inks() const {
  static const Inks paper{{"#F6F2E8"}, {"#FFFDF7"}, {"#C9BFA8"}, {"#1E2B34"}, {"#5B6770"}, {"#0E6E66"},
                          {"#A93A1C"}, {"#8A5C05"}, {"#44607A"}, {"#3F6A24"}, {"#EDE6D4"}};
  static const Inks field{{"#FFFFFF"}, {"#FFFFFF"}, {"#555555"}, {"#000000"}, {"#222222"}, {"#004D47"},
                          {"#8A1F00"}, {"#6B4400"}, {"#1F3B57"}, {"#2A5210"}, {"#EDEDED"}};
  static const Inks dark{{"#1B2126"}, {"#232B31"}, {"#4A545C"}, {"#EDE8DC"}, {"#AEB6BB"}, {"#5CC4B8"},
                         {"#F08A68"}, {"#E0AC4E"}, {"#93B4D2"}, {"#9CCB78"}, {"#2C353C"}};
  return theme_ == Theme::paper ? paper : theme_ == Theme::field ? field : dark;
}

QFont Style::text(double points, bool bold) const {
  QFont font(u"Rigging Text"_s);
  font.setPointSizeF(points > 0 ? points * base_points() / 10 : base_points());
  font.setBold(bold);
  return font;
}

QFont Style::figures(double points, bool bold) const { return text(points, bold); }

QFont Style::columns(double points) const {
  QFont font = text(points);
  font.setFamily(u"Rigging Figures"_s);
  return font;
}

void Style::dress() {
  if (!std::exchange(dressed_, true)) apply();
}

void Style::set_theme(Theme theme) {
  if (theme == theme_) return;
  const double before = base_points();
  theme_ = theme;
  grow(before);
}

void Style::set_text_scale(double scale) {
  scale = std::clamp(scale, 0.8, 2.0);
  if (scale == text_scale_) return;
  const double before = base_points();
  text_scale_ = scale;
  grow(before);
}

int Style::px(double pixels) const {
  return static_cast<int>(std::lround(pixels * (1 + 0.6 * (base_points() / 10 - 1))));
}

void Style::grow(double before) {
  apply();
  // Text that was given its own size grows and shrinks with the rest.
  if (const double ratio = base_points() / before; ratio != 1)
    for (QWidget* w : QApplication::allWidgets())
      if (w->testAttribute(Qt::WA_SetFont)) {
        QFont font = w->font();
        font.setPointSizeF(font.pointSizeF() * ratio);
        w->setFont(font);
      }
  Q_EMIT changed();
}

void Style::apply() {
  if (!qApp) return;
  const Inks& i = inks();
  QPalette palette;
  palette.setColor(QPalette::Window, i.paper);
  palette.setColor(QPalette::Base, i.sheet);
  palette.setColor(QPalette::AlternateBase, i.wash);
  palette.setColor(QPalette::WindowText, i.ink);
  palette.setColor(QPalette::Text, i.ink);
  palette.setColor(QPalette::ButtonText, i.ink);
  palette.setColor(QPalette::Button, i.sheet);
  palette.setColor(QPalette::Highlight, i.teal);
  palette.setColor(QPalette::HighlightedText, i.sheet);
  palette.setColor(QPalette::ToolTipBase, i.sheet);
  palette.setColor(QPalette::ToolTipText, i.ink);
  palette.setColor(QPalette::PlaceholderText, i.soft);
  qApp->setPalette(palette);
  qApp->setFont(text());
  QString css = QStringLiteral(R"(
    QWidget { color: @ink; }
    QMainWindow, QDialog { background: @paper; }
    QToolTip { background: @sheet; color: @ink; border: 1px solid @line; padding: 4px; }
    QPushButton, QToolButton { background: @sheet; border: 1px solid @line; border-radius: 2px; padding: 5px 10px; }
    QPushButton:hover, QToolButton:hover { border-color: @teal; }
    QPushButton:focus, QToolButton:focus { border: 2px solid @teal; padding: 4px 9px; }
    QPushButton:pressed, QToolButton:pressed { background: @teal; color: @sheet; border-color: @teal; }
    QPushButton:checked, QToolButton:checked { background: @wash; color: @teal; border: 2px solid @teal; padding: 4px 9px; }
    QPushButton:disabled, QToolButton:disabled { color: @soft; background: @wash; }
    QPushButton[main="true"] { background: @teal; color: @sheet; border-color: @teal; font-weight: bold; }
    QPushButton[main="true"]:disabled { background: @wash; color: @soft; border-color: @line; }
    QPushButton[main="true"]:focus { border: 2px solid @ink; }
    QPushButton[flat="true"] { border: none; background: transparent; color: @teal; text-decoration: underline; padding: 2px; text-align: left; }
    QPushButton[flat="true"]:disabled { background: transparent; color: @soft; text-decoration: none; }
    QLineEdit, QComboBox, QDoubleSpinBox, QSpinBox, QPlainTextEdit { background: @sheet; border: 1px solid @line; border-radius: 2px; padding: 3px 5px; selection-background-color: @teal; }
    QLineEdit:focus, QComboBox:focus, QDoubleSpinBox:focus, QSpinBox:focus { border: 2px solid @teal; padding: 2px 4px; }
    QComboBox { combobox-popup: 0; qproperty-maxVisibleItems: 16; }
    QComboBox QAbstractItemView { background: @sheet; border: 1px solid @line; selection-background-color: @teal; selection-color: @sheet; }
    QComboBox QAbstractItemView::item { padding: 3px 0; }
    QListWidget, QScrollArea { background: transparent; border: none; }
    QListWidget::item { padding: 4px; }
    QListWidget::item:selected { background: @teal; color: @sheet; }
    QListWidget#begin_kinds::item { padding: 0; }
    QMenu { background: @sheet; border: 1px solid @line; }
    QMenu::item:selected { background: @teal; color: @sheet; }
    QMenuBar { background: @paper; }
    QMenuBar::item:selected { background: @teal; color: @sheet; }
    QScrollBar:vertical { background: transparent; width: 10px; }
    QScrollBar::handle:vertical { background: @line; min-height: 24px; border-radius: 2px; }
    QScrollBar::add-line, QScrollBar::sub-line { height: 0; }
    QLabel[soft="true"] { color: @soft; }
    QLabel[caution="true"] { color: @rust; font-weight: bold; }
    QSplitter::handle:vertical { background: transparent; border-top: 1px solid @line; }
    QSplitter::handle:vertical:hover { border-top: 3px solid @teal; }
    QFrame[rule="true"] { background: @line; max-height: 1px; border: none; }
    QFrame[card="true"] { background: @sheet; border: 1px solid @line; border-radius: 2px; }
    QCheckBox:focus { outline: none; border: 1px solid @teal; }
  )");
  const std::pair<const char*, QColor> names[] = {{"@ink", i.ink},   {"@paper", i.paper}, {"@sheet", i.sheet},
                                                  {"@line", i.line}, {"@teal", i.teal},   {"@soft", i.soft},
                                                  {"@wash", i.wash}, {"@rust", i.rust}};
  for (const auto& [name, color] : names) css.replace(QLatin1String(name), color.name());
  if (dressed_) qApp->setStyleSheet(css);
}

void Style::draw_severity(QPainter& p, QRectF box, Severity severity) const {
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  if (severity == Severity::worth_knowing) {
    p.setPen(QPen(inks().slate, 1.8));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(box.adjusted(1, 1, -1, -1));
  } else {
    const QColor ink = severity == Severity::grounds ? inks().rust : inks().ochre;
    p.setPen(QPen(ink, 1.6));
    p.setBrush(severity == Severity::grounds ? QBrush(ink) : Qt::NoBrush);
    p.drawRect(box.adjusted(1, 1, -1, -1));
    if (severity == Severity::fix_first)
      p.fillRect(QRectF(box.left() + 1, box.center().y(), box.width() - 2, box.height() / 2 - 1), ink);
  }
  p.restore();
}

void Style::draw_station_mark(QPainter& p, QRectF box, StationState state) const {
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  p.setBrush(Qt::NoBrush);
  switch (state) {
    case StationState::unknown:
      p.setPen(Qt::NoPen);
      p.setBrush(inks().soft);
      p.drawEllipse(box.center(), 1.6, 1.6);
      break;
    case StationState::snags: draw_severity(p, box, Severity::fix_first); break;
    case StationState::planned:
      p.setPen(QPen(inks().teal, 1.8));
      p.drawEllipse(box.adjusted(1, 1, -1, -1));
      break;
    case StationState::proven: {
      p.setPen(QPen(inks().moss, 1.8));
      p.drawEllipse(box.adjusted(1, 1, -1, -1));
      QPainterPath tick(QPointF(box.left() + box.width() * .28, box.center().y()));
      tick.lineTo(box.left() + box.width() * .45, box.bottom() - box.height() * .3);
      tick.lineTo(box.right() - box.width() * .25, box.top() + box.height() * .3);
      p.drawPath(tick);
      break;
    }
    case StationState::stale: {
      p.setPen(QPen(inks().ochre, 2));
      for (int part = 0; part < 4; ++part) p.drawArc(box.adjusted(1, 1, -1, -1), (part * 90 + 15) * 16, 50 * 16);
      break;
    }
  }
  p.restore();
}

}  // namespace rigging::app
