#include "look/wrapped_check.h"

#include <QPainter>
#include <QStyleOptionButton>

namespace rigging::app {
namespace {

constexpr int breaks = Qt::TextWordWrap | Qt::AlignLeft | Qt::AlignTop;

}  // namespace

WrappedCheck::WrappedCheck(const QString& words, QWidget* parent) : QCheckBox(words, parent) {
  QSizePolicy policy(QSizePolicy::Ignored, QSizePolicy::Minimum);
  policy.setHeightForWidth(true);
  setSizePolicy(policy);
}

int WrappedCheck::indent() const {
  return style()->pixelMetric(QStyle::PM_IndicatorWidth, nullptr, this) +
         style()->pixelMetric(QStyle::PM_CheckBoxLabelSpacing, nullptr, this) + 2;
}

int WrappedCheck::heightForWidth(int width) const {
  const int room = std::max(40, width - indent());
  return std::max(style()->pixelMetric(QStyle::PM_IndicatorHeight, nullptr, this) + 4,
                  fontMetrics().boundingRect(0, 0, room, 10000, breaks, text()).height() + 4);
}

QSize WrappedCheck::sizeHint() const { return {240, heightForWidth(std::max(240, width()))}; }

void WrappedCheck::paintEvent(QPaintEvent*) {
  QPainter p(this);
  QStyleOptionButton option;
  initStyleOption(&option);
  option.text.clear();
  const int box = style()->pixelMetric(QStyle::PM_IndicatorHeight, nullptr, this);
  // The box stands beside the first line.
  option.rect = QRect(0, std::max(0, (fontMetrics().height() + 4 - box) / 2), indent(), box);
  style()->drawControl(QStyle::CE_CheckBox, &option, &p, this);
  p.setPen(palette().color(isEnabled() ? QPalette::Active : QPalette::Disabled, QPalette::WindowText));
  p.drawText(rect().adjusted(indent(), 2, 0, 0), breaks, text());
}

}  // namespace rigging::app
