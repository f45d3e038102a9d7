#include "stations/surfaces/surfaces_page.h"

#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "airframe/kinds.h"
#include "base/fields.h"
#include "base/json.h"
#include "base/number.h"
#include "edit/edit.h"
#include "look/literals.h"
#include "look/number_box.h"
#include "look/pieces.h"
#include "look/units.h"
#include "stations/numbers_dialog.h"
#include "stations/surfaces/linkage_panel.h"
#include "stations/surfaces/linkage_view.h"
#include "stations/surfaces/mix_panel.h"
#include "surfaces/air_loads.h"
#include "surfaces/edits.h"
#include "surfaces/release.h"
#include "surfaces/trim.h"

namespace rigging::app {
namespace {

QSlider* slider(const QString& name, int least, int most, const char* id) {
  auto* s = new QSlider(Qt::Horizontal);
  s->setRange(least, most);
  s->setAccessibleName(name);
  s->setObjectName(QLatin1String(id));
  s->setMinimumWidth(60);
  s->setMaximumWidth(120);
  return s;
}

}  // namespace

SurfacesPage::SurfacesPage(const PageContext& context) : StationPage(Station::surfaces, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(14);

  auto* left = new QVBoxLayout;
  left->addWidget(heading());
  make_picture();
  left->addWidget(picture_, 1);
  left->addLayout(make_sticks());
  mix_words_ = wrapping_words(9);
  mix_words_->setObjectName(u"mix_words"_s);
  left->addWidget(mix_words_);
  left->addLayout(make_saturation_row());
  page->addLayout(left, 1);

  auto* right = new QVBoxLayout;
  right->addLayout(make_side_keys());
  right->addWidget(make_surface_row());
  sides_ = new QStackedWidget;
  mix_ = new MixPanel(document_);
  connect(mix_, &MixPanel::trying, this, &SurfacesPage::show_deflections);
  connect(mix_, &MixPanel::given_up, this, &SurfacesPage::move_surfaces);
  sides_->addWidget(mix_);
  linkage_ = new LinkagePanel(document_);
  auto* throws_side = make_throws_side();
  for (QWidget* panel : {static_cast<QWidget*>(linkage_), throws_side}) {
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    keep_width(scroll, 392);
    scroll->setWidget(panel);
    sides_->addWidget(scroll);
  }
  connect(&throws_->runner(), &ProcedureRunner::card_changed, this, [this] {
    // A sitting goes from surface to surface by itself.
    const auto read = surface_from_name(throws_->runner().card().subject);
    if (read && *read != surface_ && document_.rig().output_of(*read)) {
      surface_ = *read;
      preview_.reset();
      surface_box_->setCurrentIndex(surface_box_->findData(QString::fromStdString(read->name())));
      linkage_->show_surface(*read);
    }
    draw_linkage();
  });
  connect(&document_, &RigDocument::deferred_ready, this, [this] {
    draw_linkage();
    linkage_->refresh();
    mix_->show_effects();
  });
  right->addWidget(sides_, 1);
  page->addLayout(right);

  connect(square_, &StickSquare::moved, this, [this](double roll, double pitch) {
    command_.roll = roll;
    command_.pitch = pitch;
    move_surfaces();
  });
  refresh();
}

void SurfacesPage::make_picture() {
  view_ = new AircraftView(AircraftView::From::behind_above);
  view_->set_caption(u"As planned, from behind and above · move the stick and see which surface answers"_s);
  view_->set_pickable(true);
  connect(view_, &AircraftView::picked, this, &SurfacesPage::show_surface);
  sketch_ = new LinkageView;
  connect(sketch_, &LinkageView::dragged, this, [this](double arm_m, double horn_m) {
    const Linkage l = linkage_of(document_.rig(), surface_);
    if (const auto moved = with_holes(l, arm_m, horn_m)) preview_ = *moved;
    draw_linkage();
  });
  connect(sketch_, &LinkageView::let_go, this, [this] {
    if (!preview_) return;
    const Linkage l = *preview_;
    preview_.reset();
    document_.apply(use_holes(document_.rig(), surface_, l.arm_m, l.horn_m));
  });
  picture_ = new QStackedWidget;
  picture_->addWidget(view_);
  picture_->addWidget(sketch_);
}

QLayout* SurfacesPage::make_sticks() {
  auto* sticks = new QHBoxLayout;
  square_ = new StickSquare;
  sticks->addWidget(square_);
  auto* others = new QGridLayout;
  others->setVerticalSpacing(8);
  yaw_ = slider(u"Yaw stick"_s, -100, 100, "yaw_slider");
  throttle_ = slider(u"Throttle"_s, 0, 100, "throttle_slider");
  flap_ = slider(u"Flap"_s, 0, 100, "flap_slider");
  int row = 0;
  for (const auto& [name, s] : {std::pair{u"Yaw"_s, yaw_}, {u"Throttle"_s, throttle_}, {u"Flap"_s, flap_}}) {
    others->addWidget(new QLabel(name), row, 0);
    others->addWidget(s, row++, 1);
    connect(s, &QSlider::valueChanged, this, [this] {
      command_.yaw = yaw_->value() / 100.0;
      command_.throttle = throttle_->value() / 100.0;
      command_.flap = flap_->value() / 100.0;
      move_surfaces();
    });
  }
  auto* centre = new QPushButton(u"Centre the sticks"_s);
  connect(centre, &QPushButton::clicked, this, [this] {
    yaw_->setValue(0);
    flap_->setValue(0);
    throttle_->setValue(0);
    command_ = {};
    move_surfaces();
  });
  others->addWidget(centre, row++, 0, 1, 2);
  saturation_ = new QLabel;
  saturation_->setWordWrap(true);
  saturation_->setObjectName(u"saturation"_s);
  saturation_->setFont(Style::instance().text(9));
  others->addWidget(saturation_, row++, 0, 1, 2);
  others->setRowStretch(row, 1);
  sticks->addLayout(others, 1);
  return sticks;
}

QLayout* SurfacesPage::make_saturation_row() {
  auto* share_row = new QHBoxLayout;
  auto* differential_label = new QLabel(u"Down less by"_s);
  differential_ = number_box(u"differential"_s, u"Aileron differential"_s, 64);
  differential_->setToolTip(
      u"How much less the down-going aileron moves than the up-going one: against yaw the wrong way"_s);
  differential_->setRange(0, 100);
  differential_->setDecimals(0);
  differential_->setSuffix(u" %"_s);
  connect(differential_, &QDoubleSpinBox::valueChanged, this, [this](double percent) {
    if (!refreshing_) document_.apply(set_differential(document_.rig(), percent / 100));
  });
  share_row->addWidget(new QLabel(u"Too much:"_s));
  saturation_box_ = new QComboBox;
  saturation_box_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  saturation_box_->setMinimumContentsLength(4);
  saturation_box_->setObjectName(u"sharing"_s);
  saturation_box_->setAccessibleName(u"What happens when commands ask for too much"_s);
  for (const auto& [s, name] : {std::pair{Saturation::each_stops, u"each output stops at its end"_s},
                                {Saturation::all_shrink, u"all commands shrink alike"_s},
                                {Saturation::roll_first, u"roll is kept"_s},
                                {Saturation::pitch_first, u"pitch is kept"_s}})
    saturation_box_->addItem(name, static_cast<int>(s));
  connect(saturation_box_, &QComboBox::activated, this, [this] {
    const auto sharing = static_cast<Saturation>(saturation_box_->currentData().toInt());
    document_.apply(set_value(document_.rig(), "saturation", name_of(sharing)));
  });
  share_row->addWidget(saturation_box_, 1);
  share_row->addWidget(differential_label);
  share_row->addWidget(differential_);
  differential_->setProperty("label", QVariant::fromValue<QWidget*>(differential_label));
  return share_row;
}

QLayout* SurfacesPage::make_side_keys() {
  auto* keys = new QHBoxLayout;
  keys->setSpacing(4);
  side_keys_ = new QButtonGroup(this);
  for (const auto& [side, name, id, hint] :
       {std::tuple{Side::mix, u"Mix"_s, "side_mix", u"How much of its travel each surface gives for a command"_s},
        {Side::linkage, u"Linkage"_s, "side_linkage", u"Arm, rod and horn of one surface; holes; loads in the air"_s},
        {Side::throws, u"Throws"_s, "side_throws", u"Read a surface with a gauge, centre it, set its ends"_s}}) {
    auto* key = new QPushButton(name);
    key->setObjectName(QLatin1String(id));
    key->setCheckable(true);
    key->setToolTip(hint);
    side_keys_->addButton(key, static_cast<int>(side));
    keys->addWidget(key);
  }
  side_keys_->button(0)->setChecked(true);
  connect(side_keys_, &QButtonGroup::idClicked, this, [this](int side) { show_side(static_cast<Side>(side)); });
  return keys;
}

QWidget* SurfacesPage::make_surface_row() {
  surface_row_ = new QWidget;
  auto* surface_row = new QHBoxLayout(surface_row_);
  surface_row->setContentsMargins(0, 0, 0, 0);
  surface_box_ = new QComboBox;
  surface_box_->setObjectName(u"surface_box"_s);
  surface_box_->setAccessibleName(u"Surface"_s);
  surface_row->addWidget(surface_box_, 1);
  connect(surface_box_, &QComboBox::activated, this, [this] {
    if (const auto s = surface_from_name(surface_box_->currentData().toString().toStdString())) choose_surface(*s);
  });
  surface_row_->hide();
  return surface_row_;
}

QWidget* SurfacesPage::make_throws_side() {
  throws_ = procedure_card("throws", ProcedureCard::Form::column);
  auto* throws_side = new QWidget;
  auto* throws_layout = new QVBoxLayout(throws_side);
  throws_layout->setContentsMargins(0, 0, 4, 0);
  throws_layout->addWidget(throws_, 1);
  auto* gauges = hinted_button(u"Print a throw gauge…"_s, "print_gauges",
                               u"Paper gauges for each chord, a level wedge and balance marks, true to scale"_s);
  connect(gauges, &QPushButton::clicked, this, &SurfacesPage::show_gauges);
  auto* flown = hinted_button(u"Trim flight…"_s, "trim_flight",
                              u"Where each surface sat in straight and level flight, flown by hand"_s);
  connect(flown, &QPushButton::clicked, this, &SurfacesPage::note_trim_flight);
  release_ = hinted_button(u"Tow release…"_s, "tow_release", u"Arm, pin and pull: does it let go under load?"_s);
  connect(release_, &QPushButton::clicked, this, &SurfacesPage::measure_release);
  auto* tools = new QHBoxLayout;
  for (QPushButton* b : {gauges, flown, release_}) tools->addWidget(b);
  throws_layout->addLayout(tools);
  auto_trim_ = new QCheckBox(u"Automatic trim is on"_s);
  auto_trim_->setObjectName(u"auto_trim"_s);
  auto_trim_->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Fixed);
  connect(auto_trim_, &QCheckBox::clicked, this,
          [this](bool on) { document_.apply(set_value(document_.rig(), "controller/auto_trim", on)); });
  throws_layout->addWidget(auto_trim_);
  trim_words_ = wrapping_words(9);
  trim_words_->setObjectName(u"trim_words"_s);
  trim_words_->setProperty("soft", true);
  throws_layout->addWidget(trim_words_);
  return throws_side;
}

