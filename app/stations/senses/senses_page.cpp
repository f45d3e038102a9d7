#include "stations/senses/senses_page.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QPushButton>
#include <QStackedWidget>
#include <cmath>

#include "airframe/edits.h"
#include "base/angle.h"
#include "base/file.h"
#include "base/number.h"
#include "bench/satellite_line.h"
#include "document/folders.h"
#include "drawing/aircraft_view.h"
#include "earth/gravity.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/numbers_dialog.h"
#include "stations/senses/gore_map.h"
#include "stations/senses/residual_rose.h"
#include "stations/senses/satellite_dialog.h"
#include "stations/senses/sky_plot.h"
#include "stations/senses/trace.h"

namespace rigging::app {
namespace {

constexpr int frame_ms = 60;
constexpr int words_ms = 250;  ///< new words lay the whole page out anew
constexpr double smoothing = 0.12;
constexpr std::size_t sectors = 24;
constexpr double trace_s = 20;  ///< that the trace goes back
constexpr int trace_frame_ms = 160;
constexpr std::size_t every = 4;  ///< of the readings that are drawn: more than pixels is nothing to see

/// Every side: its name, its procedure and what is asked of it.
struct SideEntry {
  SensesPage::Side side;
  const char *id, *procedure;
  QString label, hint;
};
std::vector<SideEntry> side_entries() {
  using P = SensesPage;
  return {{P::found, "side_found", "found", u"Found"_s, u"Which sensors the board finds, against the rig"_s},
          {P::still, "side_still", "gyro", u"Still"_s, u"The gyro: was it still when it was plugged in"_s},
          {P::rotation, "side_rotation", "rotation", u"Turn"_s, u"How the board sits, against what it was told"_s},
          {P::accelerometer, "side_accelerometer", "accelerometer", u"Gravity"_s,
           u"The accelerometer: zero, scale, axes"_s},
          {P::level, "side_level", "level", u"Level"_s, u"The attitude that it takes for level"_s},
          {P::compass, "side_compass", "compass", u"North"_s, u"The compass: magnets and iron on board"_s},
          {P::motor, "side_motor", "motor", u"Motor"_s, u"Shaking, and what the motor's current does to the compass"_s},
          {P::sky, "side_sky", "sky", u"Sky"_s, u"The satellite receiver: how good a home it makes"_s},
          {P::air, "side_air", "air", u"Air"_s, u"Barometer and airspeed"_s}};
}

/// Off by how much, round the sensor's own z axis.
std::vector<std::pair<double, double>> round_the_axis(const Calibration& c, const Readings& readings) {
  std::vector<std::pair<double, double>> lengths(sectors, {0, 0});
  std::vector<double> count(sectors, 0);
  for (std::size_t i = 0; i < readings.size(); ++i) {
    if (i < c.bad.size() && c.bad[i]) continue;
    const Point raw = readings.at(i), good = c.corrected(raw);
    const auto k = static_cast<std::size_t>((std::atan2(good.y(), good.x()) / (2 * pi) + 0.5) * sectors) % sectors;
    lengths[k].first += raw.norm() / c.radius - 1;
    lengths[k].second += good.norm() / c.radius - 1;
    count[k] += 1;
  }
  for (std::size_t k = 0; k < sectors; ++k)
    if (count[k] > 0) lengths[k] = {lengths[k].first / count[k], lengths[k].second / count[k]};
  return lengths;
}

}  // namespace

SensesPage::SensesPage(const PageContext& context) : StationPage(Station::senses, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 8);
  page->setSpacing(14);
  auto* left = new QVBoxLayout;
  left->setSpacing(4);
  left->addWidget(heading());
  view_ = new AircraftView(AircraftView::From::behind_above);
  view_->set_any_pose(true);
  view_->setObjectName(u"held_model"_s);
  map_ = new GoreMap;
  from_side_ = new AircraftView(AircraftView::From::side);
  from_side_->setObjectName(u"level_model"_s);
  from_side_->set_reach(0, 15, 0);
  from_side_->set_caption(u"How it flies level: the dashed one stands on the drawing's own line"_s);
  trace_ = new Trace;
  sky_plot_ = new SkyPlot;
  picture_ = new QStackedWidget;
  for (QWidget* w : {static_cast<QWidget*>(view_), static_cast<QWidget*>(map_), static_cast<QWidget*>(from_side_),
                     static_cast<QWidget*>(trace_), static_cast<QWidget*>(sky_plot_)})
    picture_->addWidget(w);
  rose_ = new ResidualRose;
  auto* pictures = new QHBoxLayout;
  pictures->addWidget(picture_, 1);
  pictures->addWidget(rose_);
  left->addLayout(pictures, 1);
  now_ = wrapping_words(9);
  now_->setObjectName(u"held_words"_s);
  now_->setProperty("soft", true);
  left->addWidget(now_);
  page->addLayout(left, 1);

