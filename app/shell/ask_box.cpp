#include "shell/ask_box.h"

#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QRegularExpression>
#include <QVBoxLayout>
#include <algorithm>

#include "look/literals.h"
#include "look/pieces.h"

namespace rigging::app {

int fit_of(const QString& words, const NamedAction& request) {
  static const QRegularExpression gaps(u"[^\\p{L}\\p{N}+-]+"_s);
  const QStringList own = request.text.toLower().split(gaps, Qt::SkipEmptyParts),
                    also = request.also.toLower().split(gaps, Qt::SkipEmptyParts);
  const QStringList needed = request.only_with.split(gaps, Qt::SkipEmptyParts);
  bool may_be_meant = needed.isEmpty();
  int fit = 1;
  for (const std::string& word : telling_words(words.toStdString())) {
    const QString asked = said_of(word);
    const auto begins = [&](const QString& w) { return w.startsWith(asked); };
    may_be_meant = may_be_meant || needed.contains(asked);
    if (std::any_of(own.begin(), own.end(), begins))
      fit += 2;
    else if (std::any_of(also.begin(), also.end(), begins))
      fit += 1;
    else
      return 0;
  }
  return may_be_meant ? fit : 0;
}

AskBox::AskBox(QList<NamedAction> actions, std::function<std::vector<Interpretation>(const QString&)> answer,
               std::function<void(const Interpretation&)> take, QWidget* parent)
    : QDialog(parent), actions_(std::move(actions)), answer_(std::move(answer)), take_(std::move(take)) {
  setWindowTitle(u"Ask"_s);
  setObjectName(u"ask_box"_s);
  resize(620, 380);
  auto* layout = new QVBoxLayout(this);
  line_ = new QLineEdit;
  line_->setObjectName(u"ask_line"_s);
  line_->setPlaceholderText(u"Say it: “how long can I fly”, “move the battery 20 mm back”, “it shakes in a dive”"_s);
  line_->setFont(Style::instance().text(12));
  list_ = new QListWidget;
  list_->setObjectName(u"ask_list"_s);
  list_->setWordWrap(true);
  foretold_ = wrapping_words(9);
  foretold_->setObjectName(u"ask_foretold"_s);
  foretold_->setProperty("soft", true);
  foretold_->setMinimumHeight(34);
  layout->addWidget(line_);
  layout->addWidget(list_, 1);
  layout->addWidget(foretold_);
  line_->installEventFilter(this);
  connect(line_, &QLineEdit::textChanged, this, &AskBox::find);
  connect(line_, &QLineEdit::returnPressed, this, &AskBox::act);
  connect(list_, &QListWidget::itemActivated, this, &AskBox::act);
  connect(list_, &QListWidget::currentRowChanged, this, &AskBox::foretell);
  find({});
}

void AskBox::find(const QString& words) {
  QList<QPair<int, int>> order;
  for (int i = 0; i < actions_.size(); ++i)
    if (const int fit = fit_of(words, actions_[i])) order.append({-fit, i});
  std::sort(order.begin(), order.end());
  list_->clear();
  answers_ = answer_(words);
  // Answers stand above the things that go by such a name, what is only quoted below them; numbers below 0 are theirs.
  const auto list_answers = [&](bool quoted) {
    for (std::size_t i = 0; i < answers_.size(); ++i)
      if (answers_[i].quoted == quoted) {
        auto* item = new QListWidgetItem(said_of(answers_[i].text), list_);
        item->setData(Qt::UserRole, -1 - static_cast<int>(i));
      }
  };
  list_answers(false);
  for (const auto& [fit, index] : order) {
    auto* item = new QListWidgetItem(actions_[index].text, list_);
    item->setData(Qt::UserRole, index);
  }
  list_answers(true);
  if (list_->count() == 0) {
    auto* item = new QListWidgetItem(
        u"Not understood. Ask for a number, say what it does wrong, or what is to be changed and to what."_s, list_);
    item->setFlags(Qt::NoItemFlags);
  }
  list_->setCurrentRow(0);
  foretell();
}

void AskBox::foretell() {
  const QListWidgetItem* item = list_->currentItem();
  if (!item || !item->data(Qt::UserRole).isValid()) return foretold_->clear();
  const int index = item->data(Qt::UserRole).toInt();
  const auto changes = [](const QString& what) {
    return u"Enter: changes the rig: “%1”. One undo takes it back."_s.arg(what);
  };
  if (index >= 0) {
    const NamedAction& action = actions_[index];
    return foretold_->setText(action.does == NamedAction::Does::changes_rig ? changes(action.text)
                              : action.does == NamedAction::Does::writes_board
                                  ? u"Enter: writes the settings of this rig to the controller."_s
                                  : u"Enter: opens “%1”. Nothing is changed."_s.arg(action.text));
  }
  const Interpretation& a = answers_[static_cast<std::size_t>(-1 - index)];
  foretold_->setText(a.edit      ? changes(said_of(a.text))
                     : a.station ? u"Enter: to station %1."_s.arg(QString::fromLatin1(name_of(*a.station).data()))
                                 : u"Enter: does it."_s);
}

bool AskBox::eventFilter(QObject* object, QEvent* event) {
  if (object == line_ && event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Down || key == Qt::Key_Up) {
      list_->setCurrentRow(
          std::clamp(list_->currentRow() + (key == Qt::Key_Down ? 1 : -1), 0, std::max(0, list_->count() - 1)));
      return true;
    }
  }
  return QDialog::eventFilter(object, event);
}

void AskBox::act() {
  const QListWidgetItem* item = list_->currentItem();
  if (!item || !item->data(Qt::UserRole).isValid()) return;
  const int index = item->data(Qt::UserRole).toInt();
  accept();
  if (index >= 0)
    actions_[index].act();
  else
    take_(answers_[static_cast<std::size_t>(-1 - index)]);
}

}  // namespace rigging::app