void SurfacesPage::show_deflections(const Rig& rig, const Command& command) {
  std::map<Surface, double> deflections;
  for (const auto& [surface, degrees] : intended_deflections(rig, command)) deflections[surface] = degrees;
  view_->set_deflections(deflections);
}

/// What the sticks leave to the stabilizer, with yaw and flap as they are held.
void SurfacesPage::show_room() {
  const Rig& rig = document_.rig();
  const Command held{.yaw = command_.yaw, .flap = command_.flap};
  const bool plain = held.yaw == 0 && held.flap == 0;
  const ControlMargin room = plain ? document_.review().reports.control_margins().plain : control_margin(rig, held);
  const double share = plain ? document_.review().reports.surfaces().saturated_share : saturated_share(rig, held);
  square_->set_rig(rig, room);
  int tight = 0;
  for (const auto& row : room.left)
    tight += static_cast<int>(
        std::count_if(row.begin(), row.end(), [](double left) { return left < StickSquare::half_correction; }));
  const double tight_share = static_cast<double>(tight) / ((ControlMargin::steps + 1) * (ControlMargin::steps + 1));
  const QString with = plain            ? QString()
                       : held.flap == 0 ? u"With yaw held: "_s
                       : held.yaw == 0  ? u"With flap: "_s
                                        : u"With yaw and flap: "_s;
  saturation_->setText(
      with +
      (share <= 0 ? u"Nowhere on the stick square does a surface reach its end: holds."_s
       : rig.saturation == Saturation::each_stops
           ? u"On %1 % of the stick square a surface reaches its end (hatched)."_s.arg(share * 100, 0, 'f', 0)
           : u"On %1 % of the stick square commands are made smaller (hatched)."_s.arg(share * 100, 0, 'f', 0)) +
      (tight_share > share + 0.005
           ? u" With half a full correction on top it would on %1 % (dotted)."_s.arg(tight_share * 100, 0, 'f', 0)
           : QString()));
}

