#include "stations/wiring/wiring_page.h"

#include <QDateTime>
#include <QHeaderView>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include "base/json.h"
#include "base/number.h"
#include "edit/edit.h"
#include "look/html.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "look/units.h"
#include "rig/path.h"
#include "stations/wiring/board_dialog.h"
#include "stations/wiring/ports_dialog.h"
#include "wiring/edits.h"
#include "wiring/lead_checks.h"
#include "wiring/plan.h"

namespace rigging::app {
namespace {

/// Sorts by number, not by its digits.
class NumberItem : public QTableWidgetItem {
 public:
  NumberItem(double value, const QString& text) : QTableWidgetItem(text), value_(value) {
    setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
    setFont(Style::instance().figures(9));
  }
  bool operator<(const QTableWidgetItem& other) const override {
    const auto* n = dynamic_cast<const NumberItem*>(&other);
    return n ? value_ < n->value_ : QTableWidgetItem::operator<(other);
  }

 private:
  double value_;
};

enum Column { number, from, to, kind, length_column, gauge, remarks, columns };

QLabel* words(double points, const char* id) {
  auto* l = wrapping_words(points);
  l->setObjectName(QLatin1String(id));
  return l;
}

}  // namespace

WiringPage::WiringPage(const PageContext& context) : StationPage(Station::wiring, context) {
  auto* page = new QVBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 8);
  page->setSpacing(6);
  auto* head = new QHBoxLayout;
  head->addWidget(heading(), 1);
  plan_ = new QPushButton(u"Plan the wiring"_s);
  plan_->setObjectName(u"plan_wiring"_s);
  plan_->setToolTip(
      u"Gives every part and output its place so that no rule is broken and least is moved. What you keep by hand "
      "stays."_s);
  sheets_ = new QPushButton(u"Plug list and drawing…"_s);
  sheets_->setObjectName(u"wiring_sheets"_s);
  auto* board = hinted_button(u"My board…"_s, "my_board",
                              u"Describe the board that you really have, starting from the nearest class"_s);
  connect(board, &QPushButton::clicked, this, &WiringPage::describe_board);
  head->addWidget(board);
  auto* ports =
      hinted_button(u"Ports…"_s, "set_ports", u"Job, baud and direction of each port, and the receiver's signal"_s);
  connect(ports, &QPushButton::clicked, this, &WiringPage::set_ports);
  head->addWidget(ports);
  head->addWidget(sheets_);
  head->addWidget(plan_);
  page->addLayout(head);
  plan_words_ = words(9.5, "plan_words");
  plan_words_->hide();
  page->addWidget(plan_words_);
  view_ = new WiringView(document_);
  page->addWidget(view_, 5);

  auto* lead = new QHBoxLayout;
  chosen_ = words(9.5, "chosen_lead");
  lead->addWidget(chosen_, 1);
  const auto toggle = [&](const QString& text, const char* id, const QString& hint) {
    auto* b = new QPushButton(text);
    b->setCheckable(true);
    b->setObjectName(QLatin1String(id));
    b->setToolTip(hint);
    lead->addWidget(b);
    return b;
  };
  red_ = toggle(u"Red wire out"_s, "lead_red_out", u"Taken out and isolated, not just cut bare"_s);
  turned_ = toggle(u"Plug turned"_s, "lead_plug_turned", u"The plug sits the wrong way round"_s);
  pair_ = toggle(u"Pair turned"_s, "lead_pair_turned", u"Transmit meets transmit"_s);
  fixed_ = toggle(u"Keep here"_s, "lead_fixed", u"The plan leaves this lead where it is"_s);
  page->addLayout(lead);
  auto* check = new QHBoxLayout;
  check_words_ = words(9, "lead_check");
  // As high with a lead as without: nothing may shift under a hand that drags.
  const auto high = [this] { check_words_->setFixedHeight(Style::instance().px(66)); };
  high();
  connect(&Style::instance(), &Style::changed, this, high);
  check_words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  check->addWidget(check_words_, 1);
  const auto button = [&](const QString& text, const char* id, const QString& hint) {
    auto* b = new QPushButton(text);
    b->setObjectName(QLatin1String(id));
    b->setToolTip(hint);
    check->addWidget(b, 0, Qt::AlignTop);
    return b;
  };
  battery_ = button(u"Battery in"_s, "wiring_battery",
                    u"On the simulated bench. On a real one: propeller off, clear of its arc, every plug looked at"_s);
  battery_->setCheckable(true);
  inspect_ = button(u"Look at it"_s, "lead_inspect",
                    u"Follow it from end to end on the simulated bench; battery and USB out"_s);
  mend_ = button(u"Put it right"_s, "lead_mend", u"Plug it as planned on the simulated bench; battery and USB out"_s);
  right_ = button(u"It is right"_s, "lead_right",
                  u"Looked at and tried: recorded as a proof that goes stale when the lead changes"_s);
  page->addLayout(check);

