#include "stations/fit/part_sheet.h"

#include <QLabel>
#include <QVBoxLayout>

#include "base/fields.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/members_editor.h"

namespace rigging::app {

PartSheet::PartSheet(const PartKind& begun, QWidget* parent) : QDialog(parent) {
  setObjectName(u"part_sheet"_s);
  setWindowTitle(u"Everything about %1"_s.arg(QString::fromStdString(begun.name)));
  resize(620, 640);
  auto* all = new QVBoxLayout(this);
  auto* panel = new MembersPanel;
  members_ = &panel->members();
  members_->setAccessibleName(u"Everything that is known of the part"_s);
  all->addWidget(panel, 1);
  complaint_ = caution_words();
  complaint_->setObjectName(u"part_sheet_complaint"_s);
  all->addWidget(complaint_);
  auto* buttons = new QHBoxLayout;
  auto* leave = new QPushButton(u"Leave"_s);
  take_ = hinted_button(u"Keep mine and add it"_s, "part_sheet_take", u"Beside the rig, and into it"_s);
  take_->setProperty("main", true);
  take_->setDefault(true);
  buttons->addStretch(1);
  buttons->addWidget(leave);
  buttons->addWidget(take_);
  all->addLayout(buttons);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  connect(take_, &QPushButton::clicked, this, &QDialog::accept);
  connect(members_, &MembersEditor::edited, this, &PartSheet::read_back);
  OrderedJson schema = schema_of_members(Described<PartKind>::members());
  schema["properties"].erase("id");
  members_->show_value(write_fields(begun), schema);
  read_back();
}

Result<PartKind> PartSheet::made() const {
  auto read = read_fields<PartKind>(Json::parse(members_->value().dump()), "my part");
  if (!read) return read;
  if (auto ok = consistent(*read, "my part"); !ok) return tl::make_unexpected(ok.error());
  return read;
}

void PartSheet::read_back() {
  const auto part = made();
  take_->setEnabled(part.has_value());
  complaint_->setText(part ? QString() : QString::fromStdString(part.error().text()));
  complaint_->setVisible(!part);
}

}  // namespace rigging::app