  auto* frame = new QFrame;
  frame->setProperty("card", true);
  keep_width(frame, 340);
  auto* right = new QVBoxLayout(frame);
  right->setContentsMargins(12, 8, 12, 8);
  right->setSpacing(6);
  auto* rows = new QGridLayout;
  rows->setSpacing(2);
  for (int column = 0; column < 5; ++column) rows->setColumnStretch(column, 1);
  stack_ = new QStackedWidget;
  constexpr int in_a_row = 5;
  for (const SideEntry& e : side_entries()) {
    const Side side = e.side;
    sides_[side] = hinted_button(e.label, e.id, e.hint);
    sides_[side]->setCheckable(true);
    rows->addWidget(sides_[side], side / in_a_row, side % in_a_row);
    connect(sides_[side], &QPushButton::clicked, this, [this, side] { show_side(side); });
    cards_[side] = procedure_card(e.procedure, ProcedureCard::Form::column);
    stack_->addWidget(cards_[side]);
  }
  right->addLayout(rows);
  right->addWidget(stack_, 1);
  real_receiver_ = hinted_button(u"Real receiver…"_s, "real_satellites",
                                 u"Listen to a satellite receiver by itself, at a serial device"_s);
  connect(real_receiver_, &QPushButton::clicked, this, &SensesPage::listen_to_sky);
  right->addWidget(real_receiver_);
  wing_ = hinted_button(u"Wing and cruise…"_s, "wing_and_cruise", u"What level is worked out from"_s);
  connect(wing_, &QPushButton::clicked, this, &SensesPage::ask_wing_and_cruise);
  right->addWidget(wing_);
  log_ = hinted_button(u"From a log…"_s, "motor_log",
                       u"Readings of a flight: t_s, ax, ay, az, and mx, my, mz, current_a where there are any"_s);
  connect(log_, &QPushButton::clicked, this, &SensesPage::read_log);
  right->addWidget(log_);
  page->addWidget(frame);
  line_ = new SatelliteLine(this);
  connect(line_, &SatelliteLine::heard, this, [this](const std::string& bytes) {
    BoardReadings readings;
    readings.satellite_bytes = bytes;
    cards_[sky]->runner().tell(readings);
  });
  connect(line_, &SatelliteLine::changed, this, &SensesPage::follow);
  connect(line_, &SatelliteLine::problem, this, &SensesPage::said);
  connect(&bench_, &BenchLink::motion_heard, this, &SensesPage::hear);
  connect(&bench_, &BenchLink::state_changed, this, &SensesPage::follow);
  for (ProcedureCard* card : cards_)
    connect(&card->runner(), &ProcedureRunner::card_changed, this, &SensesPage::follow);
  show_side(rotation);
  refresh();
}

QWidget* SensesPage::first_focus() {
  QWidget* first = cards_[side_]->first_focus();
  return first ? first : sides_[side_];
}

