#include "look/measure_edit.h"

#include "language/typed_value.h"
#include "look/literals.h"
#include "look/member_box.h"
#include "look/pieces.h"

namespace rigging::app {

MeasureEdit::MeasureEdit(const Member& member, const char* id, QWidget* parent) : QLineEdit(parent), member_(member) {
  setObjectName(QLatin1String(id));
  setAccessibleName(spoken_label(member));
  setAlignment(Qt::AlignRight);
  setFont(Style::instance().figures());
  connect(this, &QLineEdit::textEdited, this, [this] {
    understand();
    Q_EMIT changed();
  });
  connect(this, &QLineEdit::editingFinished, this, [this] {
    if (value_) setText(said(*value_));
  });
}

QString MeasureEdit::said(double value) const { return said_of(value_text(member_, value)); }

void MeasureEdit::set_value(std::optional<double> value) {
  value_ = value;
  problem_.clear();
  setText(value ? said(*value) : QString());
}

void MeasureEdit::set_guess(double value) { setPlaceholderText(u"≈ "_s + said(value)); }

void MeasureEdit::understand() {
  value_.reset();
  problem_.clear();
  const std::string typed = text().trimmed().toStdString();
  if (typed.empty()) return;
  if (const auto understood = typed_value(member_, typed))
    value_ = *understood;
  else
    problem_ = said_of(understood.error().text());
}

}  // namespace rigging::app
