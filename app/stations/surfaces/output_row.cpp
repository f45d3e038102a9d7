#include "stations/surfaces/output_row.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <algorithm>

#include "base/json.h"
#include "edit/edit.h"
#include "look/literals.h"
#include "look/number_box.h"
#include "look/pieces.h"
#include "rig/path.h"
#include "rig/ranges.h"
#include "stations/surfaces/share_bar.h"
#include "surfaces/edits.h"
#include "surfaces/release.h"
#include "wiring/edits.h"

namespace rigging::app {
namespace {

QString output_name(const Output& o, bool release) {
  if (release) return u"Tow release"_s;
  if (o.passthrough_channel > 0) return u"Channel %1"_s.arg(o.passthrough_channel);
  if (o.surfaces.empty()) return u"Motor"_s;
  QStringList names;
  for (const Surface s : o.surfaces) names << QString::fromStdString(s.label());
  return QString::fromStdString(capital(names.join(u" + "_s).toStdString()));
}

}  // namespace

OutputRow::OutputRow(RigDocument& document, const Output& o)
    : document_(document), output_(o.id), surfaces_(o.surfaces) {
  setProperty("card", true);
  auto* lines = new QVBoxLayout(this);
  lines->setContentsMargins(10, 6, 10, 6);
  lines->setSpacing(2);
  auto* head = new QHBoxLayout;
  head->setSpacing(8);
  lines->addLayout(head);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(4);
  grid->setVerticalSpacing(2);
  lines->addLayout(grid);
  const Output* release = release_output(document.rig());
  const QString id = QString::fromStdString(o.id), name = output_name(o, release && release->id == o.id);
  auto* title = new QLabel(name);
  title->setFont(Style::instance().text(10, true));
  title->setWordWrap(true);
  head->addWidget(title, 1);

  auto* socket = new QComboBox;
  socket->setObjectName(u"socket_"_s + id);
  socket->setAccessibleName(u"Socket of %1"_s.arg(name));
  if (const ControllerClass* c = document_.controller())
    for (const Terminal& s : c->outputs) socket->addItem(QString::fromStdString(s.label), QString::fromStdString(s.id));
  socket->setCurrentIndex(socket->findData(QString::fromStdString(o.socket)));
  connect(socket, &QComboBox::activated, this, [this, socket, key = o.id] {
    document_.apply(
        plug_output(document_.rig(), document_.catalogue(), key, socket->currentData().toString().toStdString()));
  });
  keep_width(socket, 92);
  head->addWidget(socket);

  auto* reverse = new QPushButton(o.reversed ? u"Reversed"_s : u"Reverse"_s);
  reverse->setObjectName(u"reverse_"_s + id);
  reverse->setCheckable(true);
  reverse->setChecked(o.reversed);
  reverse->setToolTip(u"Turns the whole output round: every command on it goes the other way"_s);
  connect(reverse, &QPushButton::clicked, this, [this, key = o.id](bool on) {
    document_.apply(set_value(document_.rig(), path_of({"outputs", key, "reversed"}), on));
  });
  if (!settable(document_.controller()).reverse) {
    reverse->setEnabled(false);
    reverse->setToolTip(
        u"This class turns no output round by itself: its button or gesture reverses a whole function. The proof "
        "station says when."_s);
  }
  head->addWidget(reverse);

  const SurfaceAnswer* answer = nullptr;
  for (const SurfaceAnswer& a : document_.review().reports.surfaces().answers)
    if (a.output == o.id) answer = &a;
  int at = 0;
  const auto weight = [&](const QString& label, const char* key, double value, const QString& hint) {
    auto* box = number_box(u"weight_%1_%2"_s.arg(id, QLatin1String(key)), u"%1 weight of %2"_s.arg(label, name),
                           Style::instance().theme() == Theme::field ? 70 : 66);
    const Span range = Described<Mix>::members().named(key)->span;
    box->setRange(100 * range.least, 100 * range.most);
    box->setDecimals(0);
    box->setSingleStep(5);
    box->setSuffix(u" %"_s);
    box->setValue(value * 100);
    box->setToolTip(hint);
    connect(box, &QDoubleSpinBox::valueChanged, this, [this, k = o.id, command = std::string(key)](double percent) {
      document_.apply(set_weight(document_.rig(), k, command, percent / 100));
    });
    auto* caption = new QLabel(label);
    if (const auto axis = from_name<Axis>(key)) captions_.emplace_back(*axis, caption);
    caption->setProperty("soft", true);
    caption->setFont(Style::instance().text(8.5));
    // Two commands beside each other: share and degrees of each.
    const int row = 3 * (at / 2), column = 3 * (at % 2);
    ++at;
    grid->addWidget(caption, row, column, 1, 2);
    grid->addWidget(box, row + 1, column);
    const auto command = from_name<MixCommand>(key);
    if (!command) return;
    shares_.push_back({*command, box, answer && answer->in_degrees ? degrees(*answer, *command, name) : nullptr,
                       bar(o.id, *command, value)});
    if (QDoubleSpinBox* in_degrees = shares_.back().degrees) grid->addWidget(in_degrees, row + 1, column + 1);
    grid->addWidget(shares_.back().bar, row + 2, column, 1, 2);
  };
  for (const Axis axis : all_axes) {
    const bool served = !o.surfaces.empty() && required_direction(o.surfaces.front(), axis) != 0;
    if (!served && o.mix.of(axis) == 0) continue;
    const QString hint = u"Share of the travel for full %1"_s.arg(QString::fromLatin1(name_of(axis).data()));
    weight(QString::fromStdString(capital(std::string(name_of(axis)))), name_of(axis).data(), o.mix.of(axis), hint);
  }
  if (o.surfaces.empty() || o.mix.throttle != 0)
    weight(u"Throttle"_s, "throttle", o.mix.throttle, u"1 to 100 %: closed to full"_s);
  if (o.mix.flap != 0 || (!o.surfaces.empty() && o.surfaces.front().kind == SurfaceKind::flaperon))
    weight(u"Flap"_s, "flap", o.mix.flap, u"Droop with the flap channel"_s);

  pulse_ = new QLabel;
  pulse_->setFont(Style::instance().figures(9));
  pulse_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  grid->setColumnMinimumWidth(2, 6);
  grid->setColumnStretch(5, 1);
  grid->addWidget(pulse_, 0, 5, 2, 1, Qt::AlignRight | Qt::AlignBottom);
}

void OutputRow::show_effects(const std::vector<Effect>& effects) {
  for (const auto& [axis, caption] : captions_) {
    const QString label = QString::fromStdString(capital(std::string(name_of(axis))));
    double share = 0;
    for (const Effect& e : effects)
      if (std::count(surfaces_.begin(), surfaces_.end(), e.surface) > 0)
        share += e.share[static_cast<std::size_t>(index_of(axis))];
    const bool told = share > 0.005;
    caption->setText(told ? label + u" · does %1 %"_s.arg(100 * share, 0, 'f', 0) : label);
    caption->setToolTip(told ? u"Of all %1 that the surfaces give together"_s.arg(label.toLower()) : QString());
  }
}

ShareBar* OutputRow::bar(const std::string& output, MixCommand command, double weight) {
  const QString key = QString::fromLatin1(name_of(command).data());
  auto* made = new ShareBar(u"share_%1_%2"_s.arg(QString::fromStdString(output), key), weight);
  made->setAccessibleName(u"Bar of the %1 weight"_s.arg(key));
  connect(made, &ShareBar::pulled, this,
          [this, output, command](double share) { Q_EMIT trying(output, command, share); });
  connect(made, &ShareBar::given_up, this, &OutputRow::given_up);
  connect(made, &ShareBar::let_go, this, [this, output, command](double share) {
    document_.apply(set_share(document_.rig(), output, command, share));
  });
  return made;
}

void OutputRow::show_weights(const Rig& rig) {
  const Output* o = rig.output(output_);
  if (!o) return;
  for (const Share& s : shares_) {
    const double share = o->mix.*weight_of(s.command);
    const QSignalBlocker no_percent(s.percent);
    s.percent->setValue(100 * share);
    s.bar->set_value(share);
    if (!s.degrees) continue;
    const QSignalBlocker no_degrees(s.degrees);
    s.degrees->setValue(throw_for(rig, *o, surfaces_.front(), s.command));
  }
}

QDoubleSpinBox* OutputRow::degrees(const SurfaceAnswer& answer, MixCommand command, const QString& name) {
  const QString label = QString::fromLatin1(name_of(command).data());
  auto* box =
      number_box(u"throw_%1_%2"_s.arg(QString::fromStdString(answer.output), label),
                 u"Throw of %1 for full %2"_s.arg(name, label), Style::instance().theme() == Theme::field ? 64 : 60);
  box->setRange(0, range::throw_deg.most);
  box->setDecimals(1);
  box->setSuffix(u" °"_s);
  box->setValue(answer.throw_deg[static_cast<std::size_t>(command)]);
  box->setToolTip(
      u"Degrees at the surface for full %1: type them, and the weight is worked out, for both halves of a pair"_s.arg(
          label));
  connect(box, &QDoubleSpinBox::valueChanged, this,
          [this, box, surface = answer.surface, command, before = box->value()](double deg) {
            auto wished = set_throw(document_.rig(), surface, command, deg);
            if (!wished) {
              const QSignalBlocker quiet(box);
              box->setValue(before);
              Q_EMIT refused(QString::fromStdString(wished.error().text()));
              return;
            }
            document_.apply(std::move(wished));
          });
  return box;
}

void OutputRow::show_state(const OutputState& state) {
  pulse_->setText(u"%1 µs%2"_s.arg(state.pulse_us, 0, 'f', 0).arg(state.saturated ? u"\n▲ at its end"_s : QString()));
  pulse_->setStyleSheet(state.saturated ? u"color: %1; font-weight: bold"_s.arg(inks().ochre.name()) : QString());
}

}  // namespace rigging::app
