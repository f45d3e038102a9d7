#include "stations/surfaces/linkage_panel.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "base/units.h"
#include "look/html.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "look/units.h"
#include "stations/numbers_dialog.h"
#include "surfaces/air_loads.h"
#include "surfaces/edits.h"

namespace rigging::app {
namespace {

const Span& hole_range() { return member_of(&Linkage::arm_holes_m).span; }

/// "8, 11, 14" in millimetres, or inches.
std::string holes_text(const std::vector<double>& holes) {
  std::string text;
  for (const double h : holes)
    text +=
        (text.empty() ? "" : ", ") + number_text(Units::instance().length_out(h), Units::instance().metric() ? 2 : 4);
  return text;
}

std::optional<std::vector<double>> holes_of(const std::string& text) {
  std::vector<double> holes;
  for (const QString& part : QString::fromStdString(text).split(QLatin1Char(','), Qt::SkipEmptyParts)) {
    bool good = false;
    const double m = Units::instance().length_in(part.trimmed().toDouble(&good));
    // What is shown rounded at an end of the range may be typed again.
    const auto& [least, most] = hole_range();
    if (!good || m < 0.999 * least || m > 1.001 * most) return std::nullopt;
    holes.push_back(std::clamp(m, least, most));
  }
  return holes;
}

}  // namespace

LinkagePanel::LinkagePanel(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 4, 0);
  layout->setSpacing(6);
  facts_ = wrapping_words(9.5);
  facts_->setObjectName(u"linkage_facts"_s);
  layout->addWidget(facts_);
  auto* row = new QHBoxLayout;
  measures_ = new QPushButton(u"Measures…"_s);
  measures_->setObjectName(u"linkage_measures"_s);
  measures_->setToolTip(u"Lengths and angles as measured on the model"_s);
  holes_ = new QPushButton(u"Holes and wanted throw…"_s);
  holes_->setObjectName(u"linkage_holes"_s);
  holes_->setToolTip(u"Which holes arm and horn have, and how far the surface should go"_s);
  row->addWidget(measures_);
  row->addWidget(holes_, 1);
  layout->addLayout(row);
  ranked_title_ = wrapping_words(10);
  layout->addWidget(ranked_title_);
  ranked_ = new QVBoxLayout;
  ranked_->setSpacing(3);
  layout->addLayout(ranked_);
  loads_ = wrapping_words(9.5);
  loads_->setObjectName(u"linkage_loads"_s);
  layout->addWidget(loads_);
  effect_ = wrapping_words(9.5);
  layout->addWidget(effect_);
  layout->addStretch(1);
  connect(measures_, &QPushButton::clicked, this, &LinkagePanel::measures);
  connect(holes_, &QPushButton::clicked, this, &LinkagePanel::holes);
}

void LinkagePanel::show_surface(Surface surface) {
  surface_ = surface;
  refresh();
}

void LinkagePanel::measures() {
  Linkage l = linkage_of(document_.rig(), surface_);
  NumbersDialog dialog(u"Linkage of the %1"_s.arg(QString::fromStdString(surface_.label())),
                       u"With the servo at 1500 µs and the surface flush. Angles from square to the chord: arm "
                       "leaning toward the hinge and horn leaning away from the servo count positive."_s,
                       this);
  dialog.add("arm", l, &Linkage::arm_m, u"Arm, servo to hole"_s, 1);
  dialog.add("horn", l, &Linkage::horn_m, u"Horn, hinge to hole"_s, 1);
  dialog.add("rod", l, &Linkage::rod_m, u"Rod, hole to hole"_s, 1);
  dialog.add("travel", l, &Linkage::servo_travel_deg, u"Servo turns for 500 µs"_s);
  dialog.add("arm_deg", l, &Linkage::arm_deg, u"Arm leans"_s);
  dialog.add("horn_deg", l, &Linkage::horn_deg, u"Horn leans"_s);
  dialog.add("drop", l, &Linkage::drop_m, u"Servo further to the horn's side than the hinge"_s, 1);
  dialog.add("chord", l, &Linkage::chord_m, u"from the airframe"_s, u"Hinge to trailing edge where throws are read"_s,
             1);
  dialog.add("pitch", l, &Linkage::clevis_pitch_m, u"One turn of the clevis"_s, 2);
  dialog.add("play", l, &Linkage::play_m, u"not felt yet"_s, u"Play at the trailing edge"_s, 1);
  const bool rudder = surface_.kind == SurfaceKind::rudder;
  dialog.add("push_lifts",
             rudder ? u"Pushing the rod moves the trailing edge right (horn on the left)"_s
                    : u"Pushing the rod lifts the trailing edge (horn below)"_s,
             l.push_lifts);
  dialog.add("crossed", u"Arm and horn stand to opposite sides"_s, l.crossed);
  dialog.ask(document_, [&] { return measure_linkage(document_.rig(), l); });
}

