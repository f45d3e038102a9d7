#include "shell/ask_box.h"

#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QRegularExpression>
#include <QVBoxLayout>
#include <algorithm>

#include "look/look.h"

namespace rigging::app {

int fit_of(const QString& words, const Request& request) {
  static const QRegularExpression gaps(QStringLiteral("[^\\p{L}\\p{N}+-]+"));
  const QStringList own = request.text.toLower().split(gaps, Qt::SkipEmptyParts),
                    also = request.also.toLower().split(gaps, Qt::SkipEmptyParts);
  int fit = 1;
  for (const QString& asked : words.toLower().split(gaps, Qt::SkipEmptyParts)) {
    const auto begins = [&](const QString& w) { return w.startsWith(asked); };
    if (std::any_of(own.begin(), own.end(), begins))
      fit += 2;
    else if (std::any_of(also.begin(), also.end(), begins))
      fit += 1;
    else
      return 0;
  }
  return fit;
}

AskBox::AskBox(QList<Request> requests, QWidget* parent) : QDialog(parent), requests_(std::move(requests)) {
  setWindowTitle(tr("Ask"));
  setObjectName(QStringLiteral("ask_box"));
  resize(520, 320);
  auto* layout = new QVBoxLayout(this);
  line_ = new QLineEdit;
  line_->setObjectName(QStringLiteral("ask_line"));
  line_->setPlaceholderText(tr("What do you want? For example: reverse left flaperon"));
  line_->setFont(Look::instance().text(12));
  list_ = new QListWidget;
  list_->setObjectName(QStringLiteral("ask_list"));
  layout->addWidget(line_);
  layout->addWidget(list_);
  line_->installEventFilter(this);
  connect(line_, &QLineEdit::textChanged, this, &AskBox::find);
  connect(line_, &QLineEdit::returnPressed, this, &AskBox::act);
  connect(list_, &QListWidget::itemActivated, this, &AskBox::act);
  find({});
}

void AskBox::find(const QString& words) {
  QList<QPair<int, int>> order;
  for (int i = 0; i < requests_.size(); ++i)
    if (const int fit = fit_of(words, requests_[i])) order.append({-fit, i});
  std::sort(order.begin(), order.end());
  list_->clear();
  for (const auto& [fit, index] : order) {
    auto* item = new QListWidgetItem(requests_[index].text, list_);
    item->setData(Qt::UserRole, index);
  }
  if (list_->count() == 0) {
    auto* item =
        new QListWidgetItem(tr("Nothing of that name. Try a station, a surface, or what you want done."), list_);
    item->setFlags(Qt::NoItemFlags);
  }
  list_->setCurrentRow(0);
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
  const auto act = requests_[item->data(Qt::UserRole).toInt()].act;
  accept();
  act();
}

}  // namespace rigging::app
