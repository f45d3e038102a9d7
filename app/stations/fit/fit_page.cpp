#include "stations/fit/fit_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "airframe/kinds.h"
#include "base/alignment.h"
#include "base/json.h"
#include "base/number.h"
#include "edit/edit.h"
#include "fit/edits.h"
#include "look/literals.h"
#include "look/member_box.h"
#include "look/pieces.h"
#include "look/units.h"
#include "look/wrapped_check.h"
#include "review/stations.h"
#include "rig/path.h"
#include "rig/ranges.h"
#include "stations/baud_box.h"

namespace rigging::app {
FitPage::FitPage(const PageContext& context) : StationPage(Station::fit, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(14);

  view_ = new PlacesView(document_);
  connect(view_, &PlacesView::picked, this, &FitPage::choose);
  auto* left = new QVBoxLayout;
  left->addLayout(make_head());
  left->addWidget(view_, 1);
  balance_ = wrapping_words(10, true);
  balance_->setObjectName(u"balance_words"_s);
  compass_ = wrapping_words(9.5);
  compass_->setObjectName(u"compass_words"_s);
  left->addWidget(balance_);
  left->addWidget(compass_);
  page->addLayout(left, 1);
  page->addWidget(make_side());
  connect(&Style::instance(), &Style::changed, this, [this] { refresh(); });
  refresh();
}

QLayout* FitPage::make_head() {
  auto* head = new QHBoxLayout;
  head->addWidget(heading(), 1);
  auto* place = new QPushButton(u"Bay and place…"_s);
  place->setObjectName(u"bay_and_place"_s);
  place->setToolTip(u"Size of the bay, wanted static margin, and where it flies"_s);
  connect(place, &QPushButton::clicked, this, &FitPage::ask_bay_and_place);
  head->addWidget(place);
  auto* swing = new QPushButton(u"Swing test…"_s);
  swing->setObjectName(u"swing_test"_s);
  swing->setToolTip(u"How hard it is to turn, from how slowly it swings on two strings"_s);
  connect(swing, &QPushButton::clicked, this, [this] {
    for (const ProcedureEntry& entry : entry_of(Station::fit).procedures)
      if (entry.id == "swing") run(entry);
  });
  head->addWidget(swing);
  auto* closer = new QPushButton(u"Closer"_s);
  closer->setToolTip(u"Fills the picture with the fuselage"_s);
  closer->setCheckable(true);
  closer->setObjectName(u"closer"_s);
  head->addWidget(closer);
  connect(closer, &QPushButton::toggled, view_, &PlacesView::set_closer);
  return head;
}

QWidget* FitPage::make_side() {
  auto* side = new QWidget;
  keep_width(side, 272);
  auto* right = new QVBoxLayout(side);
  right->setContentsMargins(0, 0, 0, 0);
  right->setSpacing(5);
  list_ = new QListWidget;
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setObjectName(u"parts"_s);
  list_->setWordWrap(true);  // long names are read whole
  list_->setAccessibleName(u"Parts"_s);
  connect(list_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
    if (!refreshing_ && item) choose(item->data(Qt::UserRole).toString().toStdString());
  });
  right->addWidget(list_, 1);
  auto* buttons = new QHBoxLayout;
  auto* add = new QPushButton(u"Add a part…"_s);
  add->setObjectName(u"add_part"_s);
  remove_ = new QPushButton(u"Remove"_s);
  remove_->setObjectName(u"remove_part"_s);
  auto* get = new QPushButton(u"To get…"_s);
  get->setObjectName(u"to_get"_s);
  get->setToolTip(u"Leads, adapters and tools to get before starting"_s);
  for (QPushButton* b : {add, remove_, get}) buttons->addWidget(b);
  connect(add, &QPushButton::clicked, this, &FitPage::ask_for_part);
  connect(remove_, &QPushButton::clicked, this, &FitPage::remove_chosen);
  connect(get, &QPushButton::clicked, this, &FitPage::show_list_to_get);
  right->addLayout(buttons);
  chosen_name_ = wrapping_words(10, true);
  figures_of_ =
      hinted_button(u"Its figures…"_s, "part_figures",
                    u"Sockets, currents, sizes as they really are: a kind of your own, kept beside the rig"_s);
  connect(figures_of_, &QPushButton::clicked, this, &FitPage::ask_figures);
  auto* named = new QHBoxLayout;
  named->addWidget(chosen_name_, 1);
  named->addWidget(figures_of_);
  right->addLayout(named);
  auto* form = new QGridLayout;
  form->setVerticalSpacing(3);
  form->setColumnStretch(0, 1);
  make_position(*form);
  make_fixing(*form);
  make_frame(*form);
  right->addLayout(form);
  board_ = wrapping_words(9);
  board_->setObjectName(u"board_words"_s);
  right->addWidget(board_);
  auto* look = wrapping_words(9.5, true);
  look->setText(u"Look and tick off"_s);
  right->addWidget(look);
  auto* ticks = new QWidget;
  ticks_ = new QVBoxLayout(ticks);
  ticks_->setContentsMargins(0, 0, 0, 0);
  ticks_->setSpacing(2);
  auto* tick_area = new QScrollArea;
  tick_area->setFrameShape(QFrame::NoFrame);
  tick_area->setWidgetResizable(true);
  tick_area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  tick_area->setMinimumHeight(84);
  tick_area->setWidget(ticks);
  right->addWidget(tick_area, 1);
  return side;
}