void SurfacesPage::move_surfaces() {
  square_->set_command(command_);
  show_room();
  draw_linkage();
  show_deflections(document_.rig(), command_);
  mix_->show_pulses(command_);
}

void SurfacesPage::show_side(Side side) {
  side_keys_->button(static_cast<int>(side))->setChecked(true);
  sides_->setCurrentIndex(static_cast<int>(side));
  picture_->setCurrentIndex(side == Side::mix ? 0 : 1);
  surface_row_->setVisible(side != Side::mix);
  draw_linkage();
}

void SurfacesPage::choose_surface(Surface surface) {
  surface_ = surface;
  preview_.reset();
  surface_box_->setCurrentIndex(surface_box_->findData(QString::fromStdString(surface.name())));
  linkage_->show_surface(surface);
  throws_->runner().choose(QString::fromStdString(surface.name()));
  draw_linkage();
}

void SurfacesPage::draw_linkage() {
  const Output* o = document_.rig().output_of(surface_);
  if (!o || surface_.kind == SurfaceKind::motor) return sketch_->clear(u"Choose a surface."_s);
  const double pulse = throws_->runner().card().picture.pulse_us.value_or(
      mixed(*o, shared(document_.rig().outputs, command_, document_.rig().saturation)).pulse_us);
  const double chord = chord_of(document_.rig(), surface_);
  const Estimate* read = as_read();
  const Linkage* known = document_.rig().linkage(surface_);
  if (preview_ || !read)
    return sketch_->set_linkage(preview_.value_or(linkage_of(document_.rig(), surface_)), *o, chord, pulse,
                                !known ? u"a usual linkage"_s
                                : known->readings.size() >= 3 && !document_.deferred()
                                    ? u"as measured; its readings are being worked out…"_s
                                    : u"as measured"_s);
  // Readings know better than the lengths, and which way the servo turns.
  Output turned = *o;
  if (read->sense != rising_lifts(*o, surface_)) turned.reversed = !turned.reversed;
  sketch_->set_linkage(read->linkage, turned, chord, pulse, u"as the readings say"_s);
}

