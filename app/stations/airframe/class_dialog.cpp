#include "stations/airframe/class_dialog.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

#include "look/literals.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

QString lines(const std::vector<std::string>& all) {
  QStringList words;
  for (const std::string& one : all) words << said_of(capital(one)) + QLatin1Char('.');
  return words.isEmpty() ? u"Nothing."_s : words.join(QLatin1Char('\n'));
}

}  // namespace

ClassDialog::ClassDialog(const std::vector<ClassChoice>& choices, QWidget* parent)
    : QDialog(parent), choices_(choices) {
  setObjectName(u"class_dialog"_s);
  setWindowTitle(u"Classes side by side"_s);
  resize(1180, 720);
  auto* all = new QVBoxLayout(this);
  auto* head = wrapping_words(10);
  head->setText(
      u"For this aircraft as it is planned now. Room and work are worked out; take what you can buy and would set."_s);
  all->addWidget(head);
  table_ = new QTableWidget(static_cast<int>(choices_.size()), 6);
  table_->setObjectName(u"class_table"_s);
  table_->setAccessibleName(u"Classes of controllers"_s);
  table_->setHorizontalHeaderLabels(
      {u"Class"_s, u"Surfaces"_s, u"Room"_s, u"Senses"_s, u"What is lost"_s, u"What it costs in the work"_s});
  table_->verticalHeader()->hide();
  table_->setWordWrap(true);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  for (int row = 0; row < table_->rowCount(); ++row) {
    const ClassChoice& c = choices_[static_cast<std::size_t>(row)];
    const QStringList cells{said_of(c.name) + (c.now ? u"\nnow on this rig"_s : QString()),
                            said_of(capital(c.surfaces)) + QLatin1Char('.'),
                            said_of(capital(c.room)) + QLatin1Char('.'),
                            said_of(capital(c.senses)) + QLatin1Char('.'),
                            lines(c.lost),
                            lines(c.work)};
    for (int column = 0; column < cells.size(); ++column) {
      auto* item = new QTableWidgetItem(cells[column]);
      item->setTextAlignment(Qt::AlignTop | Qt::AlignLeft);
      if ((column == 1 && !c.drives) || (column == 2 && !c.fits)) item->setForeground(inks().rust);
      table_->setItem(row, column, item);
    }
    if (c.now) table_->selectRow(row);
  }
  const int widths[] = {170, 150, 190, 170, 220, 240};
  for (int column = 0; column < 6; ++column) table_->setColumnWidth(column, Style::instance().px(widths[column]));
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->resizeRowsToContents();
  all->addWidget(table_, 1);
  auto* buttons = new QHBoxLayout;
  auto* leave = new QPushButton(u"Leave"_s);
  leave->setObjectName(u"class_leave"_s);
  auto* take = hinted_button(u"Take this class"_s, "class_take", u"The plan follows; one undo takes it back"_s);
  take->setProperty("main", true);
  buttons->addStretch(1);
  buttons->addWidget(leave);
  buttons->addWidget(take);
  all->addLayout(buttons);
  const auto may_take = [this, take] {
    const int row = table_->currentRow();
    take->setEnabled(row >= 0 && !choices_[static_cast<std::size_t>(row)].now);
  };
  connect(table_, &QTableWidget::itemSelectionChanged, this, may_take);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  connect(take, &QPushButton::clicked, this, &QDialog::accept);
  may_take();
}

std::string ClassDialog::chosen() const {
  const int row = table_->currentRow();
  return row < 0 ? std::string() : choices_[static_cast<std::size_t>(row)].id;
}

}  // namespace rigging::app