  table_ = new QTableWidget;
  table_->setObjectName(u"loom"_s);
  table_->setAccessibleName(u"Loom: every lead with both ends, length and gauge"_s);
  table_->setColumnCount(columns);
  table_->setHorizontalHeaderLabels({u"no."_s, u"from"_s, u"to"_s, u"lead"_s, u"length"_s, u"gauge"_s, u"remarks"_s});
  table_->verticalHeader()->hide();
  table_->verticalHeader()->setDefaultSectionSize(22);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setSortingEnabled(true);
  table_->sortByColumn(number, Qt::AscendingOrder);
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->setShowGrid(false);
  table_->setAlternatingRowColors(true);
  table_->setMinimumHeight(72);
  table_->setMaximumHeight(118);
  table_->setFont(Style::instance().text(9));
  page->addWidget(table_, 1);
  free_ = words(8.5, "wiring_free");
  free_->setProperty("soft", true);
  page->addWidget(free_);

  view_->setContextMenuPolicy(Qt::CustomContextMenu);
  connect(view_, &QWidget::customContextMenuRequested, this, [this](const QPoint& at) {
    if (const std::string under = view_->lead_under(at); !under.empty()) offer_actions(under, view_->mapToGlobal(at));
  });
  table_->setContextMenuPolicy(Qt::CustomContextMenu);
  connect(table_, &QWidget::customContextMenuRequested, this, [this](const QPoint& at) {
    if (const auto* item = table_->itemAt(at))
      offer_actions(table_->item(item->row(), number)->data(Qt::UserRole).toString().toStdString(),
                    table_->viewport()->mapToGlobal(at));
  });
  connect(plan_, &QPushButton::clicked, this, &WiringPage::plan);
  connect(sheets_, &QPushButton::clicked, this, &WiringPage::show_sheets);
  connect(view_, &WiringView::picked, this, &WiringPage::choose);
  connect(view_, &WiringView::moved, this, [this](const std::string& id, const std::string& socket) {
    document_.apply(plug(document_.rig(), document_.catalogue(), id, socket));
  });
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
    if (refreshing_ || row < 0) return;
    choose(table_->item(row, number)->data(Qt::UserRole).toString().toStdString());
  });
  connect(table_, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
    if (refreshing_ || (item->column() != length_column && item->column() != gauge)) return;
    const std::string id = table_->item(item->row(), number)->data(Qt::UserRole).toString().toStdString();
    bool ok = false;
    const double shown =
        item->text().section(QLatin1Char(' '), 0, 0).replace(QLatin1Char(','), QLatin1Char('.')).toDouble(&ok);
    const bool is_length = item->column() == length_column;
    const double value = is_length ? Units::instance().length_in(shown) : shown;
    const Member& member = is_length ? member_of(&Lead::length_m) : member_of(&Lead::gauge_awg);
    if (ok && value >= member.span.least && value <= member.span.most) {
      document_.apply(set_value(document_.rig(), path_of({"leads", id, member.name}), value));
      return;
    }
    const double per = is_length ? Units::instance().length_out(1) : 1;
    say(u"“%1” is no %2: a number of %3 from %4 to %5 is expected."_s
            .arg(item->text(), QString::fromLatin1(member.label),
                 is_length ? Units::instance().length_unit() : u"AWG"_s)
            .arg(member.span.least * per)
            .arg(member.span.most * per));
    shown_.clear();
    fill_table();
  });
  connect(red_, &QPushButton::clicked, this, [this](bool on) { mark_chosen("plus_removed", on); });
  connect(turned_, &QPushButton::clicked, this, [this](bool on) { mark_chosen("plug_turned", on); });
  connect(pair_, &QPushButton::clicked, this, [this](bool on) { mark_chosen("pair_turned", on); });
  connect(fixed_, &QPushButton::clicked, this, [this](bool on) { mark_chosen("fixed", on); });
  connect(battery_, &QPushButton::clicked, this, [this](bool on) { bench_.ask(hands::Supply{false, on}); });
  connect(inspect_, &QPushButton::clicked, this, [this] { bench_.ask(hands::Inspect{view_->traced()}); });
  connect(mend_, &QPushButton::clicked, this, [this] {
    inspected_.clear();
    bench_.ask(hands::Mend{view_->traced()});
    bench_.ask(hands::Inspect{view_->traced()});
  });
  connect(right_, &QPushButton::clicked, this, [this] {
    if (document_.record({lead_family, view_->traced()}, bench_.simulated())) choose_next();
  });
  connect(&bench_, &BenchLink::inspected, this, &WiringPage::seen_of);
  connect(&document_, &RigDocument::deferred_ready, this, [this] {
    if (!view_->traced().empty()) choose(view_->traced());
  });
  connect(&bench_, &BenchLink::board_sensed, this, &WiringPage::show_check);
  connect(&bench_, &BenchLink::state_changed, this, &WiringPage::show_check);
  connect(&Style::instance(), &Style::changed, this, [this] {
    shown_.clear();
    refresh();
  });
  refresh();
}