const Estimate* SurfacesPage::as_read() const {
  const LinkageReport* report = document_.deferred() ? document_.deferred()->linkage(surface_) : nullptr;
  return report && report->as_read ? &*report->as_read : nullptr;
}

void SurfacesPage::refresh() {
  refreshing_ = true;
  const ControllerClass* controller = document_.controller();
  const QString trims = controller ? QString::fromStdString(trim_words(*controller)) : QString();
  auto_trim_->setVisible(controller &&
                         (controller->surfaces.trim == TrimKeeping::by_itself || document_.rig().controller.auto_trim));
  auto_trim_->setChecked(document_.rig().controller.auto_trim);
  trim_words_->setText(trims);
  trim_words_->setVisible(!trims.isEmpty());
  release_->setVisible(release_output(document_.rig()) != nullptr);
  const Rig& rig = document_.rig();
  preview_.reset();
  QStringList surfaces;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces)
      if (s.kind != SurfaceKind::motor) surfaces << QString::fromStdString(s.name());
  QStringList shown;
  for (int i = 0; i < surface_box_->count(); ++i) shown << surface_box_->itemData(i).toString();
  if (shown != surfaces) {
    surface_box_->clear();
    for (const QString& w : surfaces)
      surface_box_->addItem(QString::fromStdString(capital(surface_from_name(w.toStdString())->label())), w);
    if (!surfaces.contains(QString::fromStdString(surface_.name())) && !surfaces.isEmpty())
      surface_ = *surface_from_name(surfaces.front().toStdString());
    surface_box_->setCurrentIndex(surface_box_->findData(QString::fromStdString(surface_.name())));
    linkage_->show_surface(surface_);
    throws_->runner().choose(QString::fromStdString(surface_.name()));
  }
  linkage_->refresh();
  differential_->setValue(100 * differential_of(rig));
  const bool pair = std::any_of(rig.outputs.begin(), rig.outputs.end(), [](const Output& o) {
    return o.surfaces.size() == 1 && o.mix.roll != 0 && o.surfaces[0].side != rigging::Side::single &&
           o.surfaces[0].kind != SurfaceKind::motor;
  });
  differential_->setVisible(pair);
  differential_->property("label").value<QWidget*>()->setVisible(pair);
  saturation_box_->setCurrentIndex(saturation_box_->findData(static_cast<int>(rig.saturation)));
  saturation_box_->setToolTip(saturation_box_->currentText());
  QStringList mix;
  for (const std::string& w : document_.review().reports.surfaces().mix)
    mix << QString::fromStdString(w) + QLatin1Char('.');
  mix_words_->setText(mix.join(QLatin1Char('\n')));
  view_->set_panels(document_.review().reports.airframe().panels);
  show_room();
  mix_->refresh();
  move_surfaces();
  refreshing_ = false;
}