void SensesPage::show_side(Side side) {
  side_ = side;
  for (std::size_t i = 0; i < sides_.size(); ++i) sides_[i]->setChecked(i == side);
  stack_->setCurrentIndex(side);
  QWidget* picture = view_;
  switch (side) {
    case compass: picture = map_; break;
    case level: picture = from_side_; break;
    case still:
    case motor:
    case air: picture = trace_; break;
    case sky: picture = sky_plot_; break;
    case found:
    case rotation:
    case accelerometer: break;
  }
  picture_->setCurrentWidget(picture);
  rose_->setVisible(side == accelerometer || side == compass);
  real_receiver_->setVisible(side == sky);
  wing_->setVisible(side == level);
  log_->setVisible(side == motor);
  follow();
}

void SensesPage::follow() {
  const auto& pose = cards_[side_]->runner().card().picture.pose_deg;
  view_->set_ghost(side_ == compass ? std::nullopt : pose);
  view_->set_caption(pose ? u"Dashed: how to hold it · full: how the board says it is held"_s
                          : u"How the board says it is held"_s);
  if (!bench_.controller_answers()) {
    view_->set_pose(0, 0, 0);
    recent_.clear();
    recent_slow_.clear();
    now_->setText(u"Nothing is heard from the board."_s);
  }
  if (side_ == sky && line_->is_open()) now_->setText(line_->state_words());
  show_pictures();
  if (side_ == compass) {
    const auto& p = procedure<CompassProcedure>(compass);
    map_->show_cells(p.seen(), p.now_in());
    if (p.found() && p.found()->radius > 0)
      rose_->show_lengths(round_the_axis(*p.found(), p.recording().readings), u"field, round the compass"_s);
    else
      rose_->show_lengths({}, u"not read yet"_s);
  } else if (side_ == accelerometer) {
    const auto& p = procedure<AccelerometerProcedure>(accelerometer);
    std::vector<std::pair<double, double>> lengths;
    if (p.found())
      for (const StillPose& s : p.poses())
        lengths.emplace_back(s.mean.norm() / p.found()->radius - 1,
                             p.found()->corrected(s.mean).norm() / p.found()->radius - 1);
    rose_->show_lengths(std::move(lengths), p.found() ? u"gravity, pose by pose"_s : u"not read yet"_s);
  }
}

/// Everything but the model that is held.
void SensesPage::show_pictures() {
  if (!isVisible()) return;
  if (side_ == level) {
    const auto& pose = cards_[level]->runner().card().picture.pose_deg;
    from_side_->set_ghost(std::array<double, 3>{0, 0, 0});
    from_side_->set_pose(0, pose ? (*pose)[1] : 0, 0);
  } else if (side_ == sky) {
    const auto& p = procedure<SkyProcedure>(sky);
    sky_plot_->show_fixes(p.fixes(), p.standing());
  } else if (side_ == still) {
    std::vector<Trace::Line> lines{{u"x"_s, {}}, {u"y"_s, {}}, {u"z"_s, {}}};
    for (std::size_t k = 0; k < recent_.size(); k += every)
      for (int axis = 0; axis < 3; ++axis)
        lines[static_cast<std::size_t>(axis)].points.emplace_back(recent_[k].t_s - recent_.back().t_s,
                                                                  recent_[k].rate_deg_s[axis]);
    trace_->show_lines(std::move(lines), 4, u"seconds"_s, u"Gyro as the board says it, °/s, in the board's axes"_s);
  } else if (side_ == motor) {
    if (const auto& v = procedure<MotorProcedure>(motor).vibration(); v && !v->hz.empty()) {
      Trace::Line line{u"shaking"_s, {}};
      for (std::size_t k = 0; k < v->hz.size(); ++k) line.points.emplace_back(v->hz[k], std::sqrt(v->density[k]));
      trace_->show_lines({std::move(line)}, 0.2, u"Hz"_s, u"Shaking by frequency, m/s² for each √Hz"_s);
      return;
    }
    Trace::Line line{u"shaking"_s, {}};
    for (std::size_t k = 0; k < recent_.size(); k += every)
      line.points.emplace_back(recent_[k].t_s - recent_.back().t_s, recent_[k].force_m_s2.norm() - standard_gravity);
    trace_->show_lines({std::move(line)}, 4, u"seconds"_s, u"Force less gravity, m/s²"_s);
  } else if (side_ == air) {
    std::vector<Trace::Line> lines{{u"height"_s, {}}};
    for (const SlowReading& s : recent_slow_)
      if (s.pressure_pa)
        lines[0].points.emplace_back(
            s.t_s - recent_slow_.back().t_s,
            pressure_height_m(*s.pressure_pa) - pressure_height_m(*recent_slow_.front().pressure_pa));
    Trace::Line pushed{u"tube"_s, {}};
    for (const SlowReading& s : recent_slow_)
      if (s.pitot_pa) pushed.points.emplace_back(s.t_s - recent_slow_.back().t_s, *s.pitot_pa / 100);
    const bool tube = !pushed.points.empty();
    if (tube) lines.push_back(std::move(pushed));
    trace_->show_lines(std::move(lines), 2, u"seconds"_s,
                       tube ? u"Height since twenty seconds ago, m, and pressure of the tube, hPa"_s
                            : u"Height since twenty seconds ago, m"_s);
  }
}

