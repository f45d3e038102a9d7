#include "stations/proof/look_keys.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "look/look.h"

namespace rigging::app {
namespace {
constexpr std::array<int, 3> values{1, -1, 0};
}

LookKeys::LookKeys(QWidget* parent) : QWidget(parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
}

void LookKeys::add_row(Row row, const QString& name, const QString& id, const std::array<QString, 3>& words) {
  const int r = static_cast<int>(rows_.size());
  auto* label = new QLabel(name);
  label->setMinimumWidth(120);
  grid_->addWidget(label, r, 0);
  for (std::size_t k = 0; k < 3; ++k) {
    auto* key = new QPushButton(words[k]);
    key->setCheckable(true);
    key->setMinimumHeight(30);
    key->setMinimumWidth(76);
    key->setObjectName(QStringLiteral("saw_%1_%2").arg(id).arg(values[k]));
    key->setAccessibleName(QStringLiteral("%1: %2").arg(name, words[k]));
    grid_->addWidget(key, r, static_cast<int>(k) + 1);
    connect(key, &QPushButton::clicked, this,
            [this, index = rows_.size(), value = values[k]] { choose(index, value); });
    row.keys[k] = key;
  }
  rows_.push_back(row);
}

void LookKeys::ask(const direction::Observation& observation, const std::vector<Surface>& surfaces, bool channels) {
  asked_ = observation;
  asked_.saw.clear();
  asked_.channels = {};
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
  for (const Surface s : surfaces) {
    Row row;
    row.surface = s;
    std::array<QString, 3> words;
    for (std::size_t k = 0; k < 3; ++k) words[k] = QString::fromLatin1(motion_word(s, values[k]).data());
    if (s.kind == SurfaceKind::rudder)
      words = {tr("right ▶"), tr("◀ left"), tr("still")};
    else if (s.kind != SurfaceKind::motor)
      words = {tr("▲ up"), tr("▼ down"), tr("still")};
    add_row(row, QString::fromStdString(capital(s.spoken())), QString::fromStdString(s.word()), words);
  }
  if (channels)
    for (const Axis axis : all_axes) {
      Row row;
      row.channel = axis;
      const QString name = QString::fromLatin1(word(axis).data());
      add_row(row, tr("Channel %1").arg(name), QStringLiteral("channel_") + name,
              {tr("rises"), tr("falls"), tr("still")});
    }
  layout()->addWidget(inside_);
  inside_->show();
}

void LookKeys::choose(std::size_t index, int value) {
  Row& row = rows_[index];
  row.chosen = row.chosen == value ? 9 : value;
  for (std::size_t k = 0; k < 3; ++k) row.keys[k]->setChecked(row.chosen == values[k]);
  Q_EMIT pressed();
}

void LookKeys::hear(const std::map<std::string, double>& channels) {
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    if (rows_[i].surface) continue;
    const auto it = channels.find(std::string(word(rows_[i].channel)));
    if (it == channels.end()) continue;
    const int value = it->second > 1600 ? 1 : it->second < 1400 ? -1 : 0;
    if (rows_[i].chosen != value) choose(i, value);
  }
}

direction::Observation LookKeys::observation() const {
  direction::Observation o = asked_;
  for (const Row& row : rows_) {
    if (row.chosen == 9) continue;
    if (row.surface)
      o.saw.push_back({*row.surface, row.chosen});
    else
      o.channels[static_cast<std::size_t>(index_of(row.channel))] = row.chosen;
  }
  return o;
}

bool LookKeys::anything_pressed() const {
  return std::any_of(rows_.begin(), rows_.end(), [](const Row& r) { return r.chosen != 9; });
}

}  // namespace rigging::app