void SurfacesPage::show_surface(Surface surface) {
  const Output* o = document_.rig().output_of(surface);
  if (o && surface.kind != SurfaceKind::motor) choose_surface(surface);
  if (o) mix_->show_row(o->id);
  view_->set_selected({surface});
}

void SurfacesPage::go_to(const QString& subject) {
  if (subject.startsWith(QLatin1String("surfaces.")) || subject == QLatin1String("throws"))
    return show_side(Side::throws);
  if (mix_->show_row(subject.toStdString())) return;
  if (const auto surface = surface_from_name(subject.toStdString())) show_surface(*surface);
}

void SurfacesPage::note_trim_flight() {
  const Rig& rig = document_.rig();
  TrimFlight flight;
  flight.cruise_throttle = rig.power.cruise_throttle;
  for (const Linkage& l : rig.linkages) flight.sat_deg[l.surface] = l.want_neutral_deg.value_or(0);
  Power throttle = rig.power;
  NumbersDialog dialog(u"Trim flight"_s,
                       u"Flown by hand, without the stabilizer, trimmed until it flies straight and level at cruise. "
                       "Where each surface sat then is wanted at its centre; trims go back to the middle afterwards."_s,
                       this);
  dialog.add("cruise_throttle", throttle, &Power::cruise_throttle, u"not noted"_s, u"Throttle at cruise"_s);
  const Span span = member_of(&Linkage::want_neutral_deg).span;
  for (auto& [surface, deg] : flight.sat_deg)
    dialog.add(("sat_" + surface.name()).c_str(),
               {u"%1 sat, trailing edge %2 positive"_s.arg(QString::fromStdString(capital(surface.label())),
                                                           surface.kind == SurfaceKind::rudder ? u"right"_s : u"up"_s),
                u"°"_s, span.least, span.most, 1, 1},
               deg);
  dialog.ask(document_, [&] {
    flight.cruise_throttle = throttle.cruise_throttle;
    return trim_flown(document_.rig(), flight);
  });
}

