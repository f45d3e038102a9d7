#include "look/measure_edit.h"

#include "base/number.h"
#include "base/typed.h"
#include "look/member_box.h"
#include "look/pieces.h"

namespace rigging::app {

MeasureEdit::MeasureEdit(const Member& member, const char* id, QWidget* parent) : QLineEdit(parent), member_(member) {
  setObjectName(QLatin1String(id));
  setAccessibleName(spoken_label(member));
  setAlignment(Qt::AlignRight);
  setFont(Look::instance().figures());
  connect(this, &QLineEdit::textEdited, this, [this] {
    understand();
    Q_EMIT changed();
  });
  connect(this, &QLineEdit::editingFinished, this, [this] {
    if (value_) setText(said(*value_));
  });
}

QString MeasureEdit::said(double value) const {
  const Shown s = shown_in_box(member_);
  return said_of(number_text(value * s.factor, s.places) + (s.unit == "°" ? "" : " ") + std::string(s.unit));
}

void MeasureEdit::set_value(std::optional<double> value) {
  value_ = value;
  problem_.clear();
  setText(value ? said(*value) : QString());
}

void MeasureEdit::set_guess(double value) { setPlaceholderText(QStringLiteral("≈ ") + said(value)); }

void MeasureEdit::understand() {
  value_.reset();
  problem_.clear();
  const std::string typed = text().trimmed().toStdString();
  if (typed.empty()) return;
  const Shown s = shown_in_box(member_);
  const auto fits = [&](double v) { return v >= member_.span.least - 1e-9 && v <= member_.span.most + 1e-9; };
  const auto number = typed_number(typed, s.unit);
  if (!number) {
    problem_ = said_of(number.error().text());
    return;
  }
  if (fits(*number / s.factor)) {
    value_ = *number / s.factor;
    return;
  }
  // "1.2" of a span: metres.
  const bool bare = typed.find_first_not_of("0123456789.,") == std::string::npos;
  if (bare && fits(*number)) {
    value_ = *number;
    return;
  }
  problem_ = tr("%1 is out of its range: %2 to %3 is expected")
                 .arg(said(*number / s.factor), said(member_.span.least), said(member_.span.most));
}

}  // namespace rigging::app
