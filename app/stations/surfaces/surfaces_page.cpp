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
  view_ = new AircraftView(AircraftView::From::behind_above);
  view_->set_caption(tr("As planned, from behind and above · move the stick and see which surface answers"));
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
  left->addWidget(picture_, 1);

  auto* sticks = new QHBoxLayout;
  square_ = new StickSquare;
  sticks->addWidget(square_);
  auto* others = new QGridLayout;
  others->setVerticalSpacing(8);
  yaw_ = slider(tr("Yaw stick"), -100, 100, "yaw_slider");
  throttle_ = slider(tr("Throttle"), 0, 100, "throttle_slider");
  flap_ = slider(tr("Flap"), 0, 100, "flap_slider");
  int row = 0;
  for (const auto& [name, s] : {std::pair{tr("Yaw"), yaw_}, {tr("Throttle"), throttle_}, {tr("Flap"), flap_}}) {
    others->addWidget(new QLabel(name), row, 0);
    others->addWidget(s, row++, 1);
    connect(s, &QSlider::valueChanged, this, [this] {
      command_.yaw = yaw_->value() / 100.0;
      command_.throttle = throttle_->value() / 100.0;
      command_.flap = flap_->value() / 100.0;
      move_surfaces();
    });
  }
  auto* centre = new QPushButton(tr("Centre the sticks"));
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
  saturation_->setObjectName(QStringLiteral("saturation"));
  saturation_->setFont(Style::instance().text(9));
  others->addWidget(saturation_, row++, 0, 1, 2);
  others->setRowStretch(row, 1);
  sticks->addLayout(others, 1);
  left->addLayout(sticks);
  mix_words_ = wrapping_words(9);
  mix_words_->setObjectName(QStringLiteral("mix_words"));
  left->addWidget(mix_words_);
  auto* share_row = new QHBoxLayout;
  auto* differential_label = new QLabel(tr("Down less by"));
  differential_ = number_box(QStringLiteral("differential"), tr("Aileron differential"), 64);
  differential_->setToolTip(
      tr("How much less the down-going aileron moves than the up-going one: against yaw the wrong way"));
  differential_->setRange(0, 100);
  differential_->setDecimals(0);
  differential_->setSuffix(QStringLiteral(" %"));
  connect(differential_, &QDoubleSpinBox::valueChanged, this, [this](double percent) {
    if (!refreshing_) document_.apply(set_differential(document_.rig(), percent / 100));
  });
  share_row->addWidget(new QLabel(tr("Too much:")));
  sharing_ = new QComboBox;
  sharing_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  sharing_->setMinimumContentsLength(4);
  sharing_->setObjectName(QStringLiteral("sharing"));
  sharing_->setAccessibleName(tr("What happens when commands ask for too much"));
  for (const auto& [s, name] : {std::pair{Saturation::each_stops, tr("each output stops at its end")},
                                {Saturation::all_shrink, tr("all commands shrink alike")},
                                {Saturation::roll_first, tr("roll is kept")},
                                {Saturation::pitch_first, tr("pitch is kept")}})
    sharing_->addItem(name, static_cast<int>(s));
  connect(sharing_, &QComboBox::activated, this, [this] {
    const auto sharing = static_cast<Saturation>(sharing_->currentData().toInt());
    document_.apply(set_value(document_.rig(), "sharing", word(sharing)));
  });
  share_row->addWidget(sharing_, 1);
  share_row->addWidget(differential_label);
  share_row->addWidget(differential_);
  differential_->setProperty("label", QVariant::fromValue<QWidget*>(differential_label));
  left->addLayout(share_row);
  page->addLayout(left, 1);

  auto* right = new QVBoxLayout;
  auto* keys = new QHBoxLayout;
  keys->setSpacing(4);
  side_keys_ = new QButtonGroup(this);
  for (const auto& [side, name, id, hint] :
       {std::tuple{Side::mix, tr("Mix"), "side_mix", tr("How much of its travel each surface gives for a command")},
        {Side::linkage, tr("Linkage"), "side_linkage", tr("Arm, rod and horn of one surface; holes; loads in the air")},
        {Side::throws, tr("Throws"), "side_throws", tr("Read a surface with a gauge, centre it, set its ends")}}) {
    auto* key = new QPushButton(name);
    key->setObjectName(QLatin1String(id));
    key->setCheckable(true);
    key->setToolTip(hint);
    side_keys_->addButton(key, static_cast<int>(side));
    keys->addWidget(key);
  }
  side_keys_->button(0)->setChecked(true);
  connect(side_keys_, &QButtonGroup::idClicked, this, [this](int side) { show_side(static_cast<Side>(side)); });
  right->addLayout(keys);
  surface_row_ = new QWidget;
  auto* surface_row = new QHBoxLayout(surface_row_);
  surface_row->setContentsMargins(0, 0, 0, 0);
  surface_box_ = new QComboBox;
  surface_box_->setObjectName(QStringLiteral("surface_box"));
  surface_box_->setAccessibleName(tr("Surface"));
  surface_row->addWidget(surface_box_, 1);
  connect(surface_box_, &QComboBox::activated, this, [this] {
    if (const auto s = surface_from_word(surface_box_->currentData().toString().toStdString())) choose_surface(*s);
  });
  surface_row_->hide();
  right->addWidget(surface_row_);
  sides_ = new QStackedWidget;
  mix_ = new MixPanel(document_);
  connect(mix_, &MixPanel::trying, this, &SurfacesPage::show_deflections);
  connect(mix_, &MixPanel::given_up, this, &SurfacesPage::move_surfaces);
  sides_->addWidget(mix_);
  linkage_ = new LinkagePanel(document_);
  throws_ = procedure_card("throws", ProcedureCard::Form::column);
  auto* throws_side = new QWidget;
  auto* throws_layout = new QVBoxLayout(throws_side);
  throws_layout->setContentsMargins(0, 0, 4, 0);
  throws_layout->addWidget(throws_, 1);
  auto* gauges = hinted_button(tr("Print a throw gauge…"), "print_gauges",
                               tr("Paper gauges for each chord, a level wedge and balance marks, true to scale"));
  connect(gauges, &QPushButton::clicked, this, &SurfacesPage::show_gauges);
  auto* flown = hinted_button(tr("Trim flight…"), "trim_flight",
                              tr("Where each surface sat in straight and level flight, flown by hand"));
  connect(flown, &QPushButton::clicked, this, &SurfacesPage::note_trim_flight);
  release_ = hinted_button(tr("Tow release…"), "tow_release", tr("Arm, pin and pull: does it let go under load?"));
  connect(release_, &QPushButton::clicked, this, &SurfacesPage::measure_release);
  auto* tools = new QHBoxLayout;
  for (QPushButton* b : {gauges, flown, release_}) tools->addWidget(b);
  throws_layout->addLayout(tools);
  auto_trim_ = new QCheckBox(tr("Automatic trim is on"));
  auto_trim_->setObjectName(QStringLiteral("auto_trim"));
  auto_trim_->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Fixed);
  connect(auto_trim_, &QCheckBox::clicked, this,
          [this](bool on) { document_.apply(set_value(document_.rig(), "controller/auto_trim", on)); });
  throws_layout->addWidget(auto_trim_);
  trim_words_ = wrapping_words(9);
  trim_words_->setObjectName(QStringLiteral("trim_words"));
  trim_words_->setProperty("soft", true);
  throws_layout->addWidget(trim_words_);
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
    const auto read = surface_from_word(throws_->runner().card().subject);
    if (read && *read != surface_ && document_.rig().output_of(*read)) {
      surface_ = *read;
      preview_.reset();
      surface_box_->setCurrentIndex(surface_box_->findData(QString::fromStdString(read->word())));
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
                       : held.flap == 0 ? tr("With yaw held: ")
                       : held.yaw == 0  ? tr("With flap: ")
                                        : tr("With yaw and flap: ");
  saturation_->setText(
      with +
      (share <= 0 ? tr("Nowhere on the stick square does a surface reach its end: holds.")
       : rig.sharing == Saturation::each_stops
           ? tr("On %1 % of the stick square a surface reaches its end (hatched).").arg(share * 100, 0, 'f', 0)
           : tr("On %1 % of the stick square commands are made smaller (hatched).").arg(share * 100, 0, 'f', 0)) +
      (tight_share > share + 0.005
           ? tr(" With half a full correction on top it would on %1 % (dotted).").arg(tight_share * 100, 0, 'f', 0)
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
  surface_box_->setCurrentIndex(surface_box_->findData(QString::fromStdString(surface.word())));
  linkage_->show_surface(surface);
  throws_->runner().choose(QString::fromStdString(surface.word()));
  draw_linkage();
}

void SurfacesPage::draw_linkage() {
  const Output* o = document_.rig().output_of(surface_);
  if (!o || surface_.kind == SurfaceKind::motor) return sketch_->clear(tr("Choose a surface."));
  const double pulse = throws_->runner().card().picture.pulse_us.value_or(
      mixed(*o, shared(document_.rig().outputs, command_, document_.rig().sharing)).pulse_us);
  const double chord = chord_of(document_.rig(), surface_);
  const Estimate* read = as_read();
  const Linkage* known = document_.rig().linkage(surface_);
  if (preview_ || !read)
    return sketch_->set_linkage(preview_.value_or(linkage_of(document_.rig(), surface_)), *o, chord, pulse,
                                !known ? tr("a usual linkage")
                                : known->readings.size() >= 3 && !document_.deferred()
                                    ? tr("as measured; its readings are being worked out…")
                                    : tr("as measured"));
  // Readings know better than the lengths, and which way the servo turns.
  Output turned = *o;
  if (read->sense != rising_lifts(*o, surface_)) turned.reversed = !turned.reversed;
  sketch_->set_linkage(read->linkage, turned, chord, pulse, tr("as the readings say"));
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
      if (s.kind != SurfaceKind::motor) surfaces << QString::fromStdString(s.word());
  QStringList shown;
  for (int i = 0; i < surface_box_->count(); ++i) shown << surface_box_->itemData(i).toString();
  if (shown != surfaces) {
    surface_box_->clear();
    for (const QString& w : surfaces)
      surface_box_->addItem(QString::fromStdString(capital(surface_from_word(w.toStdString())->spoken())), w);
    if (!surfaces.contains(QString::fromStdString(surface_.word())) && !surfaces.isEmpty())
      surface_ = *surface_from_word(surfaces.front().toStdString());
    surface_box_->setCurrentIndex(surface_box_->findData(QString::fromStdString(surface_.word())));
    linkage_->show_surface(surface_);
    throws_->runner().choose(QString::fromStdString(surface_.word()));
  }
  linkage_->refresh();
  differential_->setValue(100 * differential_of(rig));
  const bool pair = std::any_of(rig.outputs.begin(), rig.outputs.end(), [](const Output& o) {
    return o.surfaces.size() == 1 && o.mix.roll != 0 && o.surfaces[0].side != rigging::Side::single &&
           o.surfaces[0].kind != SurfaceKind::motor;
  });
  differential_->setVisible(pair);
  differential_->property("label").value<QWidget*>()->setVisible(pair);
  sharing_->setCurrentIndex(sharing_->findData(static_cast<int>(rig.sharing)));
  sharing_->setToolTip(sharing_->currentText());
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
  if (const auto surface = surface_from_word(subject.toStdString())) show_surface(*surface);
}

void SurfacesPage::note_trim_flight() {
  const Rig& rig = document_.rig();
  TrimFlight flight;
  flight.cruise_throttle = rig.power.cruise_throttle;
  for (const Linkage& l : rig.linkages) flight.sat_deg[l.surface] = l.want_neutral_deg.value_or(0);
  Power throttle = rig.power;
  NumbersDialog dialog(
      tr("Trim flight"),
      tr("Flown by hand, without the stabilizer, trimmed until it flies straight and level at cruise. "
         "Where each surface sat then is wanted at its centre; trims go back to the middle afterwards."),
      this);
  dialog.add("cruise_throttle", throttle, &Power::cruise_throttle, tr("not noted"), tr("Throttle at cruise"));
  const Span span = member_of(&Linkage::want_neutral_deg).span;
  for (auto& [surface, deg] : flight.sat_deg)
    dialog.add(("sat_" + surface.word()).c_str(),
               {tr("%1 sat, trailing edge %2 positive")
                    .arg(QString::fromStdString(capital(surface.spoken())),
                         surface.kind == SurfaceKind::rudder ? tr("right") : tr("up")),
                QStringLiteral("°"), span.least, span.most, 1, 1},
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
      tr("Closed throttle is latched, full throttle released. As it stands the wire moves %1; the pin needs %2")
          .arg(units.figure(now.travel), units.figure({"", r.pin_m, "m", {}, {}, "", ""}));
  if (now.force.value > 0) words += tr("; the servo pulls at least %1 N").arg(now.force.value, 0, 'f', 0);
  if (now.needed.value > 0) words += tr(", and drawing the pin under load asks %1 N").arg(now.needed.value, 0, 'f', 0);
  NumbersDialog dialog(tr("Tow release"), words + tr(". Hold and release under load is a check of its own."), this);
  dialog.add("release_arm", r, &Release::arm_m, {}, 1);
  dialog.add("release_pin", r, &Release::pin_m, {}, 1);
  dialog.add("release_travel", r, &Release::servo_travel_deg);
  dialog.add("release_square", r, &Release::arm_deg);
  dialog.add("release_pull", r, &Release::pull_n, tr("not known"));
  dialog.add("release_friction", r, &Release::friction);
  dialog.ask(document_, [&] { return rigging::measure_release(document_.rig(), r); });
}

void SurfacesPage::show_gauges() { Q_EMIT sheets_asked(tr("Paper tools, true to scale"), gauge_sheets(document_)); }

QList<Request> SurfacesPage::requests() {
  QList<Request> all;
  for (const Output& o : document_.rig().outputs) {
    QString name = o.passthrough_channel > 0 ? tr("channel %1").arg(o.passthrough_channel)
                   : o.surfaces.empty()      ? tr("motor")
                                             : QString();
    for (const Surface s : o.surfaces)
      name += (name.isEmpty() ? QString() : QStringLiteral(" and ")) + QString::fromStdString(s.spoken());
    const QString id = QString::fromStdString(o.id);
    const Terminal* socket = document_.controller() ? document_.controller()->socket(o.socket) : nullptr;
    const QString label = tr("Reverse %1 (%2)").arg(name, id);
    all.append({label, tr("output direction invert turn round"),
                [this, key = o.id] { document_.apply(reverse(document_.rig(), key)); }});
    all.append({tr("Where is the %1 plugged? %2")
                    .arg(name, socket ? QString::fromStdString(socket->label) : tr("nowhere yet")),
                tr("socket output servo lead") + QLatin1Char(' ') + id, [this, id] { come_here(id); }});
    for (const Axis axis : all_axes)
      if (o.mix.of(axis) != 0) {
        const QString text = tr("Flip the %1 weight of %2 (%3)").arg(QString::fromLatin1(word(axis).data()), name, id);
        all.append({text, tr("mix sign"),
                    [this, key = o.id, axis] { document_.apply(flip_weight(document_.rig(), key, axis)); }});
      }
  }
  all.append({tr("Print throw gauges, level wedge and balance marks"), tr("paper tools scale ruler sheet pdf svg"),
              [this] { show_gauges(); }});
  all.append({tr("Note a trim flight"), tr("where surfaces sat level hand flown centre cruise throttle"), [this] {
                come_here();
                note_trim_flight();
              }});
  if (release_output(document_.rig()))
    all.append({tr("Does the tow release let go?"), tr("wire pin arm load pull glider"), [this] {
                  come_here();
                  measure_release();
                }});
  for (const Axis axis : all_axes)
    if (const auto made = reverse_axis(document_.rig(), axis); made && !settable(document_.controller()).reverse)
      all.append({QString::fromStdString(made->label), tr("direction function turn round"), [this, axis] {
                    come_here();
                    document_.apply(reverse_axis(document_.rig(), axis));
                  }});
  return all;
}

}  // namespace rigging::app