void SensesPage::ask_wing_and_cruise() {
  Rig rig = document_.rig();
  Airframe& a = rig.airframe;
  NumbersDialog dialog(
      u"Wing and cruise"_s,
      u"The floor that the board sits on is the line for both angles. Incidence: of the line from leading to "
      "trailing edge; a flat underside by itself lies some 2° less. Cruise speed: as flown, else it is "
      "estimated from the stall speed."_s,
      this);
  std::size_t section = 0;
  for (std::size_t i = 0; i < Names<WingSection>::list.size(); ++i)
    if (Names<WingSection>::list[i].first == a.section) section = i;
  dialog.add("wing_section", u"Section"_s, section,
             {u"not known"_s, u"symmetric, or a flat plate"_s, u"nearly symmetric"_s, u"flat underside"_s,
              u"hollow underside"_s, u"reflexed (tailless)"_s});
  dialog.add("incidence", a, &Airframe::incidence_deg);
  dialog.add("thrust_down", a, &Airframe::thrust_down_deg);
  dialog.add("cruise", a, &Airframe::cruise_m_s, u"estimated"_s);
  dialog.add("mass", a, &Airframe::mass_kg, u"not weighed"_s);
  dialog.ask(document_, [&] {
    a.section = Names<WingSection>::list[section].first;
    return measure_wing(rig, a);
  });
}

void SensesPage::read_log() {
  const QString file = QFileDialog::getOpenFileName(this, u"Readings of a flight"_s, remembered_folder(u"log"_s),
                                                    u"Comma-separated (*.csv);;All files (*)"_s);
  if (!file.isEmpty()) take_log(file);
}

void SensesPage::take_log(const QString& file) {
  const auto readings = [&]() -> Result<BoardReadings> {
    const auto text = read_file(file.toStdString());
    if (!text) return tl::make_unexpected(text.error());
    return parse_board_log(*text, QFileInfo(file).fileName().toStdString());
  }();
  if (!readings) {
    Q_EMIT said(QString::fromStdString(readings.error().text()));
    return;
  }
  ProcedureRunner& runner = cards_[motor]->runner();
  runner.tell(Pressed{"motor_begin", 0, {}, {}});
  runner.tell(*readings);
  if (procedure<MotorProcedure>(motor).running()) runner.tell(Pressed{"motor_enough", 0, {}, {}});
}

void SensesPage::listen_to_sky() {
  // Two receivers at once would be one that jumps: the bench is left for the one by itself.
  if (SatelliteDialog(*line_, this).exec() == QDialog::Accepted && line_->is_open()) bench_.stop();
  follow();
}