void WiringPage::mark_chosen(const char* flag, bool on) {
  if (document_.rig().lead(view_->traced()))
    document_.apply(set_value(document_.rig(), path_of({"leads", view_->traced(), flag}), on));
}

/// What can be done with a lead, where the pointer is: the same as the buttons below.
void WiringPage::offer_actions(const std::string& lead, const QPoint& at) {
  choose(lead);
  QMenu menu(this);
  menu.setObjectName(u"lead_menu"_s);
  for (QPushButton* b : {red_, turned_, pair_, fixed_, inspect_, mend_, right_}) {
    if (b == inspect_) menu.addSeparator();
    QAction* action = menu.addAction(b->text());
    action->setCheckable(b->isCheckable());
    action->setChecked(b->isChecked());
    action->setEnabled(b->isEnabled());
    connect(action, &QAction::triggered, b, &QPushButton::click);
  }
  menu.exec(at);
}

void WiringPage::say(const QString& words) {
  plan_words_->setText(words);
  plan_words_->setVisible(!words.isEmpty());
}

void WiringPage::plan() {
  const Plan plan =
      document_.deferred() ? document_.deferred()->plan : plan_wiring(document_.rig(), document_.catalogue());
  QStringList words;
  if (plan.changes == 0)
    words << u"The plan changes nothing: everything has its place."_s;
  else
    words << (plan.changes == 1 ? u"One thing placed or moved."_s : u"%1 things placed or moved."_s.arg(plan.changes));
  for (const Obstacle& o : plan.obstacles)
    words << u"%1 (%2)."_s.arg(QString::fromStdString(o.what), QString::fromStdString(o.code));
  say(words.join(QLatin1Char(' ')));
  if (plan.rig != document_.rig()) document_.apply(take_plan(plan));
}

void WiringPage::choose(const std::string& lead) {
  const bool was = refreshing_;
  refreshing_ = true;
  view_->trace(lead);
  const Lead* l = document_.rig().lead(lead);
  for (QPushButton* b : {red_, turned_, pair_, fixed_}) b->setEnabled(l != nullptr);
  if (l) {
    red_->setChecked(l->plus_removed);
    turned_->setChecked(l->plug_turned);
    pair_->setChecked(l->pair_turned);
    fixed_->setChecked(l->fixed);
    QString why;
    const DeferredReview* deferred = document_.deferred();
    if (!deferred) why = u"the plan is being computed…"_s;
    for (const Choice& c : deferred ? deferred->plan.choices : std::vector<Choice>{})
      if (far_end(*l, c.subject, c.end) && !c.end.empty() && why.isEmpty())
        why = c.changed ? u"the plan would put it at %1: %2"_s.arg(QString::fromStdString(c.goes_to),
                                                                   QString::fromStdString(c.why))
                        : QString::fromStdString(c.why);
    for (const HarnessRow& row : document_.review().reports.wiring().harness)
      if (row.lead == lead)
        show_html(chosen_, html(u"<b>%1 %2 → %3 %4</b>%5", {capital(row.from), row.from_socket, row.to, row.to_socket,
                                                            why.isEmpty() ? QString() : u": "_s + why}));
    for (int row = 0; row < table_->rowCount(); ++row)
      if (table_->item(row, number)->data(Qt::UserRole).toString().toStdString() == lead) table_->selectRow(row);
  } else {
    show_html(chosen_, u"Click a lead to trace it; drag its end at the board to move it."_s);
    table_->clearSelection();
  }
  show_check();
  refreshing_ = was;
}