void FitPage::make_position(QGridLayout& form) {
  behind_ = number_box(u"behind_nose"_s, u"Behind the nose"_s, 84);
  right_ = number_box(u"right_of_middle"_s, u"Right of the middle"_s, 84);
  down_ = number_box(u"below_middle"_s, u"Below the middle"_s, 84);
  turn_ = new QComboBox;
  turn_->setObjectName(u"part_turn"_s);
  turn_->setAccessibleName(u"How it sits"_s);
  for (const Turn& t : all_turns()) turn_->addItem(QString::fromStdString(t.label()), QString::fromStdString(t.name()));
  surface_ = new QComboBox;
  surface_->setObjectName(u"part_surface"_s);
  surface_->setAccessibleName(u"Surface that it works"_s);
  int row = 0;
  for (const auto& [label, box] :
       {std::pair{u"Behind the nose"_s, behind_}, {u"Right of the middle"_s, right_}, {u"Below the middle"_s, down_}}) {
    form.addWidget(new QLabel(label), row, 0);
    form.addWidget(box, row++, 1);
  }
  mass_ = number_box(u"part_mass"_s, u"Weighs"_s, 84);
  mass_->setSpecialValueText(u"as its kind"_s);
  auto* weighs = new QLabel(u"Weighs"_s);
  weighs->setBuddy(mass_);
  form.addWidget(weighs, row, 0);
  form.addWidget(mass_, row++, 1);
  connect(mass_, &QDoubleSpinBox::valueChanged, this, [this](double shown) {
    if (refreshing_ || view_->selected().empty()) return;
    document_.apply(set_value(document_.rig(), path_of({"parts", view_->selected(), "mass_kg"}),
                              shown > mass_->minimum() ? Json(Units::instance().mass_in(shown)) : Json()));
  });
  auto* turned = new QHBoxLayout;
  turn_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  turn_->setMinimumContentsLength(10);
  turned->addWidget(turn_, 1);
  angles_ = new QPushButton(u"askew…"_s);
  angles_->setObjectName(u"small_angles"_s);
  angles_->setToolTip(u"Small angles on top of the turn, and the alignment that follows"_s);
  connect(angles_, &QPushButton::clicked, this, &FitPage::ask_small_angles);
  turned->addWidget(angles_);
  form.addLayout(turned, row++, 0, 1, 2);
  form.addWidget(surface_, row++, 0, 1, 2);
  const auto placed = [this](QDoubleSpinBox* box, double Mounting::*member, double sign) {
    connect(box, &QDoubleSpinBox::valueChanged, this, [this, member, sign](double shown) {
      edit_place([&](Mounting& p) { p.*member = sign * Units::instance().length_in(shown); });
    });
  };
  placed(behind_, &Mounting::x_m, -1);
  placed(right_, &Mounting::y_m, 1);
  placed(down_, &Mounting::z_m, 1);
  connect(turn_, &QComboBox::activated, this, [this] {
    if (const auto turn = turn_from_name(turn_->currentData().toString().toStdString()))
      edit_place([&](Mounting& p) { p.turn = *turn; });
  });
  connect(surface_, &QComboBox::activated, this, [this] {
    document_.apply(work_surface(document_.rig(), document_.catalogue(), view_->selected(),
                                 surface_from_name(surface_->currentData().toString().toStdString())));
  });
}

