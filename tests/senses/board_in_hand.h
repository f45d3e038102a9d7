#pragma once

#include "bench_rig.h"
#include "places.h"
#include "procedure/procedure.h"
#include "senses/held.h"

namespace rigging {

inline MotionSample sample(double t_s, const Point& force, const Point& rate) {
  MotionSample s;
  s.t_s = t_s;
  s.force_m_s2 = force;
  s.rate_deg_s = rate;
  return s;
}

inline MotionSample with_field(MotionSample s, const Point& field) {
  s.field_ut = field;
  return s;
}

/// Some part of the card holds these words.
inline bool says(const Card& card, const std::string& words) {
  const auto has = [&](const std::string& text) { return text.find(words) != std::string::npos; };
  return has(card.todo) || has(card.remark) || has(card.says) || has(card.note) ||
         std::any_of(card.lines.begin(), card.lines.end(), [&](const Line& l) { return has(l.words); });
}

/// A procedure with the board in its hands: samples of how the model is held.
template <class P>
struct Held {
  Rig rig = *load_rig(in_source("/data/demo/hedgerow.rig.json"));
  Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  std::vector<CheckStatus> checks = check_statuses(rig, catalogue);
  std::optional<Reports> reports;
  P procedure;
  Eigen::Matrix3d sits = Eigen::Matrix3d::Identity();
  Hands hands{43};
  double t = 0;

  Scene scene() {
    reports.emplace(rig, catalogue);
    Scene s{rig, catalogue, catalogue.controller(rig.controller.kind), &*reports, checks, "", {}};
    s.bench.controller = true;
    return s;
  }
  Orders tell(const Event& event) {
    Orders orders = procedure.hear(event, scene());
    for (const Order& o : orders)
      if (const auto* change = std::get_if<ApplyEdit>(&o)) rig = change->edit.rig;
    return orders;
  }
  void press(const char* action) { tell(Pressed{action, 0, {}, {}}); }
  /// Turns, then holds still for so long.
  void hold(const Point& force_in_model, double seconds = 1.2) {
    for (int i = 0; i < 20; ++i, t += 0.01) tell(MotionHeard{{sample(t, hands.direction() * 9.8, {40, 60, 10})}});
    const Point force = sits.transpose() * force_in_model.normalized() * 9.80665;
    for (int i = 0; i < seconds * 100; ++i, t += 0.01)
      tell(MotionHeard{{sample(t, force + hands.vector(0.05), hands.vector(0.1))}});
    tell(Time{t});
  }
  void hold(Pose pose) { hold(reading_in(pose, Turn{})); }
};

}  // namespace rigging
