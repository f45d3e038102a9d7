#include "stations/wiring/ports_dialog.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "base/find.h"
#include "base/number.h"
#include "look/pieces.h"
#include "look/scroll_content.h"
#include "stations/baud_box.h"
#include "wiring/ports.h"
#include "wiring/wiring.h"

namespace rigging::app {
namespace {

/// A box for one word of an enumeration.
template <class E>
QComboBox* word_box(const QString& id, const QString& name, E now, const QMap<QString, QString>& said = {}) {
  auto* box = new QComboBox;
  box->setObjectName(id);
  box->setAccessibleName(name);
  for (const auto& [value, w] : Words<E>::list) {
    const QString key = QString::fromLatin1(w.data(), static_cast<qsizetype>(w.size()));
    box->addItem(said.value(key, QString::fromStdString(spoken(w))), key);
  }
  box->setCurrentIndex(box->findData(QString::fromLatin1(word(now).data())));
  return box;
}

template <class E>
E chosen(const QComboBox& box) {
  return from_word<E>(box.currentData().toString().toStdString()).value_or(E{});
}

QLabel* soft(const QString& text) {
  auto* l = wrapping_words(9);
  l->setText(text);
  l->setProperty("soft", true);
  return l;
}

}  // namespace

PortsDialog::PortsDialog(RigDocument& document, QWidget* parent) : QDialog(parent), document_(document) {
  setObjectName(QStringLiteral("ports_dialog"));
  setWindowTitle(tr("Ports and receiver"));
  resize(700, 520);
  auto* layout = new QVBoxLayout(this);
  auto* words = soft(QString());
  words->setObjectName(QStringLiteral("ports_words"));
  layout->addWidget(words);
  auto* area = new QScrollArea;
  area->setObjectName(QStringLiteral("ports_area"));
  area->setWidgetResizable(true);
  layout->addWidget(area, 1);
  auto* bottom = new QHBoxLayout;
  auto* follow = hinted_button(tr("Set as the leads say"), "ports_follow",
                               tr("Job, baud and direction of every port, and the receiver's signal"));
  connect(follow, &QPushButton::clicked, this,
          [this] { document_.apply(tell_ports(document_.rig(), document_.catalogue())); });
  bottom->addWidget(follow);
  bottom->addStretch();
  auto* done = new QPushButton(tr("Done"));
  done->setProperty("main", true);
  done->setDefault(true);
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  bottom->addWidget(done);
  layout->addLayout(bottom);
  connect(&document_, &RigDocument::changed, this, &PortsDialog::rebuild);
  rebuild();
}

void PortsDialog::put(const Port& port) {
  if (rebuilding_) return;
  const auto edit = set_port(document_.rig(), document_.catalogue(), port);
  if (edit) {
    document_.apply(edit);
    return;
  }
  findChild<QLabel*>(QStringLiteral("ports_words"))->setText(QString::fromStdString(edit.error().text()));
}

QWidget* PortsDialog::port_row(const Terminal& t) {
  const Rig& rig = document_.rig();
  const Port* known = rig.port(t.id);
  Port now = known ? *known : Port{};
  now.socket = t.id;
  auto* row = new QFrame;
  row->setProperty("card", true);
  auto* grid = new QGridLayout(row);
  grid->setContentsMargins(10, 6, 10, 6);
  const QString label = QString::fromStdString(t.label), id = QString::fromStdString(t.id);
  auto* name = new QLabel(label);
  name->setFont(Style::instance().text(10, true));
  grid->addWidget(name, 0, 0);

  auto* job = word_box(QStringLiteral("job_%1").arg(id), tr("Job of %1").arg(label), now.job,
                       {{QStringLiteral("none"), tr("no job")},
                        {QStringLiteral("telemetry"), tr("telemetry, back to the receiver")},
                        {QStringLiteral("display"), tr("figures for a digital video unit")},
                        {QStringLiteral("video_control"), tr("control of a video transmitter")}});
  grid->addWidget(job, 0, 1);
  auto* baud = new BaudBox(QStringLiteral("baud_%1").arg(id), tr("Baud of %1").arg(label));
  baud->offer(tr("by itself"), {4800, 9600, 19200, 38400, 57600, 115200, 230400, 420000, 460800}, t.most_baud);
  baud->show_value(now.baud);
  grid->addWidget(baud, 0, 2);
  auto* direction = word_box(QStringLiteral("direction_%1").arg(id), tr("Direction of %1").arg(label), now.direction,
                             {{QStringLiteral("both"), tr("both ways")},
                              {QStringLiteral("listens"), tr("listens only")},
                              {QStringLiteral("speaks"), tr("speaks only")}});
  grid->addWidget(direction, 0, 3);
  direction->setEnabled(now.job != PortJob::none);
  baud->setEnabled(now.job != PortJob::none && now.job != PortJob::receiver);
  if (now.job == PortJob::receiver) baud->setCurrentText(tr("the signal's own"));
  grid->setColumnStretch(1, 2);
  grid->setColumnStretch(2, 1);
  grid->setColumnStretch(3, 1);

  QStringList facts;
  bool off = false;
  for (const Lead& l : rig.leads)
    if (const LeadEnd* far = far_end(l, "controller", t.id)) {
      const std::string why = deaf_because(rig, document_.catalogue(), l);
      off = off || !why.empty();
      facts << (why.empty() ? tr("The %1 hangs on it.")
                                  .arg(QString::fromStdString(part_name(rig, document_.catalogue(), far->part)))
                            : QString::fromStdString(capital(why)) + QLatin1Char('.'));
    }
  if (facts.isEmpty()) facts << tr("Nothing hangs on it.");
  if (t.serves_as(TerminalKind::summed_input))
    facts << tr("One pin for summed pulses and for serial: the receiver's signal decides.");
  if (t.serves_as(TerminalKind::serial_inverting)) facts << tr("It can invert its input.");
  if (t.emulated) facts << tr("Made by software: it costs processor time.");
  auto* words = soft(facts.join(QLatin1Char(' ')));
  if (off) words->setProperty("caution", true);
  grid->addWidget(words, 1, 0, 1, 4);

  connect(job, &QComboBox::activated, this, [this, now, job]() mutable {
    now.job = chosen<PortJob>(*job);
    // What belongs to this job, where a lead says it.
    for (const Port& p : ports_wanted(document_.rig(), document_.catalogue()))
      if (p.socket == now.socket && p.job == now.job) now = p;
    put(now);
  });
  connect(direction, &QComboBox::activated, this, [this, now, direction]() mutable {
    now.direction = chosen<PortDirection>(*direction);
    put(now);
  });
  connect(baud, &BaudBox::taken, this, [this, now](const std::optional<double>& number) mutable {
    now.baud = number;
    put(now);
  });
  connect(baud, &BaudBox::refused, this, [this, label](const QString& error) {
    findChild<QLabel*>(QStringLiteral("ports_words"))->setText(label + QStringLiteral(": ") + error);
  });
  return row;
}

QWidget* PortsDialog::receiver_row() {
  const Rig& rig = document_.rig();
  const ControllerClass& c = *document_.controller();
  auto* row = new QFrame;
  row->setProperty("card", true);
  auto* grid = new QGridLayout(row);
  grid->setContentsMargins(10, 6, 10, 6);
  auto* name = new QLabel(tr("Receiver"));
  name->setFont(Style::instance().text(10, true));
  grid->addWidget(name, 0, 0, 1, 2);
  grid->setColumnStretch(1, 1);
  const auto signal_box = [&](const char* id, const QString& what, const std::vector<Signal>& can, bool or_not,
                              std::optional<Signal> now) {
    auto* box = new QComboBox;
    box->setObjectName(QLatin1String(id));
    box->setAccessibleName(what);
    if (or_not) box->addItem(tr("not told yet"), QString());
    for (const Signal s : can)
      box->addItem(QString::fromStdString(spoken_signal(s)), QString::fromLatin1(word(s).data()));
    box->setCurrentIndex(std::max(0, now ? box->findData(QString::fromLatin1(word(*now).data())) : 0));
    return box;
  };
  int line = 1;
  for (const Part& p : rig.parts) {
    const PartKind* k = document_.catalogue().part(p.kind);
    if (!k || k->group != PartGroup::receiver) continue;
    for (const Terminal& t : k->terminals) {
      const auto can = signals_of(t);
      const auto now = says(p, t);
      if (!now || (can.size() < 2 && t.kind == TerminalKind::output)) continue;
      auto* caption = new QLabel(
          tr("%1 puts out").arg(QString::fromStdString(capital(part_name(rig, document_.catalogue(), p.id)))));
      grid->addWidget(caption, line, 0);
      if (can.size() < 2) {
        grid->addWidget(new QLabel(QString::fromStdString(spoken_signal(*now))), line++, 1);
        continue;
      }
      auto* box = signal_box("receiver_says", tr("What the receiver puts out"), can, false, now);
      box->setToolTip(tr("Chosen in the transmitter's menu of this receiver"));
      grid->addWidget(box, line++, 1);
      connect(box, &QComboBox::activated, this, [this, box, id = p.id] {
        if (!rebuilding_)
          document_.apply(receiver_says(document_.rig(), document_.catalogue(), id, chosen<Signal>(*box)));
      });
    }
  }
  if (c.way("receiver_signal")) {
    grid->addWidget(new QLabel(tr("The board listens for")), line, 0);
    std::vector<Signal> can;
    for (const Signal s : {Signal::inverted_serial, Signal::two_way_serial, Signal::summed})
      if (std::any_of(c.ports.begin(), c.ports.end(), [&](const Terminal& t) { return takes(t, s); })) can.push_back(s);
    auto* box = signal_box("heard_as", tr("What the board listens for"), can, true, rig.radio.heard_as);
    grid->addWidget(box, line++, 1);
    connect(box, &QComboBox::activated, this, [this, box] {
      const QString word = box->currentData().toString();
      if (!rebuilding_)
        document_.apply(
            set_value(document_.rig(), "radio/heard_as", word.isEmpty() ? Json(nullptr) : Json(word.toStdString())));
    });
  } else {
    grid->addWidget(soft(tr("This class finds out by itself what its receiver says, or takes one signal only.")),
                    line++, 0, 1, 2);
  }
  for (const Snag& s : document_.review().snags)
    if (s.code == "STICKS-20") {
      auto* words = soft(QString::fromStdString(s.what + ". " + s.remedy));
      words->setProperty("caution", true);
      grid->addWidget(words, line++, 0, 1, 2);
    }
  return row;
}

void PortsDialog::rebuild() {
  rebuilding_ = true;
  const ControllerClass* c = document_.controller();
  auto* content = new QWidget;
  auto* column = new QVBoxLayout(content);
  column->setSpacing(6);
  QString words;
  if (c) {
    const SettingWay *ports = c->way("ports"), *signal = c->way("receiver_signal");
    words = ports ? tr("A port does one job. What hangs on it is said by its lead; here is what the board is told.")
                  : tr("The ports of this class know their jobs.");
    if ((ports && ports->restart) || (signal && signal->restart))
      words += QLatin1Char(' ') + tr("It takes effect after a restart: every supply out, and in again.");
    column->addWidget(receiver_row());
    if (ports)
      for (const Terminal& t : c->ports)
        if (can_be_told(t)) column->addWidget(port_row(t));
  } else {
    words = tr("The class of this controller is not known.");
  }
  findChild<QLabel*>(QStringLiteral("ports_words"))->setText(words);
  findChild<QPushButton*>(QStringLiteral("ports_follow"))
      ->setEnabled(c && (c->way("ports") || c->way("receiver_signal")));
  column->addStretch(1);
  replace_content(*findChild<QScrollArea*>(QStringLiteral("ports_area")), content);
  rebuilding_ = false;
}

}  // namespace rigging::app