void FitPage::make_fixing(QGridLayout& form) {
  int row = form.rowCount();
  held_ = new QComboBox;
  held_->setObjectName(u"part_held"_s);
  held_->setAccessibleName(u"What holds it"_s);
  const std::pair<Fixing, QString> fixings[] = {{Fixing::unknown, u"held by: not said"_s},
                                                {Fixing::tape, u"held by firm tape"_s},
                                                {Fixing::hook_and_loop, u"held by hook-and-loop"_s},
                                                {Fixing::foam, u"held by foam tape"_s},
                                                {Fixing::plate, u"on a screwed plate"_s},
                                                {Fixing::holder, u"in a printed holder"_s},
                                                {Fixing::flush, u"flush in the wing"_s},
                                                {Fixing::lid, u"under a lid"_s}};
  for (const auto& [fixing, words] : fixings) held_->addItem(words, QString::fromLatin1(name_of(fixing).data()));
  plug_ = new QComboBox;
  plug_->setObjectName(u"part_plug"_s);
  plug_->setAccessibleName(u"Plug on its battery lead"_s);
  motor_plug_ = new QComboBox;
  motor_plug_->setObjectName(u"part_motor_plug"_s);
  motor_plug_->setAccessibleName(u"Plugs on its motor leads"_s);
  baud_ = new BaudBox(u"part_baud"_s, u"Baud that it really speaks"_s);
  for (const auto& [first, second] : {std::pair<QComboBox*, QComboBox*>{held_, plug_}, {motor_plug_, baud_}}) {
    auto* line = new QHBoxLayout;
    for (QComboBox* box : {first, second}) {
      box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
      box->setMinimumContentsLength(8);
      line->addWidget(box, 1);
    }
    form.addLayout(line, row++, 0, 1, 2);
  }
  connect(held_, &QComboBox::activated, this, [this] {
    if (const auto fixing = from_name<Fixing>(held_->currentData().toString().toStdString()))
      edit_place([&](Mounting& p) { p.fixing = *fixing; });
  });
  for (const auto& [box, member] : {std::pair{plug_, "plug"}, {motor_plug_, "motor_plug"}})
    connect(box, &QComboBox::activated, this, [this, box = box, member = member] {
      document_.apply(set_value(document_.rig(), path_of({"parts", view_->selected(), member}),
                                box->currentData().toString().toStdString()));
    });
  connect(baud_, &BaudBox::taken, this, [this](const std::optional<double>& baud) {
    document_.apply(
        set_value(document_.rig(), path_of({"parts", view_->selected(), "baud"}), baud ? Json(*baud) : Json()));
  });
  connect(baud_, &BaudBox::refused, this, [this](const QString& error) { Q_EMIT document_.refused(error); });
}

void FitPage::make_frame(QGridLayout& form) {
  int row = form.rowCount();
  frame_mass_ = number_box(u"frame_mass"_s, u"Bare airframe"_s, 84);
  frame_mass_->setSpecialValueText(u"not known"_s);
  frame_at_ = number_box(u"frame_at"_s, u"It balances behind the nose"_s, 84);
  frame_at_->setSpecialValueText(u"not known"_s);
  form.addWidget(new QLabel(u"Bare airframe weighs"_s), row, 0);
  form.addWidget(frame_mass_, row++, 1);
  form.addWidget(new QLabel(u"and balances at"_s), row, 0);
  form.addWidget(frame_at_, row++, 1);
  connect(frame_mass_, &QDoubleSpinBox::valueChanged, this, [this](double shown) {
    if (refreshing_) return;
    Json kg;
    if (shown > frame_mass_->minimum())
      kg = std::max(member_of(&Fit::frame_mass_kg).span.least, Units::instance().mass_in(shown));
    document_.apply(set_value(document_.rig(), "fit/frame_mass_kg", kg));
  });
  connect(frame_at_, &QDoubleSpinBox::valueChanged, this, [this](double shown) {
    if (refreshing_) return;
    Json at;
    if (shown > frame_at_->minimum()) at = Units::instance().length_in(shown);
    document_.apply(set_value(document_.rig(), "fit/frame_at_m", at));
  });
}

