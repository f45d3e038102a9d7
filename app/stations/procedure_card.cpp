#include "stations/procedure_card.h"

#include <QComboBox>
#include <QGridLayout>
#include <QPointer>
#include <QStyle>
#include <QVBoxLayout>

#include "drawing/moving_aircraft.h"
#include "look/html.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/look_keys.h"

namespace rigging::app {
namespace {

void set_words(QLabel* label, const std::string& text) {
  label->setText(QString::fromStdString(text));
  label->setVisible(!text.empty());
}

Html lines_text(const std::vector<Line>& lines) {
  QList<Html> all;
  for (const Line& l : lines) all << (l.strong ? html(u"<b>%1</b>", {l.words}) : Html(l.words));
  return joined(all, html(u"<br>"));
}

}  // namespace

QLabel* ProcedureCard::words(const char* part, double points, bool bold, const char* property) {
  QLabel* label = wrapping_words(points, bold);
  label->setObjectName(id_ + QLatin1Char('_') + QLatin1String(part));
  if (property) label->setProperty(property, true);
  return label;
}

ProcedureCard::ProcedureCard(ProcedureRunner& runner, Form form, QWidget* parent)
    : QWidget(parent), runner_(runner), id_(QString::fromStdString(runner.entry().id)), form_(form) {
  const bool wide = form == Form::wide;
  title_ = words("title", 13, true);
  todo_ = words("todo", wide ? 11 : 12, !wide);
  caution_ = words("caution", 9, wide, "caution");
  picture_words_ = words("picture", 9, false);
  remark_ = words("remark", 9, false, "soft");
  says_ = words("says", 12, true);
  lines_ = words("lines", wide ? 10 : 9, false);
  note_ = words("note", 8.5, false, "soft");
  view_ = new MovingAircraft;
  entry_ = new QWidget;
  auto* entry = new QHBoxLayout(entry_);
  entry->setContentsMargins(0, 0, 0, 0);
  value_ = number_box(id_ + u"_value"_s, {});
  value_->setFont(Style::instance().figures(11));
  unit_ = new QComboBox;
  unit_->setObjectName(id_ + u"_unit"_s);
  unit_->setAccessibleName(u"Unit"_s);
  unit_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  connect(unit_, &QComboBox::currentIndexChanged, this, [this](int at) {
    const auto& asked = runner_.card().number;
    if (asked && at >= 0) value_->setDecimals(asked->units[static_cast<std::size_t>(at)].decimals);
  });
  entry->addWidget(value_);
  entry->addWidget(unit_, 1);
  keys_ = new LookKeys(this);
  connect(keys_, &LookKeys::pressed, this, [this] { show_actions(runner_.card()); });

  auto* asks = new QVBoxLayout;
  asks->setSpacing(wide ? 4 : 5);
  for (QWidget* w : {title_, todo_}) asks->addWidget(w);
  if (!wide) asks->addWidget(remark_);
  asks->addWidget(caution_);
  asks->addWidget(view_, 100);
  asks->addWidget(picture_words_);
  if (wide) asks->addWidget(remark_);
  if (wide) asks->addStretch(1);  // without a picture
  auto* answers = new QVBoxLayout;
  answers->setSpacing(6);
  actions_ = new QVBoxLayout;
  actions_->setSpacing(answers->spacing());
  minor_ = new QWidget;
  minor_grid_ = new QGridLayout(minor_);
  minor_grid_->setContentsMargins(0, 0, 0, 0);
  minor_grid_->setSpacing(4);
  for (QWidget* w : {static_cast<QWidget*>(says_), static_cast<QWidget*>(lines_), entry_}) answers->addWidget(w);
  answers->addLayout(actions_);
  answers->addStretch(1);
  answers->addWidget(note_);
  answers->addWidget(minor_);
  auto* card = new QBoxLayout(wide ? QBoxLayout::LeftToRight : QBoxLayout::TopToBottom, this);
  card->setContentsMargins(0, 0, 0, 0);
  card->setSpacing(wide ? 14 : 5);
  card->addLayout(asks, wide ? 1 : 0);
  if (wide) {
    auto* box = new QWidget;
    keep_width(box, 380);
    answers->setContentsMargins(0, 0, 0, 0);
    box->setLayout(answers);
    card->addWidget(box);
  } else {
    card->addLayout(answers, 1);
  }
  connect(&runner_, &ProcedureRunner::card_changed, this, &ProcedureCard::show_card);
  show_card();
}

void ProcedureCard::show_card() {
  const Card& card = runner_.card();
  const QPointer<QWidget> focused = window()->focusWidget();
  const bool ours = focused && isAncestorOf(focused);
  set_words(title_, card.title);
  set_words(todo_, card.todo);
  set_words(remark_, card.remark);
  set_words(caution_, card.caution);
  set_words(picture_words_, card.picture.words);
  set_words(says_, card.says);
  set_words(note_, card.note);
  show_html(lines_, lines_text(card.lines));
  lines_->setVisible(!card.lines.empty());
  view_->set_panels(runner_.document().review().reports.airframe().panels);
  view_->setVisible(MovingAircraft::fits(card.picture));
  view_->show_picture(card.picture);
  show_looks(card);
  show_number(card);
  show_actions(card);
  hold_still(card.busy);
  order_tabs();
  // The keyboard must not fall to a button beside the way when what it was on has gone; nor may it stay on an answer
  // when another question has come under it: a second press would answer unseen.
  const bool another = card.subject != subject_;
  subject_ = card.subject;
  const bool on_answer = ours && focused && std::any_of(buttons_.begin(), buttons_.end(), [&](const auto& b) {
                           return b.second == focused;
                         });
  if (!ours) return;
  if (another && on_answer && !card.looks.empty()) {
    if (auto* key = keys_->findChild<QPushButton*>()) key->setFocus(Qt::OtherFocusReason);
  } else if (!focused || !focused->isVisible()) {
    QWidget* next = card.looks.empty() ? first_focus() : keys_->findChild<QPushButton*>();
    if (next) next->setFocus(Qt::OtherFocusReason);
  }
}

/// While something is under way the words above the buttons keep the most room that they took: nothing may shift under
/// the hand.
void ProcedureCard::hold_still(bool busy) {
  for (QLabel* label : {todo_, remark_, lines_}) {
    if (!busy) {
      label->setMinimumHeight(0);
    } else if (label->isVisibleTo(this)) {
      label->setMinimumHeight(std::max(label->minimumHeight(), label->heightForWidth(label->width())));
    } else if (label->minimumHeight() > 0) {
      label->setVisible(true);
    }
  }
}

/// From the number to what was seen, to the answers from top to bottom.
void ProcedureCard::order_tabs() {
  QWidget* last = value_;
  const auto then = [&](QWidget* w) {
    QWidget::setTabOrder(last, w);
    last = w;
  };
  then(unit_);
  for (QPushButton* key : keys_->findChildren<QPushButton*>()) then(key);
  for (const Action& a : runner_.card().actions)
    if (!a.elsewhere) then(button(a.id));
}

void ProcedureCard::show_looks(const Card& card) {
  keys_->setVisible(!card.looks.empty());
  const auto look = std::pair(card.subject + "|" + (card.looks.empty() ? "" : card.looks.front().id), card.look);
  if (look_ != look) keys_->ask(card.looks);
  look_ = look;
  keys_->hear(card.looks);
}

void ProcedureCard::show_number(const Card& card) {
  const bool begins = card.number && entry_->isHidden();
  entry_->setVisible(card.number.has_value());
  if (!card.number) return;
  const NumberAsked& asked = *card.number;
  value_->setAccessibleName(QString::fromStdString(asked.name));
  value_->setRange(asked.least, asked.most);
  const int chosen = std::max(0, unit_->currentIndex());
  if (unit_->count() != static_cast<int>(asked.units.size())) {
    unit_->clear();
    for (const auto& u : asked.units) unit_->addItem(QString::fromStdString(u.label));
    unit_->setCurrentIndex(std::min(chosen, unit_->count() - 1));
  }
  for (int i = 0; i < unit_->count(); ++i)
    unit_->setItemText(i, QString::fromStdString(asked.units[static_cast<std::size_t>(i)].label));
  value_->setDecimals(asked.units[static_cast<std::size_t>(unit_->currentIndex())].decimals);
  if (begins && isVisible()) {
    value_->setFocus();
    value_->selectAll();
  }
}

QPushButton* ProcedureCard::button(const std::string& id) {
  QPushButton*& b = buttons_[id];
  if (b) return b;
  b = new QPushButton(this);
  b->setObjectName(QString::fromStdString(id));
  connect(b, &QPushButton::clicked, this, [this, id] { press(id); });
  return b;
}

void ProcedureCard::show_actions(const Card& card) {
  std::vector<std::string> order;
  for (const Action& a : card.actions)
    if (!a.elsewhere) order.push_back(a.id);
  if (order != order_) {
    // Those that stay keep their widgets, and with them the keyboard.
    order_ = order;
    for (QLayout* l : {static_cast<QLayout*>(actions_), static_cast<QLayout*>(minor_grid_)})
      while (QLayoutItem* item = l->takeAt(0)) delete item;
    for (const auto& [id, b] : buttons_) b->setVisible(std::find(order.begin(), order.end(), id) != order.end());
    bool keys_placed = false;
    int minor = 0;
    for (const Action& a : card.actions) {
      if (a.elsewhere) continue;
      QPushButton* b = button(a.id);
      if (a.needs_look && !std::exchange(keys_placed, true)) actions_->addWidget(keys_);
      if (a.minor) {
        b->setFont(Style::instance().text(9));
        minor_grid_->addWidget(b, minor / 2, minor % 2);
        ++minor;
      } else {
        actions_->addWidget(b);
      }
      b->show();
    }
    minor_->setVisible(minor > 0);
    // They have their places at once: a hand may be quicker than the next round of the window.
    layout()->activate();
    minor_grid_->activate();
  }
  const bool looked = !keys_->seen().empty();
  for (const Action& a : card.actions) {
    if (a.elsewhere) continue;
    QPushButton* b = button(a.id);
    b->setText(QString::fromStdString(a.label));
    b->setToolTip(QString::fromStdString(a.hint));
    b->setEnabled(a.enabled && (!a.needs_look || looked));
    if (form_ == Form::wide && !a.minor) b->setMinimumHeight(a.main ? 40 : 34);
    make_main(*b, a.main);
  }
}

void ProcedureCard::press(const std::string& id) {
  const Card& card = runner_.card();
  const Action* a = card.action(id);
  if (!a) return;
  if (a->needs_look) return runner_.tell(Looked{id, keys_->seen()});
  Pressed pressed{id, 0, {}, {}};
  if (card.number) {
    value_->interpretText();
    // Another number than what was typed is never recorded in its place.
    if (const QString refusal = value_->take_refusal(); a->takes_number && !refusal.isEmpty()) {
      Q_EMIT runner_.said(refusal);
      value_->setFocus();
      return value_->selectAll();
    }
    // The zero that stands there before anything is typed is no reading.
    if (a->takes_number && !value_->take_typed() && value_->value() == 0) {
      Q_EMIT runner_.said(u"Nothing is typed yet: a reading of 0 is typed, too."_s);
      value_->setFocus();
      return value_->selectAll();
    }
    pressed.number = value_->value();
    pressed.unit = card.number->units[static_cast<std::size_t>(unit_->currentIndex())].id;
    value_->setValue(0);
    value_->selectAll();
  }
  runner_.tell(pressed);
}

QWidget* ProcedureCard::first_focus() const {
  for (const Action& a : runner_.card().actions)
    if (const auto it = buttons_.find(a.id); a.main && it != buttons_.end() && it->second->isEnabled())
      return it->second;
  if (!runner_.card().looks.empty())
    if (auto* key = keys_->findChild<QPushButton*>()) return key;
  for (const Action& a : runner_.card().actions)
    if (const auto it = buttons_.find(a.id); it != buttons_.end() && it->second->isEnabled()) return it->second;
  return nullptr;
}

}  // namespace rigging::app