void WiringPage::seen_of(const std::string& lead, const Json& seen) {
  const Lead* l = document_.rig().lead(lead);
  if (!l) return;
  QStringList differs;
  const auto end = [&](const char* name, const LeadEnd& planned) {
    const auto it = seen.find(name);
    if (it != seen.end() && it->is_object() && text_member(*it, "socket") != planned.socket)
      differs << u"it sits in %1"_s.arg(QString::fromStdString(text_member(*it, "label")));
  };
  end("from", l->from);
  end("to", l->to);
  if (flag_member(seen, "red_wire", true) == l->plus_removed)
    differs << (l->plus_removed ? u"its red wire is in"_s : u"its red wire is missing"_s);
  if (flag_member(seen, "plug_turned", false) != l->plug_turned)
    differs << u"a plug sits the wrong way round: plus and minus are exchanged"_s;
  if (flag_member(seen, "pair_turned", false) != l->pair_turned) differs << u"its data pair is turned"_s;
  inspected_ = lead;
  seen_words_ = differs.isEmpty() ? u"Seen: as planned."_s : u"Seen: %1."_s.arg(differs.join(u", and "_s));
  show_check();
}

void WiringPage::show_check() {
  const Lead* l = document_.rig().lead(view_->traced());
  for (QWidget* w : std::initializer_list<QWidget*>{inspect_, mend_, right_, battery_}) w->setEnabled(l != nullptr);
  battery_->setVisible(bench_.hands_connected());
  if (!l) {
    check_words_->setText({});
    return;
  }
  const LeadCard card = lead_card(document_.rig(), document_.catalogue(), *l);
  QString state = u"not looked at yet"_s;
  if (const CheckStatus* c = find_check(document_.review().checks, CheckId{lead_family, l->id});
      c && c->state != ProofState::none)
    state = c->state == ProofState::stale ? u"gone stale"_s : u"proven"_s;
  Html text = html(u"<b>%1.</b> %2 <i>%3</i> Then: %4 Should show: %5",
                   {capital(state.toStdString()), card.before_power, card.cautions.front(), card.todo, card.expected});
  const auto add = [&text](const QString& strong) { text += html(u" <b>%1</b>", {strong}); };
  if (inspected_ == l->id) add(seen_words_);
  if (bench_.controller_answers()) {
    if (const auto port = bench_.ports().find(card.socket); port != bench_.ports().end())
      add(port->second ? u"The board hears data there (simulated)."_s
                       : u"The board hears nothing there (simulated): pair, job, baud, signal or restart?"_s);
    if (card.evidence == LeadEvidence::voltage_read && bench_.sight().battery)
      add(bench_.battery_v() > 0 ? u"The board reads %1 V (simulated)."_s.arg(bench_.battery_v(), 0, 'f', 1)
                                 : u"The board reads 0 V (simulated): wrong socket, or not plugged in."_s);
  }
  show_html(check_words_, text);
  battery_->setChecked(bench_.sight().battery);
  battery_->setText(bench_.sight().battery ? u"Battery out"_s : u"Battery in"_s);
  const bool dark = bench_.hands_connected() && !bench_.sight().usb && !bench_.sight().battery;
  inspect_->setEnabled(dark);
  const bool seen = inspected_ == l->id, as_planned = seen_words_ == u"Seen: as planned."_s;
  mend_->setEnabled(dark && seen && !as_planned);
  // One of them is the next step.
  const CheckStatus* check = find_check(document_.review().checks, CheckId{lead_family, l->id});
  const bool open = check && !check->stands(), hands = bench_.hands_connected();
  // All followed in the dark: power once.
  const bool all_seen = std::all_of(document_.review().checks.begin(), document_.review().checks.end(),
                                    [](const CheckStatus& c) { return c.id.family != lead_family || c.stands(); });
  make_main(*battery_, hands && (bench_.sight().battery ? open && !seen : all_seen));
  make_main(*inspect_, open && dark && !seen);
  make_main(*mend_, open && dark && seen && !as_planned);
  make_main(*right_, open && (!hands || (seen && as_planned)));
}