QWidget* FitPage::first_focus() { return view_; }

QList<NamedAction> FitPage::named_actions() {
  QList<NamedAction> all{
      {u"Add a part"_s, u"battery servo motor receiver new"_s,
       [this] {
         come_here();
         ask_for_part();
       }},
      {u"Bay, margins and where it flies"_s, u"place latitude longitude static margin size"_s,
       [this] {
         come_here();
         ask_bay_and_place();
       }},
      {u"What to get before starting"_s, u"buy shopping list leads tools"_s, [this] { show_list_to_get(); }},
      {u"What the bare airframe weighs"_s, u"frame mass balance"_s, [this] { come_here(u"frame"_s); }}};
  for (const Part& p : document_.rig().parts)
    all.append(
        {u"Where does %1 sit?"_s.arg(QString::fromStdString(part_name(document_.rig(), document_.catalogue(), p.id))),
         u"place part move"_s, [this, id = QString::fromStdString(p.id)] { come_here(id); }});
  return all;
}

void FitPage::go_to(const QString& subject) {
  const std::string id = subject.toStdString();
  if (id == "frame" || id == "balance") return frame_mass_->setFocus();
  for (QCheckBox* box : findChildren<QCheckBox*>())
    if (box->objectName() == u"tick_"_s + subject) return box->setFocus(Qt::ShortcutFocusReason);
  choose(id);
  view_->setFocus();
}

void FitPage::choose(const std::string& part) {
  view_->select(part);
  show_chosen();
}

void FitPage::edit_place(const std::function<void(Mounting&)>& change) {
  if (refreshing_ || view_->selected().empty()) return;
  Mounting place;
  if (const Mounting* known = document_.rig().mounting(view_->selected())) place = *known;
  place.part = view_->selected();
  change(place);
  document_.apply(put_part(document_.rig(), document_.catalogue(), place));
}

void FitPage::add_part(const std::string& kind) {
  const auto added = rigging::add_part(document_.rig(), document_.catalogue(), kind);
  if (added) view_->select(added->rig.parts.back().id);
  document_.apply(added);
}

void FitPage::remove_chosen() {
  const std::string id = view_->selected();
  if (!document_.rig().part(id)) return;
  view_->select({});
  document_.apply(remove_part(document_.rig(), document_.catalogue(), id));
}

