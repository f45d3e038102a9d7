#include "stations/numbers_dialog.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <cmath>

#include "look/literals.h"
#include "look/member_box.h"
#include "look/pieces.h"

namespace rigging::app {

NumbersDialog::NumbersDialog(const QString& title, const QString& words, QWidget* parent) : QDialog(parent) {
  setObjectName(u"numbers_dialog"_s);
  setWindowTitle(title);
  auto* layout = new QVBoxLayout(this);
  auto* label = new QLabel(words);
  label->setWordWrap(true);
  label->setMinimumWidth(380);
  layout->addWidget(label);
  refusal_ = caution_words(10);
  refusal_->setObjectName(u"refusal"_s);
  refusal_->hide();
  layout->addWidget(refusal_);
  form_ = new QFormLayout;
  layout->addLayout(form_);
  auto* buttons = new QHBoxLayout;
  buttons->addStretch();
  auto* leave = new QPushButton(u"Leave"_s);
  leave->setObjectName(u"leave"_s);
  auto* take = new QPushButton(u"Take these"_s);
  take->setObjectName(u"take"_s);
  take->setProperty("main", true);
  take->setDefault(true);
  buttons->addWidget(leave);
  buttons->addWidget(take);
  layout->addLayout(buttons);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  connect(take, &QPushButton::clicked, this, &NumbersDialog::take);
}

NumbersDialog::Number NumbersDialog::described(const Member& m, int finer, const QString& label) {
  const Shown s = shown_in_box(m);
  return {label.isEmpty() ? spoken_label(m) : label,
          QString::fromUtf8(s.unit.data(), static_cast<qsizetype>(s.unit.size())),
          m.span.least * s.factor,
          m.span.most * s.factor,
          s.places + finer,
          s.factor};
}

NumbersDialog::Number NumbersDialog::with_unknown(Number n) {
  n.least -= std::pow(10.0, -n.decimals);
  return n;
}

QDoubleSpinBox* NumbersDialog::box(const char* id, const Number& n) {
  auto* b = number_box(QLatin1String(id), n.label, 156);
  b->setKeyboardTracking(true);  // nothing listens before it is taken
  b->setDecimals(n.decimals);
  b->setRange(n.least, n.most);
  b->setSuffix(n.unit.isEmpty() ? QString() : QLatin1Char(' ') + n.unit);
  form_->addRow(n.label, b);
  return b;
}

void NumbersDialog::add(const char* id, const Number& n, double& value) {
  QDoubleSpinBox* b = box(id, n);
  b->setValue(value * n.per_si);
  // What was not touched keeps its last digits.
  takes_.push_back([b, &value, per = n.per_si, shown = b->value()] {
    if (b->value() != shown) value = b->value() / per;
  });
}

void NumbersDialog::add(const char* id, const Number& n, std::optional<double>& value, const QString& unknown) {
  QDoubleSpinBox* b = box(id, n);
  b->setSpecialValueText(unknown);
  b->setValue(value ? *value * n.per_si : n.least);
  takes_.push_back([b, &value, per = n.per_si, shown = b->value()] {
    if (b->value() == shown) return;
    value = b->value() <= b->minimum() ? std::nullopt : std::optional(b->value() / per);
  });
}

void NumbersDialog::add(const char* id, const QString& label, bool& value) {
  auto* b = new QCheckBox(label);
  b->setObjectName(QLatin1String(id));
  b->setChecked(value);
  form_->addRow(b);
  takes_.push_back([b, &value] { value = b->isChecked(); });
}

void NumbersDialog::add(const char* id, const QString& label, std::string& value, const QString& hint) {
  auto* b = new QLineEdit(QString::fromStdString(value));
  b->setObjectName(QLatin1String(id));
  b->setPlaceholderText(hint);
  form_->addRow(label, b);
  takes_.push_back([b, &value] { value = b->text().trimmed().toStdString(); });
}

void NumbersDialog::add(const char* id, const QString& label, std::size_t& at, const QStringList& choices) {
  auto* b = new QComboBox;
  b->setObjectName(QLatin1String(id));
  b->addItems(choices);
  b->setCurrentIndex(static_cast<int>(at));
  form_->addRow(label, b);
  takes_.push_back([b, &at] { at = static_cast<std::size_t>(b->currentIndex()); });
}

void NumbersDialog::take() {
  for (int row = 0; row < form_->rowCount(); ++row) {
    QLayoutItem* item = form_->itemAt(row, QFormLayout::FieldRole);
    auto* number = item ? dynamic_cast<NumberBox*>(item->widget()) : nullptr;
    if (!number) continue;
    number->interpretText();
    const QString refusal = number->take_refusal();
    if (refusal.isEmpty()) continue;
    refuse(refusal);
    number->setFocus(Qt::OtherFocusReason);
    number->selectAll();
    return;
  }
  accept();
}

void NumbersDialog::refuse(const QString& why) {
  refusal_->setText(why);
  refusal_->show();
}

void NumbersDialog::ask(RigDocument& document, const std::function<Result<Edit>()>& made) {
  while (ask()) {
    auto edit = made();
    if (edit && edit->rig == document.rig()) return;
    if (edit) return static_cast<void>(document.apply(std::move(edit)));
    refuse(QString::fromStdString(edit.error().text()));
  }
}

bool NumbersDialog::ask() {
  // Typing begins in the first box, not on the button.
  for (int row = 0; row < form_->rowCount(); ++row)
    if (QLayoutItem* item = form_->itemAt(row, QFormLayout::FieldRole); item && item->widget()) {
      item->widget()->setFocus();
      if (auto* number = qobject_cast<QAbstractSpinBox*>(item->widget())) number->selectAll();
      break;
    }
  if (exec() != QDialog::Accepted) return false;
  for (const auto& take : takes_) take();
  return true;
}

}  // namespace rigging::app
