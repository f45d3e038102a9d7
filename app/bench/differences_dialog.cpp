#include "bench/differences_dialog.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QRadioButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "look/look.h"

namespace rigging::app {

DifferencesDialog::DifferencesDialog(const std::vector<link::Difference>& differences, bool auto_trim, QWidget* parent)
    : QDialog(parent) {
  setObjectName(QStringLiteral("differences_dialog"));
  setWindowTitle(tr("Board and rig differ"));
  resize(640, 420);
  auto* layout = new QVBoxLayout(this);
  auto* heading =
      new QLabel(tr("Which one is right? What you choose from the rig is written to the board; what you choose from "
                    "the board changes the rig."));
  heading->setWordWrap(true);
  layout->addWidget(heading);
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  auto* inside = new QWidget;
  auto* list = new QVBoxLayout(inside);
  for (const link::Difference& d : differences) {
    auto* card = new QFrame;
    card->setProperty("card", true);
    auto* box = new QVBoxLayout(card);
    auto* what = new QLabel(QStringLiteral("<b>%1</b>: %2")
                                .arg(QString::fromStdString(capital(d.part)).toHtmlEscaped(),
                                     QString::fromStdString(d.words).toHtmlEscaped()));
    what->setTextFormat(Qt::RichText);
    what->setWordWrap(true);
    box->addWidget(what);
    auto* choice = new QHBoxLayout;
    auto* rig = new QRadioButton(tr("The rig is right"));
    auto* board = new QRadioButton(tr("The board is right"));
    board->setObjectName(QStringLiteral("board_is_right_") + QString::fromStdString(d.part));
    // A centre that was trimmed in flight is the board's to know.
    const bool flown = auto_trim && d.only_centre();
    if (flown) what->setText(what->text() + tr(" (automatic trim moves it in flight)"));
    (flown ? board : rig)->setChecked(true);
    auto* group = new QButtonGroup(card);
    group->addButton(rig);
    group->addButton(board);
    choice->addWidget(rig);
    choice->addWidget(board);
    choice->addStretch();
    box->addLayout(choice);
    list->addWidget(card);
    board_.emplace_back(d.part, board);
  }
  list->addStretch();
  area->setWidget(inside);
  layout->addWidget(area);
  auto* buttons = new QHBoxLayout;
  buttons->addStretch();
  auto* cancel = new QPushButton(tr("Leave both as they are"));
  auto* go = new QPushButton(tr("Make them agree"));
  go->setProperty("main", true);
  go->setObjectName(QStringLiteral("make_agree"));
  buttons->addWidget(cancel);
  buttons->addWidget(go);
  layout->addLayout(buttons);
  connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
  connect(go, &QPushButton::clicked, this, &QDialog::accept);
}

std::vector<std::string> DifferencesDialog::from_board() const {
  std::vector<std::string> parts;
  for (const auto& [part, button] : board_)
    if (button->isChecked()) parts.push_back(part);
  return parts;
}

}  // namespace rigging::app