void SensesPage::hear(const BoardReadings& readings) {
  const std::vector<MotionSample>& samples = readings.samples;
  if (!isVisible() || samples.empty()) return;
  for (const MotionSample& s : samples) {
    smooth_ += smoothing * (s.force_m_s2 - smooth_);
    recent_.push_back(s);
  }
  for (const SlowReading& s : readings.slow) recent_slow_.push_back(s);
  while (!recent_.empty() && recent_.back().t_s - recent_.front().t_s > trace_s) recent_.pop_front();
  while (!recent_slow_.empty() && recent_slow_.back().t_s - recent_slow_.front().t_s > trace_s)
    recent_slow_.pop_front();
  const bool trace = picture_->currentWidget() == trace_;
  const double now_s = Clock::instance().now_s();
  if (1000 * (now_s - drawn_s_) < (trace ? trace_frame_ms : frame_ms)) return;
  drawn_s_ = now_s;
  show_pictures();
  const Point force = alignment_of(document_.rig().mounting("controller")) * smooth_;
  if (force.norm() < 1) return;
  const auto pose = pose_for(force);
  if (side_ == found || side_ == rotation || side_ == accelerometer) view_->set_pose(pose[0], pose[1], 0);
  if (1000 * (now_s - worded_s_) < words_ms) return;
  worded_s_ = now_s;
  const MotionSample& last = samples.back();
  const auto text = [](double v, int digits) { return QString::fromStdString(number_text(v, digits)); };
  QString words = u"Bank %1°, nose %2° · %3 m/s² · turning %4°/s"_s.arg(
      text(pose[0], 0), text(pose[1], 0), text(smooth_.norm(), 2), text(last.rate_deg_s.norm(), 1));
  if (last.field_ut) words += u" · field %1 µT"_s.arg(text(last.field_ut->norm(), 1));
  if (!(side_ == sky && line_->is_open())) now_->setText(words);
}

void SensesPage::go_to(const QString& subject) {
  // By a check's name, by a snag's subject, or by a word of the ask box.
  const std::pair<const char*, Side> words[] = {{"found", found},       {"gyro", still},
                                                {"wakes", still},       {"accelerometer", accelerometer},
                                                {"rotation", rotation}, {"controller", rotation},
                                                {"board", rotation},    {"level", level},
                                                {"motor", motor},       {"fix", sky},
                                                {"satellites", sky},    {"barometer", air},
                                                {"airspeed", air},      {"compass", compass}};
  for (const auto& [word, side] : words)
    if (subject.contains(QLatin1String(word))) {
      show_side(side);
      break;
    }
  first_focus()->setFocus(Qt::OtherFocusReason);
}

QList<NamedAction> SensesPage::named_actions() {
  return {
      {u"See what the board finds"_s, u"sensors inventory missing sick left over airspeed compass present"_s,
       [this] { come_here(u"found"_s); }},
      {u"Read the gyro at rest"_s, u"still moved power-up bias drift zero noise"_s, [this] { come_here(u"gyro"_s); }},
      {u"Set the level attitude"_s, u"nose up angle wedge climbs sinks self-level cruise"_s,
       [this] { come_here(u"level"_s); }},
      {u"Run the motor and look at shaking and compass"_s, u"vibration interference current spectrum foam"_s,
       [this] { come_here(u"motor"_s); }},
      {u"Listen to the satellite receiver"_s, u"gps fix satellites position home sky dilution"_s,
       [this] { come_here(u"fix"_s); }},
      {u"Listen to a real satellite receiver"_s, u"serial device adapter baud sentences"_s,
       [this] {
         come_here(u"fix"_s);
         listen_to_sky();
       }},
      {u"Look at barometer and airspeed"_s, u"pitot tube hose leak height noise zero"_s,
       [this] { come_here(u"airspeed"_s); }},
      {u"Find how the board sits"_s, u"rotation orientation turn arrow upside mounted tilt gyro"_s,
       [this] { come_here(u"rotation"_s); }},
      {u"Calibrate the accelerometer"_s, u"gravity six poses level zero"_s, [this] { come_here(u"accelerometer"_s); }},
      {u"Calibrate the compass"_s, u"north magnet hard soft iron heading"_s, [this] { come_here(u"compass"_s); }}};
}

void SensesPage::refresh() {
  for (AircraftView* v : {view_, from_side_}) v->set_panels(document_.review().reports.airframe().panels);
  follow();
}

}  // namespace rigging::app