void FitPage::show_chosen() {
  const bool was = refreshing_;
  refreshing_ = true;
  const Rig& rig = document_.rig();
  const std::string id = view_->selected();
  const Part* part = rig.part(id);
  const Mounting* place = rig.mounting(id);
  const bool any = part || id == "controller";
  chosen_name_->setText(any ? QString::fromStdString(capital(part_name(rig, document_.catalogue(), id)))
                            : u"Choose a part"_s);
  for (const auto& [box, value] : {std::pair{behind_, place ? -place->x_m : 0},
                                   {right_, place ? place->y_m : 0},
                                   {down_, place ? place->z_m : 0}}) {
    box->setEnabled(any);
    show_member(*box, member_of(&Mounting::x_m), value);
  }
  const PartKind* kind = kind_of(rig, document_.catalogue(), id);
  mass_->setEnabled(part != nullptr);
  figures_of_->setEnabled(part && kind);
  show_member_or_unknown(*mass_, member_of(&Part::mass_kg), part ? part->mass_kg : std::nullopt);
  turn_->setVisible(id == "controller" || (kind && kind->magnetic_sensor));
  angles_->setVisible(turn_->isVisibleTo(this));
  turn_->setCurrentIndex(turn_->findData(QString::fromStdString(place ? place->turn.name() : "none")));
  const bool takes_surface =
      kind && (kind->group == PartGroup::servo || kind->group == PartGroup::motor ||
               kind->group == PartGroup::speed_controller || kind->group == PartGroup::propeller);
  surface_->setVisible(takes_surface);
  surface_->clear();
  surface_->addItem(kind && kind->group == PartGroup::servo ? u"works no surface yet"_s : u"the only motor"_s,
                    QString());
  for (const Surface s : surfaces_of(rig.airframe))
    if ((s.kind == SurfaceKind::motor) != (kind && kind->group == PartGroup::servo))
      surface_->addItem(u"works the %1"_s.arg(QString::fromStdString(s.label())), QString::fromStdString(s.name()));
  surface_->setCurrentIndex(
      part && part->surface ? std::max(0, surface_->findData(QString::fromStdString(part->surface->name()))) : 0);
  held_->setEnabled(any);
  held_->setCurrentIndex(held_->findData(QString::fromLatin1(name_of(place ? place->fixing : Fixing::unknown).data())));
  const auto show_plugs = [&](QComboBox& box, const QString& none, bool (*on)(TerminalKind), const std::string& own) {
    QString usual = none;
    bool has = false;
    box.clear();
    if (kind)
      for (const Terminal& t : kind->terminals)
        if (on(t.kind)) {
          has = true;
          if (const PartKind* usually = document_.catalogue().part(t.plug))
            usual = u"%1, as usual"_s.arg(QString::fromStdString(usually->name));
        }
    box.setVisible(has);
    box.addItem(usual, QString());
    for (const PartKind& k : document_.catalogue().parts)
      if (k.plug) box.addItem(QString::fromStdString(k.name), QString::fromStdString(k.id));
    box.setCurrentIndex(std::max(0, box.findData(QString::fromStdString(own))));
  };
  show_plugs(*plug_, u"soldered, or made to fit"_s, &on_battery_lead, part ? part->plug : std::string());
  show_plugs(*motor_plug_, u"motor leads soldered"_s, &on_motor_lead, part ? part->motor_plug : std::string());
  baud_->setVisible(part && kind && kind->serial);
  if (part && kind && kind->serial) {
    baud_->offer(u"%1 baud, as usual"_s.arg(kind->serial->baud), {4800, 9600, 19200, 38400, 57600, 115200, 230400});
    baud_->show_value(part->baud);
  }
  remove_->setEnabled(part != nullptr);
  for (int i = 0; i < list_->count(); ++i)
    if (list_->item(i)->data(Qt::UserRole).toString().toStdString() == id) list_->setCurrentRow(i);
  refreshing_ = was;
}