void WiringPage::choose_next() {
  const auto& loom = document_.review().reports.wiring().harness;
  const auto at =
      std::find_if(loom.begin(), loom.end(), [&](const HarnessRow& r) { return r.lead == view_->traced(); });
  const auto open = [&](const HarnessRow& r) {
    const CheckStatus* c = find_check(document_.review().checks, CheckId{lead_family, r.lead});
    return c && !c->stands();
  };
  auto next = std::find_if(at, loom.end(), open);
  if (next == loom.end()) next = std::find_if(loom.begin(), at, open);
  if (next != loom.end() && open(*next)) choose(next->lead);
}

void WiringPage::go_to(const QString& subject) {
  const std::string id = subject.toStdString();
  if (id == "own_board") return describe_board();
  if (document_.rig().lead(id)) return choose(id);
  for (const Lead& l : document_.rig().leads)
    if (far_end(l, id)) return choose(l.id);
  if (const Output* o = document_.rig().output(id))
    for (const Lead& l : document_.rig().leads)
      if (far_end(l, "controller", o->socket)) return choose(l.id);
}

void WiringPage::fill_table() {
  const bool was = refreshing_;
  refreshing_ = true;
  const Units& units = Units::instance();
  const auto proven = [&](const std::string& lead) {
    const CheckStatus* c = find_check(document_.review().checks, CheckId{lead_family, lead});
    return c && c->stands();
  };
  std::string shown = units.metric() ? "m" : "i";
  for (const HarnessRow& r : document_.review().reports.wiring().harness)
    shown += r.lead + r.from + r.from_socket + r.to + r.to_socket + std::string(name_of(r.kind)) +
             number_text(r.length_m, 4) + number_text(r.awg, 1) + r.remarks + (proven(r.lead) ? "+" : "-");
  if (shown != shown_) {
    shown_ = shown;
    table_->setSortingEnabled(false);
    table_->setRowCount(static_cast<int>(document_.review().reports.wiring().harness.size()));
    int row = 0;
    for (const HarnessRow& r : document_.review().reports.wiring().harness) {
      const auto set = [&](int column, QTableWidgetItem* item, bool editable = false) {
        item->setFlags(editable ? Qt::ItemIsSelectable | Qt::ItemIsEnabled | Qt::ItemIsEditable
                                : Qt::ItemIsSelectable | Qt::ItemIsEnabled);
        table_->setItem(row, column, item);
      };
      // Which are done is seen from here.
      auto* first = new NumberItem(row + 1, proven(r.lead) ? u"✓ %1"_s.arg(row + 1) : QString::number(row + 1));
      if (proven(r.lead)) first->setToolTip(u"Proven"_s);
      first->setData(Qt::UserRole, QString::fromStdString(r.lead));
      set(number, first);
      set(from, new QTableWidgetItem(QString::fromStdString(capital(r.from) + " · " + r.from_socket)));
      set(to, new QTableWidgetItem(QString::fromStdString(capital(r.to) + " · " + r.to_socket)));
      set(kind, new QTableWidgetItem(QString::fromStdString(label_of(name_of(r.kind)))));
      set(length_column,
          new NumberItem(
              r.length_m,
              u"%1 %2"_s.arg(units.length_out(r.length_m), 0, 'f', units.metric() ? 0 : 1).arg(units.length_unit())),
          true);
      set(gauge, new NumberItem(r.awg, u"%1 AWG"_s.arg(r.awg, 0, 'f', 0)), true);
      set(remarks, new QTableWidgetItem(QString::fromStdString(r.remarks)));
      ++row;
    }
    table_->setSortingEnabled(true);
    table_->resizeColumnsToContents();
    // A long name must not push the rest out of sight; it is read by resting on it.
    for (const int column : {from, to}) {
      table_->setColumnWidth(column, std::min(table_->columnWidth(column), Style::instance().px(250)));
      for (int i = 0; i < table_->rowCount(); ++i) table_->item(i, column)->setToolTip(table_->item(i, column)->text());
    }
  }
  refreshing_ = was;
}