void SurfacesPage::measure_release() {
  const Output* output = release_output(document_.rig());
  if (!output) return;
  Release r = document_.rig().release.value_or(Release{});
  const ReleaseReport now = analyze_release(r, *output, release_torque(document_.rig(), document_.catalogue()));
  const Units& units = Units::instance();
  QString words =
      u"Closed throttle is latched, full throttle released. As it stands the wire moves %1; the pin needs %2"_s.arg(
          units.figure(now.travel), units.figure({"", r.pin_m, "m", {}, {}, "", ""}));
  if (now.force.value > 0) words += u"; the servo pulls at least %1 N"_s.arg(now.force.value, 0, 'f', 0);
  if (now.needed.value > 0) words += u", and drawing the pin under load asks %1 N"_s.arg(now.needed.value, 0, 'f', 0);
  NumbersDialog dialog(u"Tow release"_s, words + u". Hold and release under load is a check of its own."_s, this);
  dialog.add("release_arm", r, &Release::arm_m, {}, 1);
  dialog.add("release_pin", r, &Release::pin_m, {}, 1);
  dialog.add("release_travel", r, &Release::servo_travel_deg);
  dialog.add("release_square", r, &Release::arm_deg);
  dialog.add("release_pull", r, &Release::pull_n, u"not known"_s);
  dialog.add("release_friction", r, &Release::friction);
  dialog.ask(document_, [&] { return rigging::measure_release(document_.rig(), r); });
}

void SurfacesPage::show_gauges() { Q_EMIT sheets_asked(u"Paper tools, true to scale"_s, gauge_sheets(document_)); }

QList<NamedAction> SurfacesPage::named_actions() {
  QList<NamedAction> all;
  for (const Output& o : document_.rig().outputs) {
    QString name = o.passthrough_channel > 0 ? u"channel %1"_s.arg(o.passthrough_channel)
                   : o.surfaces.empty()      ? u"motor"_s
                                             : QString();
    for (const Surface s : o.surfaces)
      name += (name.isEmpty() ? QString() : u" and "_s) + QString::fromStdString(s.label());
    const QString id = QString::fromStdString(o.id);
    const Terminal* socket = document_.controller() ? document_.controller()->socket(o.socket) : nullptr;
    const QString label = u"Reverse %1 (%2)"_s.arg(name, id);
    all.append({label, u"output direction invert turn round"_s,
                [this, key = o.id] { document_.apply(reverse(document_.rig(), key)); },
                NamedAction::Does::changes_rig});
    all.append(
        {u"Where is the %1 plugged? %2"_s.arg(name, socket ? QString::fromStdString(socket->label) : u"nowhere yet"_s),
         u"socket output servo lead"_s + QLatin1Char(' ') + id, [this, id] { come_here(id); }});
    for (const Axis axis : all_axes)
      if (o.mix.of(axis) != 0) {
        const QString text =
            u"Flip the %1 weight of %2 (%3)"_s.arg(QString::fromLatin1(name_of(axis).data()), name, id);
        all.append({text, u"mix sign"_s,
                    [this, key = o.id, axis] { document_.apply(flip_weight(document_.rig(), key, axis)); },
                    NamedAction::Does::changes_rig});
      }
  }
  all.append({u"Print throw gauges, level wedge and balance marks"_s, u"paper tools scale ruler sheet pdf svg"_s,
              [this] { show_gauges(); }});
  all.append({u"Note a trim flight"_s, u"where surfaces sat level hand flown centre cruise throttle"_s, [this] {
                come_here();
                note_trim_flight();
              }});
  if (release_output(document_.rig()))
    all.append({u"Does the tow release let go?"_s, u"wire pin arm load pull glider"_s, [this] {
                  come_here();
                  measure_release();
                }});
  for (const Axis axis : all_axes)
    if (const auto made = reverse_axis(document_.rig(), axis); made && !settable(document_.controller()).reverse)
      all.append({QString::fromStdString(made->label), u"direction function turn round"_s,
                  [this, axis] {
                    come_here();
                    document_.apply(reverse_axis(document_.rig(), axis));
                  },
                  NamedAction::Does::changes_rig});
  return all;
}

}  // namespace rigging::app
