#include "stations/fit/part_dialog.h"

#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QGroupBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QRegularExpressionValidator>
#include <QVBoxLayout>

#include "base/number.h"
#include "catalogue/part_words.h"
#include "look/html.h"
#include "look/literals.h"
#include "look/member_box.h"
#include "look/pieces.h"
#include "look/units.h"
#include "stations/fit/part_sheet.h"

namespace rigging::app {
namespace {

QDoubleSpinBox* number(const Member& member, const char* id) {
  auto* box = number_box(QLatin1String(id), {});
  box->setKeyboardTracking(true);  // nothing listens before it is taken
  show_member(*box, member, 0, 1);
  return box;
}

}  // namespace

PartDialog::PartDialog(RigDocument& document, QWidget* parent) : QDialog(parent), document_(document) {
  setObjectName(u"part_dialog"_s);
  setWindowTitle(u"Add a part"_s);
  resize(720, 520);
  auto* all = new QHBoxLayout(this);
  auto* left = new QVBoxLayout;
  search_ = new QLineEdit;
  search_->setPlaceholderText(u"What is it? servo, receiver, battery…"_s);
  search_->setObjectName(u"part_search"_s);
  left->addWidget(search_);
  list_ = new QListWidget;
  list_->setObjectName(u"part_kinds"_s);
  left->addWidget(list_, 1);
  all->addLayout(left, 1);
  auto* right = new QVBoxLayout;
  facts_ = new QLabel;
  facts_->setWordWrap(true);
  facts_->setMinimumWidth(300);
  facts_->setMaximumWidth(330);
  facts_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  right->addWidget(facts_, 1);
  auto* heading = new QLabel;
  show_html(heading, html(u"<b>Yours differs?</b> Describe it, starting from this one. It is kept beside the rig."));
  heading->setWordWrap(true);
  right->addWidget(heading);
  auto* form = new QFormLayout;
  own_id_ = new QLineEdit;
  own_id_->setObjectName(u"own_id"_s);
  own_id_->setValidator(new QRegularExpressionValidator(QRegularExpression(u"[a-z][a-z0-9_]*"_s), own_id_));
  own_id_->setPlaceholderText(u"small letters, digits, _"_s);
  own_name_ = new QLineEdit;
  own_name_->setObjectName(u"own_name"_s);
  mass_ = number(member_of(&PartKind::mass_kg), "own_mass");
  idle_ = number(member_of(&Load::idle_a), "own_idle");
  typical_ = number(member_of(&Load::typical_a), "own_typical");
  most_ = number(member_of(&Load::most_a), "own_most");
  form->addRow(u"Short name"_s, own_id_);
  form->addRow(u"Name"_s, own_name_);
  form->addRow(u"Mass"_s, mass_);
  form->addRow(u"Current idle"_s, idle_);
  form->addRow(u"Current moving"_s, typical_);
  form->addRow(u"Current at most"_s, most_);
  right->addLayout(form);
  complaint_ = new QLabel;
  complaint_->setObjectName(u"part_complaint"_s);
  complaint_->setWordWrap(true);
  complaint_->setProperty("caution", true);
  right->addWidget(complaint_);
  auto* buttons = new QHBoxLayout;
  own_ = new QPushButton(u"Keep mine and add it"_s);
  own_->setObjectName(u"keep_own"_s);
  add_ = new QPushButton(u"Add this one"_s);
  add_->setObjectName(u"add_chosen"_s);
  add_->setProperty("main", true);
  add_->setDefault(true);
  auto* cancel = new QPushButton(u"Leave"_s);
  everything_ = hinted_button(u"More…"_s, "own_everything", u"Sockets, feeds, figures: everything about yours"_s);
  for (QPushButton* b : {cancel, everything_, own_, add_}) buttons->addWidget(b);
  right->addLayout(buttons);
  all->addLayout(right);
  connect(search_, &QLineEdit::textChanged, this, &PartDialog::fill);
  connect(list_, &QListWidget::currentRowChanged, this, &PartDialog::show_kind);
  connect(list_, &QListWidget::itemActivated, add_, &QPushButton::click);
  connect(add_, &QPushButton::clicked, this, [this] {
    if (const PartKind* k = current()) {
      chosen_ = k->id;
      accept();
    }
  });
  connect(own_, &QPushButton::clicked, this, [this] {
    if (current()) keep_own(described());
  });
  connect(everything_, &QPushButton::clicked, this, [this] {
    if (!current()) return;
    if (own_id_->text().isEmpty()) {
      complaint_->setText(u"Give yours a short name first."_s);
      own_id_->setFocus();
      return;
    }
    PartSheet sheet(described(), this);
    if (sheet.exec() == QDialog::Accepted)
      if (const auto mine = sheet.made()) keep_own(*mine);
  });
  connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
  fill();
}

void PartDialog::fill() {
  list_->clear();
  for (const FoundKind& found : find_kinds(document_.catalogue(), search_->text().toStdString())) {
    // Words that no part goes by, and figures that none has, leave nothing.
    if (!found.exact || !found.unknown.empty()) continue;
    auto* item = new QListWidgetItem(said_of(found.kind->name), list_);
    item->setData(Qt::UserRole, said_of(found.kind->id));
  }
  list_->setCurrentRow(0);
  show_kind();
}

const PartKind* PartDialog::current() const {
  const QListWidgetItem* item = list_->currentItem();
  return item ? document_.catalogue().part(item->data(Qt::UserRole).toString().toStdString()) : nullptr;
}

void PartDialog::show_kind() {
  const PartKind* k = current();
  for (QWidget* w :
       std::initializer_list<QWidget*>{own_, add_, everything_, own_id_, own_name_, mass_, idle_, typical_, most_})
    w->setEnabled(k != nullptr);
  if (!k) {
    show_html(facts_,
              u"No part that is known here fits these words. Search for its kind alone, such as servo, and "
              "describe yours starting from the one that comes nearest."_s);
    own_name_->clear();
    for (QDoubleSpinBox* box : {mass_, idle_, typical_, most_}) box->setValue(0);
    return;
  }
  QList<Html> lines{html(u"<b>%1</b>", {k->name})};
  const auto n = [](double v, int places) { return QString::fromStdString(number_text(v, places)); };
  const Units& u = Units::instance();
  if (k->mass_kg) lines << u"%1 %2"_s.arg(n(u.mass_out(*k->mass_kg), u.metric() ? 1 : 2), u.mass_unit());
  if (k->length_mm && k->width_mm && k->height_mm) {
    const auto size = [&](double mm) { return n(u.length_out(mm / 1000), u.metric() ? 1 : 2); };
    lines << u"%1 × %2 × %3 %4"_s.arg(size(*k->length_mm), size(*k->width_mm), size(*k->height_mm), u.length_unit());
  }
  for (const Load& l : k->loads)
    lines << u"%1 A idle, %2 A moving or usual, %3 A at most; %4 to %5 V"_s.arg(
        n(l.idle_a, 3), n(l.typical_a, 2), n(l.most_a, 2), n(l.least_v, 1), n(l.most_v, 1));
  for (const Feed& f : k->feeds)
    if (f.volts > 0)
      lines << u"gives %1 V, %2 A (%3), from %4 to %5 V"_s.arg(n(f.volts, 1), n(f.amps, 1),
                                                               QString::fromLatin1(name_of(f.kind).data()),
                                                               n(f.least_in_v, 1), n(f.most_in_v, 1));
  if (k->servo)
    lines << u"%1, %2 s for 60°, %3 N·m, up to %4 Hz"_s.arg(k->servo->digital ? u"digital"_s : u"analogue"_s,
                                                            n(k->servo->seconds_per_60deg, 2),
                                                            n(k->servo->torque_nm, 2), n(k->servo->most_rate_hz, 0));
  if (k->battery)
    lines << u"%1 cells, %2 Ah, %3 A, %4 mΩ a cell"_s.arg(k->battery->cells)
                 .arg(n(k->battery->capacity_ah, 2), n(k->battery->amps, 0), n(k->battery->cell_milliohm, 1));
  if (k->drive)
    lines << u"%1 A, %2 to %3 cells"_s.arg(n(k->drive->amps, 0)).arg(k->drive->least_cells).arg(k->drive->most_cells);
  if (k->motor) lines << u"%1 rev/min per volt, %2 A at most"_s.arg(n(k->motor->rpm_per_v, 0), n(k->motor->amps, 0));
  lines << html(u"<i>%1</i>", {k->basis});
  show_html(facts_, joined(lines, html(u"<br>")));
  own_name_->setText(QString::fromStdString(k->name));
  mass_->setValue(u.mass_out(k->mass_kg.value_or(0)));
  const bool load = !k->loads.empty();
  for (QDoubleSpinBox* box : {idle_, typical_, most_}) box->setEnabled(load);
  idle_->setValue(load ? k->loads.front().idle_a : 0);
  typical_->setValue(load ? k->loads.front().typical_a : 0);
  most_->setValue(load ? k->loads.front().most_a : 0);
}

PartKind PartDialog::described() const {
  PartKind mine = *current();
  mine.id = own_id_->text().toStdString();
  mine.name = own_name_->text().toStdString();
  mine.basis = "the builder's own";
  mine.mass_kg = Units::instance().mass_in(mass_->value());
  if (!mine.loads.empty()) {
    mine.loads.front().idle_a = idle_->value();
    mine.loads.front().typical_a = typical_->value();
    mine.loads.front().most_a = most_->value();
  }
  return mine;
}

void PartDialog::keep_own(const PartKind& mine) {
  if (const auto ok = document_.keep_own_part(mine); !ok) {
    complaint_->setText(QString::fromStdString(ok.error().text()));
    return;
  }
  chosen_ = mine.id;
  accept();
}

}  // namespace rigging::app