void LinkagePanel::holes() {
  Linkage l = linkage_of(document_.rig(), surface_);
  const Units& u = Units::instance();
  std::string arm = holes_text(l.arm_holes_m), horn = holes_text(l.horn_holes_m);
  NumbersDialog dialog(
      u"Holes of the %1"_s.arg(QString::fromStdString(surface_.label())),
      u"Distances of the holes from the servo's axis and from the hinge, in %1, separated by commas."_s.arg(
          u.length_unit()),
      this);
  dialog.add("arm_holes", u"Holes of the arm"_s, arm, u.metric() ? u"8, 10.5, 13"_s : u"0.31, 0.41, 0.51"_s);
  dialog.add("horn_holes", u"Holes of the horn"_s, horn, u.metric() ? u"10, 13, 16"_s : u"0.39, 0.51, 0.63"_s);
  dialog.add("want_up", l, &Linkage::want_up_deg, u"as it comes"_s, u"Wanted travel up, all commands together"_s);
  dialog.add("want_down", l, &Linkage::want_down_deg, u"as it comes"_s, u"Wanted travel down"_s);
  dialog.ask(document_, [&]() -> Result<Edit> {
    const auto arms = holes_of(arm), horns = holes_of(horn);
    if (!arms || !horns)
      return failure(arms ? "the horn's holes" : "the arm's holes", "are not understood",
                     "distances from " + length_text(hole_range().least) + " to " + length_text(hole_range().most) +
                         (u.metric() ? ", such as 8, 10.5, 13" : ", such as 0.31, 0.41, 0.51"));
    l.arm_holes_m = *arms;
    l.horn_holes_m = *horns;
    return list_holes(document_.rig(), l);
  });
}

void LinkagePanel::rank(const std::vector<HoleChoice>& choices) {
  const Linkage l = linkage_of(document_.rig(), surface_);
  const Units& u = Units::instance();
  const auto n = [](double v, int places) { return QString::fromStdString(number_text(v, places)); };
  ranked_table_ = new QWidget;
  auto* grid = new QGridLayout(ranked_table_);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(12);
  grid->setVerticalSpacing(2);
  const auto cell = [&](int row, int column, const QString& text, bool soft) {
    auto* label = new QLabel(text);
    label->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    label->setFont(soft ? Style::instance().text(8.5) : Style::instance().figures(9.5));
    label->setProperty("soft", soft);
    grid->addWidget(label, row, column);
    return label;
  };
  int column = 0;
  for (const auto& [title, hint] :
       {std::pair{u"arm"_s, u"Servo to hole"_s},
        {u"horn"_s, u"Hinge to hole"_s},
        {u"travel"_s, u"Share of the pulse range that gives the wanted throw: the more, the finer and the stronger"_s},
        {u"step"_s, u"What one dead band of the servo moves the surface"_s},
        {u"force"_s, u"Hinge moment held per servo torque"_s}})
    cell(0, column++, title, true)->setToolTip(hint);
  grid->setColumnStretch(5, 1);
  int row = 0;
  for (const HoleChoice& c : choices) {
    if (++row > 4) break;
    const bool in_use = std::abs(c.arm_m - l.arm_m) < 1e-6 && std::abs(c.horn_m - l.horn_m) < 1e-6;
    cell(row, 0, u.length(c.arm_m), false);
    cell(row, 1, u.length(c.horn_m), false);
    if (c.reaches) {
      cell(row, 2, u"%1 %"_s.arg(n(c.travel_percent, 0)), false);
      cell(row, 3, u"%1°"_s.arg(n(c.step_deg, 2)), false);
      cell(row, 4, n(c.force, 2), false);
    } else {
      auto* remark = wrapping_words(8.5);
      remark->setText(QString::fromStdString(c.remark));
      grid->addWidget(remark, row, 2, 1, 3);
    }
    auto* use = new QPushButton(in_use ? u"in use"_s : u"Use these"_s);
    use->setObjectName(u"hole_%1"_s.arg(row));
    use->setAccessibleName(
        u"Arm %1, horn %2: %3 % of the travel"_s.arg(u.length(c.arm_m), u.length(c.horn_m), n(c.travel_percent, 0)));
    use->setProperty("flat", true);
    use->setFont(Style::instance().text(9));
    use->setEnabled(!in_use);
    use->setToolTip(c.remark.empty() ? u"The rod is cut so that the surface stays flush"_s
                                     : QString::fromStdString(c.remark));
    connect(use, &QPushButton::clicked, this,
            [this, c] { document_.apply(use_holes(document_.rig(), surface_, c.arm_m, c.horn_m)); });
    grid->addWidget(use, row, 6);
  }
  ranked_->addWidget(ranked_table_);
}