void WiringPage::refresh() {
  refreshing_ = true;
  view_->refresh();
  fill_table();
  choose(view_->traced());
  const WiringReport& w = document_.review().reports.wiring();
  QStringList free;
  if (document_.rig().parts.empty()) free << u"No parts are listed yet: add them on the fit station."_s;
  const auto labels = [&](const std::vector<std::string>& ids) {
    QStringList l;
    for (const std::string& id : ids)
      if (const Terminal* t = document_.controller() ? document_.controller()->terminal(id) : nullptr)
        l << QString::fromStdString(t->label);
    return l.join(u", "_s);
  };
  if (!w.free_outputs.empty()) free << u"Free outputs: %1."_s.arg(labels(w.free_outputs));
  if (!w.free_ports.empty()) free << u"Free ports: %1."_s.arg(labels(w.free_ports));
  if (w.power_pads > 0)
    free << u"Power pads: %1 of %2 taken, ground pads: %3 of %4."_s.arg(w.power_pads_needed)
                .arg(w.power_pads)
                .arg(w.ground_pads_needed)
                .arg(w.ground_pads);
  for (const TimerGroup& g : w.groups)
    if (g.rates_hz.size() == 1) free << u"Timer group %1 at %2 Hz."_s.arg(g.group).arg(g.rates_hz.front(), 0, 'f', 0);
  free_->setText(free.join(QLatin1Char(' ')));
  make_main(*plan_, w.harness.empty() || (document_.deferred() && document_.deferred()->plan.changes > 0));
  refreshing_ = false;
}

void WiringPage::show_sheets() { Q_EMIT sheets_asked(u"Plug list and wiring"_s, wiring_sheets(document_)); }

void WiringPage::set_ports() { PortsDialog(document_, this).exec(); }

void WiringPage::describe_board() {
  if (document_.path().isEmpty()) return say(u"Save the rig first: a board of your own is kept in a file beside it."_s);
  BoardDialog dialog(document_, this);
  dialog.exec();
}

QList<NamedAction> WiringPage::named_actions() {
  QList<NamedAction> all;
  all.append({u"Describe my own board"_s, u"class controller sockets ports pads editor"_s, [this] {
                come_here();
                describe_board();
              }});
  all.append(
      {u"What are the ports told?"_s, u"serial port job baud direction receiver signal telemetry restart"_s, [this] {
         come_here();
         set_ports();
       }});
  for (const bool apart : {true, false})
    if (const auto made = red_wires(document_.rig(), document_.catalogue(), apart);
        made && made->rig != document_.rig())
      all.append({QString::fromStdString(made->label), u"red wires out plus inline regulator apart joined school"_s,
                  [this, apart] {
                    come_here();
                    document_.apply(red_wires(document_.rig(), document_.catalogue(), apart));
                  },
                  NamedAction::Does::changes_rig});
  if (document_.controller() && document_.controller()->way("passthrough_channel"))
    for (int n = 5; n <= std::min(16, document_.rig().radio.transmitter.channels); ++n)
      all.append({u"Pass channel %1 through to an output"_s.arg(n), u"camera switch lights retract unmixed free"_s,
                  [this, n] { document_.apply(pass_channel(document_.rig(), document_.catalogue(), n)); },
                  NamedAction::Does::changes_rig});
  for (const HarnessRow& row : document_.review().reports.wiring().harness)
    all.append({u"Where is %1 plugged? %2 %3"_s.arg(QString::fromStdString(row.from), QString::fromStdString(row.to),
                                                    QString::fromStdString(row.to_socket)),
                u"lead socket port loom"_s + QLatin1Char(' ') + QString::fromStdString(row.lead),
                [this, id = QString::fromStdString(row.lead)] { come_here(id); }});
  all.append({u"Print the plug list and the wiring drawing"_s, u"sheet pdf svg paper"_s, [this] { show_sheets(); }});
  all.append({u"Plan the wiring"_s, u"ports sockets outputs assign"_s,
              [this] {
                come_here();
                plan();
              },
              NamedAction::Does::changes_rig});
  if (const ControllerClass* c = document_.controller(); c && c->surfaces.motor == MotorPath::either)
    for (const bool on_receiver : {true, false})
      all.append({on_receiver ? u"Throttle lead on the receiver"_s : u"Throttle lead through the board"_s,
                  u"motor speed controller"_s,
                  [this, on_receiver] {
                    come_here();
                    document_.apply(throttle_lead(document_.rig(), document_.catalogue(), on_receiver));
                  },
                  NamedAction::Does::changes_rig});
  return all;
}

}  // namespace rigging::app
