#include "bench/differences_dialog.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QRadioButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "look/html.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {

DifferencesDialog::DifferencesDialog(const std::vector<link::Difference>& differences, bool auto_trim, QWidget* parent)
    : QDialog(parent) {
  setObjectName(u"differences_dialog"_s);
  setWindowTitle(u"Board and rig differ"_s);
  resize(640, 420);
  auto* layout = new QVBoxLayout(this);
  auto* heading = new QLabel(
      u"Which one is right? What you choose from the rig is written to the board; what you choose from "
      "the board changes the rig."_s);
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
    auto* what = new QLabel;
    what->setWordWrap(true);
    box->addWidget(what);
    auto* choice = new QHBoxLayout;
    auto* rig = new QRadioButton(u"The rig is right"_s);
    auto* board = new QRadioButton(u"The board is right"_s);
    board->setObjectName(u"board_is_right_"_s + QString::fromStdString(d.part));
    // A centre that was trimmed in flight is the board's to know.
    const bool flown = auto_trim && d.only_centre();
    show_html(what, html(u"<b>%1</b>: %2%3", {capital(label_of(d.part)), d.words,
                                              flown ? u" (automatic trim moves it in flight)"_s : QString()}));
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
  auto* cancel = new QPushButton(u"Leave both as they are"_s);
  auto* go = new QPushButton(u"Make them agree"_s);
  go->setProperty("main", true);
  go->setObjectName(u"make_agree"_s);
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
