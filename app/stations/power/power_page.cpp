#include "stations/power/power_page.h"

#include <QButtonGroup>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "base/number.h"
#include "look/html.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "look/side_scroll.h"
#include "look/units.h"
#include "power/edits.h"
#include "stations/numbers_dialog.h"

namespace rigging::app {
namespace {

QLabel* words(double points, const char* id = nullptr) {
  auto* l = wrapping_words(points);
  if (id) l->setObjectName(QLatin1String(id));
  return l;
}

QPushButton* choice(const QString& text, const QString& id) {
  auto* b = new QPushButton(text);
  b->setCheckable(true);
  b->setObjectName(id);
  b->setFont(Style::instance().text(9));
  return b;
}

}  // namespace

PowerPage::PowerPage(const PageContext& context) : StationPage(Station::power, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(14);
  auto* left = new QVBoxLayout;
  left->addWidget(heading());
  auto* row = new QHBoxLayout;
  row->addWidget(new QLabel(u"Supply"_s));
  auto* supplies = new QButtonGroup(this);
  const QString supply_names[] = {u"USB only"_s, u"battery"_s, u"both"_s};
  for (const auto& [state, name] : Names<SupplyState>::list) {
    auto* b =
        choice(supply_names[static_cast<std::size_t>(state)], u"supply_state_"_s + QString::fromLatin1(name.data()));
    supplies->addButton(b);
    states_[static_cast<std::size_t>(state)] = b;
    connect(b, &QPushButton::clicked, this, [this, s = state] {
      state_ = s;
      compute();
    });
    row->addWidget(b);
  }
  row->addStretch();
  left->addLayout(row);
  row = new QHBoxLayout;
  row->addWidget(new QLabel(u"Effort"_s));
  auto* load_cases = new QButtonGroup(this);
  const QString effort_names[] = {u"idle"_s, u"usual"_s, u"all moving"_s, u"one stalled"_s, u"two stalled"_s};
  for (const auto& [effort, name] : Names<LoadCase>::list) {
    auto* b = choice(effort_names[static_cast<std::size_t>(effort)], u"effort_"_s + QString::fromLatin1(name.data()));
    load_cases->addButton(b);
    efforts_[static_cast<std::size_t>(effort)] = b;
    connect(b, &QPushButton::clicked, this, [this, e = effort] {
      effort_ = e;
      what_if_.stalled.clear();
      compute();
    });
    row->addWidget(b);
  }
  row->addStretch();
  left->addLayout(row);
  rivers_ = new RiversView(document_);
  rivers_->setToolTip(u"Width is current. Click a servo to stall it. The motor's river is drawn cut short."_s);
  connect(rivers_, &RiversView::load_clicked, this,
          [this](const std::string& part) { toggle(what_if_.stalled, part); });
  left->addWidget(rivers_, 1);
  explained_ = words(9, "power_explained");
  explained_->setProperty("soft", true);
  left->addWidget(explained_);
  page->addLayout(left, 1);

  auto* side = new QWidget;
  auto* right = new QVBoxLayout(side);
  right->setContentsMargins(0, 0, 0, 0);
  verdicts_ = words(9.5, "power_verdicts");
  right->addWidget(verdicts_);
  advice_ = words(9.5, "power_advice");
  right->addWidget(advice_);
  figures_ = words(9, "power_figures");
  right->addWidget(figures_);
  auto* what_if = words(9.5);
  show_html(what_if, html(u"<b>What if</b> (changes nothing in the rig)"));
  right->addWidget(what_if);
  auto* cells = new QHBoxLayout;
  one_more_ = choice(u"one more cell"_s, u"one_more_cell"_s);
  connect(one_more_, &QPushButton::clicked, this, [this](bool on) {
    what_if_.more_cells = on ? 1 : 0;
    compute();
  });
  as_it_is_ = new QPushButton(u"as it is"_s);
  as_it_is_->setObjectName(u"as_it_is"_s);
  connect(as_it_is_, &QPushButton::clicked, this, [this] {
    what_if_ = {};
    compute();
  });
  cells->addWidget(one_more_);
  cells->addWidget(as_it_is_);
  right->addLayout(cells);
  pulls_ = new QVBoxLayout;
  pulls_->setSpacing(3);
  right->addLayout(pulls_);
  right->addStretch();
  auto* measured = new QPushButton(u"Measured, reserve, propeller…"_s);
  measured->setObjectName(u"measured"_s);
  connect(measured, &QPushButton::clicked, this, &PowerPage::ask_measured);
  right->addWidget(measured);
  working_button_ = new QPushButton(u"Show working"_s);
  working_button_->setCheckable(true);
  working_button_->setObjectName(u"power_working"_s);
  right->addWidget(working_button_);
  // On a small screen the figures scroll; the verdicts stand first.
  page->addWidget(new SideScroll(280, side));
  working_ = words(8.5);
  working_->setProperty("soft", true);
  working_->hide();
  left->addWidget(working_);
  connect(working_button_, &QPushButton::toggled, this, [this](bool on) {
    working_->setVisible(on);
    working_button_->setText(on ? u"Hide working"_s : u"Show working"_s);
  });
  connect(&Style::instance(), &Style::changed, this, [this] { refresh(); });
  refresh();
}

void PowerPage::ask_measured() {
  Power p = document_.rig().power;
  NumbersDialog dialog(u"Measured, reserve, propeller"_s,
                       u"Before you measure: model held fast, everyone clear of the propeller's arc and of what "
                       "it blows at, battery last. What is not measured is estimated."_s,
                       this);
  dialog.add("static_a", p, &Power::static_a, u"estimated"_s, u"Current at full throttle"_s);
  dialog.add("static_thrust", p, &Power::static_thrust_n, u"estimated"_s, u"Static thrust"_s);
  dialog.add("cruise_a", p, &Power::cruise_a, u"estimated"_s, u"Drive current at cruise"_s);
  const Span reserve = member_of(&Power::reserve_share).span;
  dialog.add("reserve", {u"Battery kept in reserve"_s, u"%"_s, 100 * reserve.least, 100 * reserve.most, 0, 100},
             p.reserve_share);
  dialog.add("ambient", p, &Power::ambient_c, u"Temperature in the fuselage"_s);
  dialog.add("clearance", p, &Power::clearance_m, u"not measured"_s, u"Blade tips to anything, least"_s);
  dialog.add("faces_flight", u"Its lettered side faces the direction of flight"_s, p.propeller_faces_flight);
  dialog.ask(document_, [&] { return measure_power(document_.rig(), p); });
}

QList<NamedAction> PowerPage::named_actions() {
  return {{u"Type what was measured of the drive"_s, u"current thrust reserve propeller clearance"_s, [this] {
             come_here();
             ask_measured();
           }}};
}

QWidget* PowerPage::first_focus() { return states_[static_cast<std::size_t>(SupplyState::battery)]; }

void PowerPage::go_to(const QString& subject) {
  const PartKind* k = kind_of(document_.rig(), document_.catalogue(), subject.toStdString());
  if (k && k->group == PartGroup::servo) {
    what_if_.stalled = {subject.toStdString()};
    compute();
  }
  efforts_[static_cast<std::size_t>(LoadCase::one_stalled)]->setFocus(Qt::ShortcutFocusReason);
}

void PowerPage::toggle(std::vector<std::string>& list, const std::string& part) {
  if (std::erase(list, part) == 0) list.push_back(part);
  compute();
}

void PowerPage::rebuild_pulls() {
  std::string shown;
  std::vector<std::string> givers;
  for (const Part& p : document_.rig().parts)
    if (const PartKind* k = document_.catalogue().part(p.kind); k && !k->feeds.empty()) {
      givers.push_back(p.id);
      shown += p.id + part_name(document_.rig(), document_.catalogue(), p.id) + "\n";
    }
  if (shown == shown_pulls_) return;
  shown_pulls_ = shown;
  for (QPushButton* b : pull_buttons_) {
    b->hide();
    b->deleteLater();
  }
  pull_buttons_.clear();
  for (const std::string& id : givers) {
    const QString name = QString::fromStdString(part_name(document_.rig(), document_.catalogue(), id));
    auto* b = choice(u"pull the %1"_s.arg(name), u"pull_"_s + QString::fromStdString(id));
    // A long name must not widen the panel; it is read by resting on it.
    b->setText(b->fontMetrics().elidedText(b->text(), Qt::ElideMiddle, Style::instance().px(220)));
    b->setToolTip(u"pull the %1"_s.arg(name));
    connect(b, &QPushButton::clicked, this, [this, id] { toggle(what_if_.without, id); });
    pulls_->addWidget(b);
    pull_buttons_.push_back(b);
  }
}

void PowerPage::refresh() {
  const auto gone = [&](const std::string& id) { return !document_.rig().part(id); };
  std::erase_if(what_if_.stalled, gone);
  std::erase_if(what_if_.without, gone);
  rebuild_pulls();
  compute();
}

void PowerPage::compute() {
  // The review has it as it is; only what is tried out here is worked out anew.
  const PowerReport r = what_if_ == WhatIf{} ? document_.review().reports.power()
                                             : analyze_power(document_.rig(), document_.catalogue(), what_if_);
  const double drive_a = !r.drive                       ? 0
                         : effort_ == LoadCase::typical ? r.drive->cruise_current.value
                                                        : r.drive->static_current.value;
  const LoadCase effort = what_if_.stalled.empty() ? effort_ : LoadCase::one_stalled;
  rivers_->show(r, solve(r.network, state_, effort, 1, state_ == SupplyState::usb ? 0 : drive_a, what_if_.stalled));
  states_[static_cast<std::size_t>(state_)]->setChecked(true);
  efforts_[static_cast<std::size_t>(effort)]->setChecked(true);
  one_more_->setChecked(what_if_.more_cells == 1);
  for (QPushButton* b : pull_buttons_) {
    const std::string id = b->objectName().mid(5).toStdString();
    b->setChecked(std::find(what_if_.without.begin(), what_if_.without.end(), id) != what_if_.without.end());
  }
  as_it_is_->setEnabled(!what_if_.stalled.empty() || !what_if_.without.empty() || what_if_.more_cells != 0);
  Html verdicts;
  for (const SourceReport& s : r.sources) {
    verdicts += html(u"<p style='margin:0 0 5px 0'><b>%1</b>%2<br><span style='color:%3'>%4</span></p>",
                     {capital(s.name), s.battery ? std::string() : ", " + s.rail,
                      (s.overloaded() ? inks().rust : inks().ink).name(), s.verdict});
  }
  if (r.sources.empty()) verdicts = u"No battery and no regulator are listed yet: add them on the fit station."_s;
  show_html(verdicts_, verdicts);
  advice_->setText(r.advice ? QString::fromStdString(r.advice->words) : QString());
  advice_->setVisible(r.advice.has_value());
  Html figures;
  QString working;
  for (const Figure& f : r.figures()) {
    figures +=
        html(u"<tr><td style='color:%1'>%2</td><td align=right width=118 style=\"padding-left:4px\">%3</td></tr>",
             {inks().soft.name(), f.name, Units::instance().figure(f)});
    working += u"%1 = %2 (%3)\n"_s.arg(QString::fromStdString(f.name), QString::fromStdString(f.formula),
                                       QString::fromStdString(f.source));
  }
  show_html(figures_, html(u"<table cellspacing=1 width=100%>%1</table>", {figures}));
  working_->setText(working.trimmed());
  QStringList explained;
  for (const std::string& e : r.explanations) explained << QString::fromStdString(e);
  explained_->setText(explained.join(QLatin1Char('\n')));
  explained_->setVisible(!explained.isEmpty());
}

}  // namespace rigging::app