void LinkagePanel::refresh() {
  const Rig& rig = document_.rig();
  const Output* o = rig.output_of(surface_);
  // A key of the table may be what asked for this: it goes when its event is done.
  if (QWidget* before = std::exchange(ranked_table_, nullptr)) {
    ranked_->removeWidget(before);
    before->hide();
    before->deleteLater();
  }
  ranked_title_->clear();
  loads_->clear();
  effect_->clear();
  for (QPushButton* b : {measures_, holes_}) b->setEnabled(o != nullptr);
  if (!o) {
    facts_->setText(u"Choose a surface."_s);
    return;
  }
  const Linkage l = linkage_of(document_.rig(), surface_);
  const auto n = [](double v, int places) { return QString::fromStdString(number_text(v, places)); };
  const SurfaceAnswer* answer = document_.review().reports.surfaces().answer(surface_);
  const double dead_us = dead_band_us(rig, document_.catalogue(), surface_);
  if (!answer || !answer->travel) {
    if (answer) show_html(facts_, answer->linkage_error);
    return;
  }
  const Travel& travel = *answer->travel;
  const Units& u = Units::instance();
  Html facts = travel.measured ? Html() : Html(u"Not measured yet; as a usual linkage would do it: "_s);
  facts += html(u"<b>%1° up, %2° down</b> at the ends, %3 and %4 at the edge.",
                {n(travel.up_deg, 1), n(travel.down_deg, 1), u.length(travel.up_m), u.length(travel.down_m)});
  if (std::abs(travel.neutral_deg) > 0.05) facts += u" Stands %1° off at the centre."_s.arg(n(travel.neutral_deg, 1));
  facts += u" Up to down %1 : 1. One dead band of the servo (%2 µs) is %3°."_s.arg(
      n(travel.differential, 2), n(dead_us, 0), n(std::abs(travel.deg_per_us) * dead_us, 2));
  facts += u" Half the throw is half of the stabilizer's authority and half of its loop gain."_s;
  show_html(facts_, facts);

  const DeferredReview* deferred = document_.deferred();
  if (const LinkageReport* report = deferred ? deferred->linkage(surface_) : nullptr) {
    if (!report->holes.empty()) {
      show_html(ranked_title_, html(u"<b>Holes for %1°</b>, best first:", {n(report->want_deg, 1)}));
      rank(report->holes);
    } else {
      show_html(ranked_title_, report->holes_error);
    }
  } else if (!deferred && !l.arm_holes_m.empty() && !l.horn_holes_m.empty()) {
    ranked_title_->setText(u"Holes are being compared…"_s);
  }
  if (const ServoLoad* load =
          find_in(document_.review().reports.loads(), [&](const ServoLoad& x) { return x.surface == surface_; })) {
    const auto band = [&](const ServoLoad::At& at) {
      return u"%1 to %2 %3 at %4 %5"_s.arg(n(u.torque_out(at.torque_low_nm), 1), n(u.torque_out(at.torque_high_nm), 1),
                                           u.torque_unit(), n(u.speed_out(at.speed_m_s), 0), u.speed_unit());
    };
    show_html(loads_, html(u"<b>In the air</b>, at full throw, asked of the servo: %1, %2, %3; it has %4 %5. %6.",
                           {band(load->cruise), band(load->fast), band(load->dive),
                            n(u.torque_out(load->available_nm), 0), u.torque_unit(), capital(load->verdict)}));
  } else {
    loads_->setText(u"Servo loads need the flying mass (station airframe)."_s);
  }
  if (!document_.deferred()) return;
  for (const Effect& e : document_.deferred()->effects)
    if (e.surface == surface_) {
      QStringList parts;
      for (const Axis axis : all_axes)
        if (const double share = e.share[static_cast<std::size_t>(index_of(axis))]; share > 0.005)
          parts << u"%1 % of all %2"_s.arg(n(100 * share, 0), QString::fromLatin1(name_of(axis).data()));
      if (!parts.isEmpty())
        show_html(effect_, html(u"<b>Does</b> %1 that the surfaces can do.", {parts.join(u", "_s)}));
    }
}

}  // namespace rigging::app