void FitPage::refresh() {
  refreshing_ = true;
  const Rig& rig = document_.rig();
  const FitReport& fit = document_.review().reports.fit();
  const Units& units = Units::instance();
  std::string list;
  for (const MassItem& i : fit.balance.items)
    list += i.part + i.name + number_text(i.mass_kg, 4) + (i.placed ? "p" : "") + (units.metric() ? "m" : "i") + "\n";
  if (list != shown_list_) {
    shown_list_ = list;
    list_->clear();
    for (const MassItem& i : fit.balance.items) {
      if (i.part.empty()) continue;
      auto* item = new QListWidgetItem(u"%1   %2 %3%4"_s.arg(
          QString::fromStdString(capital(i.name)),
          i.mass_kg > 0 ? (i.weighed ? QString() : u"≈ "_s) +
                              QString::number(units.mass_out(i.mass_kg), 'f', units.metric() ? 0 : 1)
                        : u"?"_s,
          units.mass_unit(), i.placed ? QString() : u"  · no place"_s));
      item->setData(Qt::UserRole, QString::fromStdString(i.part));
      if (const PartKind* k = kind_of(rig, document_.catalogue(), i.part))
        item->setToolTip(QString::fromStdString(k->name + " (" + k->basis + ")"));
      list_->addItem(item);
    }
  }
  show_member_or_unknown(*frame_mass_, member_of(&Fit::frame_mass_kg), rig.fit.frame_mass_kg);
  show_member_or_unknown(*frame_at_, member_of(&Fit::frame_at_m), rig.fit.frame_at_m);

  const Balance& b = fit.balance;
  if (rig.parts.empty())
    balance_->setText(
        u"No parts are listed yet: add the battery, the servos and the rest, then drag them to where they go."_s);
  else if (!b.complete)
    balance_->setText(!rig.fit.frame_mass_kg
                          ? u"The balance point needs the bare airframe's mass and a place for every part."_s
                      : !rig.fit.frame_at_m ? u"The balance point needs to know where the bare airframe balances."_s
                                            : u"The balance point needs the mass of every part and its place."_s);
  else {
    balance_->setText(u"Balances %1 behind the nose, %2 of %3 to %4: %5. First flight: %6"_s.arg(
        units.figure(b.balance_point), units.figure(b.static_margin) + u" margin"_s,
        units.figure({"", b.band_front_m, "m", {}, {}, "", ""}), units.figure({"", b.band_back_m, "m", {}, {}, "", ""}),
        QString::fromLatin1(name_of(b.side()).data()), QString::fromStdString(b.to_first_flight.words)));
  }
  balance_->setToolTip(
      QString::fromStdString(b.balance_point.formula + "\n" + b.wanted.formula + " (" + b.wanted.source + ")"));
  QStringList compass;
  for (const CompassReport& c : fit.compasses) {
    const QString name = QString::fromStdString(part_name(rig, document_.catalogue(), c.part));
    if (c.verdict == CompassVerdict::points_nowhere)
      compass << u"Compass in %1: it points nowhere at full throttle."_s.arg(name);
    else
      compass
          << (c.verdict == CompassVerdict::so_far
                  ? u"Compass in %1: what is known turns it by up to %2° of %3° allowed; the motor's current is not "
                    "known yet."_s
              : c.verdict == CompassVerdict::holds
                  ? u"Compass in %1: currents and magnets turn it by up to %2° of %3° allowed: holds."_s
                  : u"Compass in %1: currents and magnets turn it by up to %2° of %3° allowed: too near."_s)
                 .arg(name)
                 .arg(c.error.value, 0, 'f', 1)
                 .arg(wanted_compass_error_deg, 0, 'f', 0);
    if (!c.paths.empty())
      compass << u"Worst: %1%2 at %3; keep %4."_s
                     .arg(QString::fromStdString(c.paths.front().path.name),
                          c.paths.front().path.lead.empty() ? QString()
                                                            : u", %1 A"_s.arg(c.paths.front().path.amps, 0, 'f', 1))
                     .arg(units.figure({"", c.paths.front().distance_m, "m", {}, {}, "", ""}),
                          units.figure({"", c.paths.front().least_distance_m, "m", {}, {}, "", ""}));
    compass_->setToolTip(QString::fromStdString(c.error.formula + " (" + c.error.source + ")\n" + c.horizontal.formula +
                                                ": " + number_text(c.horizontal.value, 1) + " µT (" +
                                                c.horizontal.source + ")"));
  }
  compass_->setText(compass.join(QLatin1Char(' ')));
  compass_->setVisible(!compass.isEmpty());
  board_->setText(u"Board: %1. %2"_s.arg(QString::fromStdString(fit.board.turn.label()),
                                         fit.board.told          ? u"The controller is set to this."_s
                                         : fit.board.can_be_told ? u"The controller is set otherwise."_s
                                                                 : u"This class can't be told so."_s));

  std::string ticks;
  for (const Confirmation& c : confirmations(rig, document_.catalogue())) ticks += c.word + "\n";
  if (ticks != shown_ticks_) {
    shown_ticks_ = ticks;
    while (QLayoutItem* item = ticks_->takeAt(0)) {
      item->widget()->hide();
      item->widget()->deleteLater();
      delete item;
    }
    for (const Confirmation& c : confirmations(rig, document_.catalogue())) {
      auto* box = new WrappedCheck(QString::fromStdString(c.text));
      box->setObjectName(u"tick_"_s + QString::fromStdString(c.word));
      box->setFont(Style::instance().text(9));
      connect(box, &QCheckBox::clicked, this,
              [this, w = c.word](bool on) { document_.apply(confirm(document_.rig(), document_.catalogue(), w, on)); });
      ticks_->addWidget(box);
    }
  }
  for (int i = 0; i < ticks_->count(); ++i)
    if (auto* box = qobject_cast<QCheckBox*>(ticks_->itemAt(i)->widget())) {
      const auto& confirmed = rig.fit.confirmed;
      box->setChecked(std::find(confirmed.begin(), confirmed.end(), box->objectName().mid(5).toStdString()) !=
                      confirmed.end());
    }
  view_->refresh();
  show_chosen();
  refreshing_ = false;
}

}  // namespace rigging::app
