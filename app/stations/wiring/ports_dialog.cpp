#include "stations/wiring/ports_dialog.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "base/find.h"
#include "base/number.h"
#include "look/literals.h"
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
  for (const auto& [value, w] : Names<E>::list) {
    const QString key = QString::fromLatin1(w.data(), static_cast<qsizetype>(w.size()));
    box->addItem(said.value(key, QString::fromStdString(label_of(w))), key);
  }
  box->setCurrentIndex(box->findData(QString::fromLatin1(name_of(now).data())));
  return box;
}

template <class E>
E chosen(const QComboBox& box) {
  return from_name<E>(box.currentData().toString().toStdString()).value_or(E{});
}

QLabel* soft(const QString& text) {
  auto* l = wrapping_words(9);
  l->setText(text);
  l->setProperty("soft", true);
  return l;
}

}  // namespace

PortsDialog::PortsDialog(RigDocument& document, QWidget* parent) : QDialog(parent), document_(document) {
  setObjectName(u"ports_dialog"_s);
  setWindowTitle(u"Ports and receiver"_s);
  resize(700, 520);
  auto* layout = new QVBoxLayout(this);
  auto* words = soft(QString());
  words->setObjectName(u"ports_words"_s);
  layout->addWidget(words);
  auto* area = new QScrollArea;
  area->setObjectName(u"ports_area"_s);
  area->setWidgetResizable(true);
  layout->addWidget(area, 1);
  auto* bottom = new QHBoxLayout;
  auto* follow = hinted_button(u"Set as the leads say"_s, "ports_follow",
                               u"Job, baud and direction of every port, and the receiver's signal"_s);
  connect(follow, &QPushButton::clicked, this,
          [this] { document_.apply(tell_ports(document_.rig(), document_.catalogue())); });
  bottom->addWidget(follow);
  bottom->addStretch();
  auto* done = new QPushButton(u"Done"_s);
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
  findChild<QLabel*>(u"ports_words"_s)->setText(QString::fromStdString(edit.error().text()));
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

  auto* job = word_box(u"job_%1"_s.arg(id), u"Job of %1"_s.arg(label), now.job,
                       {{u"none"_s, u"no job"_s},
                        {u"telemetry"_s, u"telemetry, back to the receiver"_s},
                        {u"display"_s, u"figures for a digital video unit"_s},
                        {u"video_control"_s, u"control of a video transmitter"_s}});
  grid->addWidget(job, 0, 1);
  auto* baud = new BaudBox(u"baud_%1"_s.arg(id), u"Baud of %1"_s.arg(label));
  baud->offer(u"by itself"_s, {4800, 9600, 19200, 38400, 57600, 115200, 230400, 420000, 460800}, t.most_baud);
  baud->show_value(now.baud);
  grid->addWidget(baud, 0, 2);
  auto* direction =
      word_box(u"direction_%1"_s.arg(id), u"Direction of %1"_s.arg(label), now.direction,
               {{u"both"_s, u"both ways"_s}, {u"listens"_s, u"listens only"_s}, {u"speaks"_s, u"speaks only"_s}});
  grid->addWidget(direction, 0, 3);
  direction->setEnabled(now.job != PortJob::none);
  baud->setEnabled(now.job != PortJob::none && now.job != PortJob::receiver);
  if (now.job == PortJob::receiver) baud->setCurrentText(u"the signal's own"_s);
  grid->setColumnStretch(1, 2);
  grid->setColumnStretch(2, 1);
  grid->setColumnStretch(3, 1);

  QStringList facts;
  bool off = false;
  for (const Lead& l : rig.leads)
    if (const LeadEnd* far = far_end(l, "controller", t.id)) {
      const std::string why = deaf_because(rig, document_.catalogue(), l);
      off = off || !why.empty();
      facts << (why.empty() ? u"The %1 hangs on it."_s.arg(
                                  QString::fromStdString(part_name(rig, document_.catalogue(), far->part)))
                            : QString::fromStdString(capital(why)) + QLatin1Char('.'));
    }
  if (facts.isEmpty()) facts << u"Nothing hangs on it."_s;
  if (t.serves_as(TerminalKind::summed_input))
    facts << u"One pin for summed pulses and for serial: the receiver's signal decides."_s;
  if (t.serves_as(TerminalKind::serial_inverting)) facts << u"It can invert its input."_s;
  if (t.emulated) facts << u"Made by software: it costs processor time."_s;
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
    findChild<QLabel*>(u"ports_words"_s)->setText(label + u": "_s + error);
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
  auto* name = new QLabel(u"Receiver"_s);
  name->setFont(Style::instance().text(10, true));
  grid->addWidget(name, 0, 0, 1, 2);
  grid->setColumnStretch(1, 1);
  const auto signal_box = [&](const char* id, const QString& what, const std::vector<Signal>& can, bool or_not,
                              std::optional<Signal> now) {
    auto* box = new QComboBox;
    box->setObjectName(QLatin1String(id));
    box->setAccessibleName(what);
    if (or_not) box->addItem(u"not told yet"_s, QString());
    for (const Signal s : can)
      box->addItem(QString::fromStdString(signal_label(s)), QString::fromLatin1(name_of(s).data()));
    box->setCurrentIndex(std::max(0, now ? box->findData(QString::fromLatin1(name_of(*now).data())) : 0));
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
          u"%1 puts out"_s.arg(QString::fromStdString(capital(part_name(rig, document_.catalogue(), p.id)))));
      grid->addWidget(caption, line, 0);
      if (can.size() < 2) {
        grid->addWidget(new QLabel(QString::fromStdString(signal_label(*now))), line++, 1);
        continue;
      }
      auto* box = signal_box("receiver_says", u"What the receiver puts out"_s, can, false, now);
      box->setToolTip(u"Chosen in the transmitter's menu of this receiver"_s);
      grid->addWidget(box, line++, 1);
      connect(box, &QComboBox::activated, this, [this, box, id = p.id] {
        if (!rebuilding_)
          document_.apply(receiver_says(document_.rig(), document_.catalogue(), id, chosen<Signal>(*box)));
      });
    }
  }
  if (c.way("receiver_signal")) {
    grid->addWidget(new QLabel(u"The board listens for"_s), line, 0);
    std::vector<Signal> can;
    for (const Signal s : {Signal::inverted_serial, Signal::two_way_serial, Signal::summed})
      if (std::any_of(c.ports.begin(), c.ports.end(), [&](const Terminal& t) { return takes(t, s); })) can.push_back(s);
    auto* box = signal_box("receiver_signal", u"What the board listens for"_s, can, true, rig.radio.receiver_signal);
    grid->addWidget(box, line++, 1);
    connect(box, &QComboBox::activated, this, [this, box] {
      const QString word = box->currentData().toString();
      if (!rebuilding_)
        document_.apply(set_value(document_.rig(), "radio/receiver_signal",
                                  word.isEmpty() ? Json(nullptr) : Json(word.toStdString())));
    });
  } else {
    grid->addWidget(soft(u"This class finds out by itself what its receiver says, or takes one signal only."_s), line++,
                    0, 1, 2);
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
    words = ports ? u"A port does one job. What hangs on it is said by its lead; here is what the board is told."_s
                  : u"The ports of this class know their jobs."_s;
    if ((ports && ports->restart) || (signal && signal->restart))
      words += QLatin1Char(' ') + u"It takes effect after a restart: every supply out, and in again."_s;
    column->addWidget(receiver_row());
    if (ports)
      for (const Terminal& t : c->ports)
        if (can_be_told(t)) column->addWidget(port_row(t));
  } else {
    words = u"The class of this controller is not known."_s;
  }
  findChild<QLabel*>(u"ports_words"_s)->setText(words);
  findChild<QPushButton*>(u"ports_follow"_s)->setEnabled(c && (c->way("ports") || c->way("receiver_signal")));
  column->addStretch(1);
  replace_content(*findChild<QScrollArea*>(u"ports_area"_s), content);
  rebuilding_ = false;
}

}  // namespace rigging::app
