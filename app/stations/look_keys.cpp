#include "stations/look_keys.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include "look/literals.h"

namespace rigging::app {

namespace {

/// A way that can be pointed is pointed, too.
QString with_arrow(const std::string& word) {
  return word == "up"      ? u"▲ up"_s
         : word == "down"  ? u"▼ down"_s
         : word == "left"  ? u"◀ left"_s
         : word == "right" ? u"right ▶"_s
                           : QString::fromStdString(word);
}

}  // namespace

LookKeys::LookKeys(QWidget* parent) : QWidget(parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
}

void LookKeys::add(const LookRow& row) {
  const int r = static_cast<int>(rows_.size());
  const QString name = QString::fromStdString(row.name);
  auto* label = new QLabel(name);
  label->setMinimumWidth(120);
  label->setWordWrap(true);
  grid_->addWidget(label, r, 0);
  Keys keys{row, {}, {}};
  for (const auto& [value, word] : row.choices) {
    const QString text = with_arrow(word);
    auto* key = new QPushButton(text);
    key->setCheckable(true);
    key->setMinimumHeight(30);
    key->setMinimumWidth(76);
    key->setObjectName(u"saw_%1_%2"_s.arg(QString::fromStdString(row.id)).arg(value));
    key->setAccessibleName(u"%1: %2"_s.arg(name, text));
    connect(key, &QPushButton::clicked, this, [this, index = rows_.size(), at = value] { choose(index, at); });
    grid_->addWidget(key, r, static_cast<int>(keys.buttons.size()) + 1);
    keys.buttons.push_back(key);
  }
  rows_.push_back(std::move(keys));
}

void LookKeys::ask(const std::vector<LookRow>& rows) {
  rows_.clear();
  if (inside_) {
    inside_->hide();
    inside_->setParent(nullptr);
    inside_->deleteLater();
  }
  inside_ = new QWidget;
  grid_ = new QGridLayout(inside_);
  grid_->setContentsMargins(0, 0, 0, 0);
  grid_->setSpacing(5);
  grid_->setColumnStretch(0, 1);
  for (const LookRow& row : rows) add(row);
  layout()->addWidget(inside_);
  inside_->show();
}

void LookKeys::choose(std::size_t index, int value) {
  Keys& keys = rows_[index];
  keys.chosen = keys.chosen == value ? std::nullopt : std::optional(value);
  for (std::size_t k = 0; k < keys.buttons.size(); ++k)
    keys.buttons[k]->setChecked(keys.chosen == keys.row.choices[k].first);
  Q_EMIT pressed();
}

void LookKeys::hear(const std::vector<LookRow>& rows) {
  for (std::size_t i = 0; i < rows_.size() && i < rows.size(); ++i)
    if (rows[i].heard && rows_[i].chosen != rows[i].heard) choose(i, *rows[i].heard);
}

std::map<std::string, int> LookKeys::seen() const {
  std::map<std::string, int> all;
  for (const Keys& k : rows_)
    if (k.chosen) all[k.row.id] = *k.chosen;
  return all;
}

}  // namespace rigging::app
