#include "stations/senses/senses_page.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <QStackedWidget>
#include <cmath>

#include "base/alignment.h"
#include "base/angle.h"
#include "base/number.h"
#include "drawing/aircraft_view.h"
#include "look/pieces.h"
#include "stations/senses/gore_map.h"
#include "stations/senses/residual_rose.h"

namespace rigging::app {
namespace {

constexpr int frame_ms = 40;
constexpr double smoothing = 0.12;
constexpr std::size_t sectors = 24;

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
  view_->setObjectName(QStringLiteral("held_model"));
  map_ = new GoreMap;
  picture_ = new QStackedWidget;
  picture_->addWidget(view_);
  picture_->addWidget(map_);
  rose_ = new ResidualRose;
  auto* pictures = new QHBoxLayout;
  pictures->addWidget(picture_, 1);
  pictures->addWidget(rose_);
  left->addLayout(pictures, 1);
  now_ = wrapping_words(9);
  now_->setObjectName(QStringLiteral("held_words"));
  now_->setProperty("soft", true);
  left->addWidget(now_);
  page->addLayout(left, 1);

  auto* frame = new QFrame;
  frame->setProperty("card", true);
  frame->setFixedWidth(290);
  auto* right = new QVBoxLayout(frame);
  right->setContentsMargins(12, 8, 12, 8);
  right->setSpacing(6);
  auto* row = new QHBoxLayout;
  row->setSpacing(2);
  stack_ = new QStackedWidget;
  const std::tuple<Side, QString, const char*, const char*, QString> all[] = {
      {rotation, tr("Turn"), "side_rotation", "rotation", tr("How the board sits, against what it was told")},
      {accelerometer, tr("Gravity"), "side_accelerometer", "accelerometer", tr("The accelerometer: zero, scale, axes")},
      {compass, tr("North"), "side_compass", "compass", tr("The compass: magnets and iron on board")}};
  for (const auto& [side, label, id, procedure_id, hint] : all) {
    sides_[side] = hinted_button(label, id, hint);
    sides_[side]->setCheckable(true);
    row->addWidget(sides_[side], 1);
    connect(sides_[side], &QPushButton::clicked, this, [this, side = side] { show_side(side); });
    cards_[side] = procedure_card(procedure_id, ProcedureCard::Form::column);
    stack_->addWidget(cards_[side]);
    connect(&cards_[side]->runner(), &ProcedureRunner::card_changed, this, &SensesPage::follow);
  }
  right->addLayout(row);
  right->addWidget(stack_, 1);
  page->addWidget(frame);
  connect(&bench_, &BenchLink::motion_heard, this, &SensesPage::hear);
  connect(&bench_, &BenchLink::state_changed, this, &SensesPage::follow);
  drawn_.start();
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
  picture_->setCurrentIndex(side == compass ? 1 : 0);
  rose_->setVisible(side != rotation);
  follow();
}

void SensesPage::follow() {
  const auto& pose = cards_[side_]->runner().card().picture.pose_deg;
  view_->set_ghost(side_ == compass ? std::nullopt : pose);
  view_->set_caption(pose ? tr("Dashed: how to hold it · full: how the board says it is held")
                          : tr("How the board says it is held"));
  if (!bench_.controller_answers()) {
    view_->set_pose(0, 0, 0);
    now_->setText(tr("Nothing is heard from the board."));
  }
  if (side_ == compass) {
    const auto& p = procedure<CompassProcedure>(compass);
    map_->show_cells(p.seen(), p.now_in());
    if (p.found() && p.found()->radius > 0)
      rose_->show_lengths(round_the_axis(*p.found(), p.recording().readings), tr("field, round the compass"));
    else
      rose_->show_lengths({}, tr("not read yet"));
  } else if (side_ == accelerometer) {
    const auto& p = procedure<AccelerometerProcedure>(accelerometer);
    std::vector<std::pair<double, double>> lengths;
    if (p.found())
      for (const StillPose& s : p.poses())
        lengths.emplace_back(s.mean.norm() / p.found()->radius - 1,
                             p.found()->corrected(s.mean).norm() / p.found()->radius - 1);
    rose_->show_lengths(std::move(lengths), p.found() ? tr("gravity, pose by pose") : tr("not read yet"));
  }
}

void SensesPage::hear(const std::vector<MotionSample>& samples) {
  if (!isVisible() || samples.empty()) return;
  for (const MotionSample& s : samples) smooth_ += smoothing * (s.force_m_s2 - smooth_);
  if (drawn_.elapsed() < frame_ms) return;
  drawn_.restart();
  const Place* place = document_.rig().place("controller");
  const Point force =
      place ? Point(alignment_matrix(place->turn, place->roll_deg, place->pitch_deg, place->yaw_deg) * smooth_)
            : smooth_;
  if (force.norm() < 1) return;
  const auto pose = pose_for(force);
  view_->set_pose(pose[0], pose[1], 0);
  const MotionSample& last = samples.back();
  const auto text = [](double v, int digits) { return QString::fromStdString(number_text(v, digits)); };
  QString words =
      tr("Bank %1°, nose %2° · %3 m/s² · turning %4°/s")
          .arg(text(pose[0], 0), text(pose[1], 0), text(smooth_.norm(), 2), text(last.rate_deg_s.norm(), 1));
  if (last.field_ut) words += tr(" · field %1 µT").arg(text(last.field_ut->norm(), 1));
  now_->setText(words);
}

void SensesPage::go_to(const QString& subject) {
  if (subject.contains(QLatin1String("compass")))
    show_side(compass);
  else if (subject.contains(QLatin1String("accelerometer")))
    show_side(accelerometer);
  else if (subject.contains(QLatin1String("rotation")) || subject == QLatin1String("controller"))
    show_side(rotation);
  first_focus()->setFocus(Qt::OtherFocusReason);
}

QList<Request> SensesPage::requests() {
  return {{tr("Find how the board sits"), tr("rotation orientation turn arrow upside mounted tilt gyro"),
           [this] { come_here(QStringLiteral("rotation")); }},
          {tr("Calibrate the accelerometer"), tr("gravity six poses level zero"),
           [this] { come_here(QStringLiteral("accelerometer")); }},
          {tr("Calibrate the compass"), tr("north magnet hard soft iron heading"),
           [this] { come_here(QStringLiteral("compass")); }}};
}

void SensesPage::refresh() {
  view_->set_panels(document_.review().airframe.panels);
  follow();
}

}  // namespace rigging::app
