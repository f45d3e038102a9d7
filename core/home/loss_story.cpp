#include <algorithm>
#include <cmath>
#include <functional>
#include <utility>

#include "base/number.h"
#include "base/units.h"
#include "home/glide.h"
#include "home/home.h"
#include "home/triggers.h"

namespace rigging {
namespace {

std::string told(double v, int places = 0) { return number_text(v, places); }

/// Where it is while the story goes on.
class Story {
 public:
  Story(const HomePlace& place, double left_mah) : left_(left_mah) {
    at_.from_m = at_.to_m = place.distance_m;
    at_.from_height_m = at_.to_height_m = place.height_m;
  }

  /// What happens however far the story is then; `what` is called for how it goes on.
  void cut_at(double s, std::function<void(Story&)> what) { cut_s_ = s, cut_ = std::move(what); }
  double now_s() const { return at_.to_s; }
  double left_mah() const { return left_; }
  double distance_m() const { return at_.to_m; }
  double height_m() const { return at_.to_height_m; }
  bool over() const { return over_; }

  struct Next {
    StoryPart part;
    double seconds = 0, amps = 0;
    double to_m = 0, to_height_m = 0;
    std::string title, what;
    bool good = true;
  };
  /// One step more; cut short where the charge ends.
  void go(Next next) {
    if (over_) return;
    const double asks = next.seconds * next.amps * mah_per_as;
    bool empties = asks > left_ + 1e-6;  // a step may ask for just what is left
    double share = empties ? std::max(0.0, left_) / asks : 1;
    bool cuts = false;
    if (cut_ && at_.to_s + share * next.seconds > cut_s_) {
      share = next.seconds > 0 ? std::max(0.0, cut_s_ - at_.to_s) / next.seconds : 1;
      cuts = true, empties = false;
    }
    StoryStep s;
    s.part = next.part;
    s.from_s = at_.to_s, s.to_s = s.from_s + share * next.seconds;
    s.from_m = at_.to_m, s.to_m = s.from_m + share * (next.to_m - s.from_m);
    s.from_height_m = at_.to_height_m, s.to_height_m = s.from_height_m + share * (next.to_height_m - s.from_height_m);
    s.title = std::move(next.title), s.what = std::move(next.what), s.good = next.good;
    left_ -= share * asks;
    used_ += share * asks;
    s.used_mah = used_;
    at_ = s;
    steps.push_back(s);
    if (cuts) {
      const auto goes_on = std::exchange(cut_, nullptr);
      goes_on(*this);
      over_ = true;
      return;
    }
    if (!empties) return;
    over_ = true;
    StoryStep end = s;
    end.part = StoryPart::end, end.from_s = end.to_s, end.from_m = end.to_m, end.from_height_m = end.to_height_m;
    end.good = false;
    end.title = "Battery empty";
    end.what = field_text(end.to_m) + " from home, " + field_text(end.to_height_m) + " up: it comes down there.";
    steps.push_back(end);
  }
  void end(std::string title, std::string what, bool good) {
    if (over_) return;
    over_ = true;
    StoryStep s = at_;
    s.part = StoryPart::end, s.from_s = s.to_s, s.from_m = s.to_m, s.from_height_m = s.to_height_m;
    s.title = std::move(title), s.what = std::move(what), s.good = good;
    steps.push_back(s);
  }

  std::vector<StoryStep> steps;

 private:
  StoryStep at_;
  double left_, used_ = 0;
  bool over_ = false;
  double cut_s_ = 0;
  std::function<void(Story&)> cut_;
};

std::string landing_words(const Rig& rig) {
  const double throttle = rig.home.landing_throttle.value_or(0);
  return (throttle > 0 ? "With " + told(100 * throttle) + " % throttle" : std::string("Throttle closed")) +
         ", down in circles. It does not see people or fences: keep the field clear.";
}

std::string lost_words(const Rig& rig) {
  return rig.home.sounds_when_lost.value_or(false) ? " It sounds until it is found." : "";
}

void comes_down(Story& s, const Rig& rig, const HomeReport& r, const std::string& how) {
  const HomePerformance& p = r.performance;
  const double seconds = s.height_m() / p.sink_m_s;
  const SteadyWind& wind = r.expected.wind;
  const auto glides = [&](double track) {
    return field_text(glide_reach_m(p.glide_m_s, p.sink_m_s, s.height_m(), wind, track));
  };
  s.go({StoryPart::gliding, seconds, 0, s.distance_m(), 0, "Motor off, wings level",
        how + " It sinks at " + speed_text(p.sink_m_s) + " and is down after " + told(seconds) + " s, up to " +
            glides(wind.from_deg + 180) + " further on with the wind, " + glides(wind.from_deg) + " against it."});
  s.end("Down", "Nobody steers it: where it comes down is chance. Keep people out of that room." + lost_words(rig),
        true);
}

void comes_home(Story& s, const Rig& rig, const HomeReport& r, const HomePlace& place) {
  const HomePerformance& p = r.performance;
  HomeCase c = r.expected;
  const double rise = std::max(0.0, r.return_height_m - s.height_m());
  if (rig.home.climb_first && rise > 0)
    s.go({StoryPart::climbing, rise / p.climb_m_s.expected, p.climb_a.expected, s.distance_m(), r.return_height_m,
          "Climbs in circles", "To " + field_text(r.return_height_m) + " before it sets out."});
  if (s.over()) return;
  c.place = {place.distance_m, place.bearing_deg, s.height_m()};
  c.battery.left_mah = s.left_mah();
  const WayHome w = way_home(c);
  if (!w.track) {
    s.end("It can't come home", w.why, false);
    return;
  }
  const double climbing = std::min(w.climb_s, w.way_s);
  if (climbing > 0)
    s.go({StoryPart::climbing, climbing, p.climb_a.expected, s.distance_m() - climbing * w.track->ground_m_s,
          s.height_m() + climbing * p.climb_m_s.expected, "Turns home and climbs",
          "To " + field_text(r.return_height_m) + " on the way, heading " + told(w.track->heading_deg) + "°."});
  if (w.way_s > climbing)
    s.go({StoryPart::returning, w.way_s - climbing, p.cruise_a.expected, 0, s.height_m(), "Flies home",
          "Heading " + told(w.track->heading_deg) + "°, " + speed_text(w.track->ground_m_s) + " over the ground."});
  if (const double more = r.return_height_m - s.height_m(); more > 0.5)
    s.go({StoryPart::climbing, more / p.climb_m_s.expected, p.climb_a.expected, 0, r.return_height_m,
          "Climbs over home", "It is there before it is up at " + field_text(r.return_height_m) + "."});
  if (s.over()) return;
  const bool holds = r.circle_holds();
  const double lasts = std::max(0.0, s.left_mah() / (p.cruise_a.expected * mah_per_as));
  if (rig.home.on_arrival == OnArrival::land) {
    s.go({StoryPart::circling, std::min(30.0, lasts), p.cruise_a.expected, 0, s.height_m(), "Circles over home",
          "A radius of " + field_text(r.circle_radius_m) + (holds ? "." : ": too tight for this wind, it drifts out."),
          holds});
    s.go({StoryPart::landing, s.height_m() / p.sink_m_s, 0, 0, 0, "Lands by itself", landing_words(rig)});
    s.end("Down", "Within about " + field_text(r.circle_radius_m) + " of home." + lost_words(rig), true);
    return;
  }
  s.go({StoryPart::circling, lasts, p.cruise_a.expected, 0, s.height_m(), "Circles over home",
        "A radius of " + field_text(r.circle_radius_m) + (holds ? "" : ", too tight for this wind: it drifts out") +
            ". For " + told(lasts / 60, 1) +
            " min, until the pilot takes it back: with the link there it flies in the mode of the switch.",
        holds});
  s.end("Battery empty", "If nobody took it back it comes down near home after " + told(lasts / 60, 1) + " min.",
        holds);
}

/// The link stays away: what it does then, whatever it was about to.
void long_loss(Story& s, const Rig& rig, const HomeReport& r) {
  const TriggerChoice* t = trigger_choice(rig.home, HomeTrigger::long_loss);
  if (!t || !t->at) return;
  s.cut_at(*t->at, [&rig, &r, action = t->does, after = *t->at](Story& story) {
    const bool home = story.distance_m() < 1;
    const double seconds = story.height_m() / r.performance.sink_m_s;
    story.go({StoryPart::landing, seconds, 0, story.distance_m(), 0,
              action == TriggerAction::land ? "Lands by itself" : "Motor off, wings level",
              "The link has been away for " + told(after) + " s. " +
                  (action == TriggerAction::land ? landing_words(rig) : std::string("It comes down where it is.")),
              home});
    story.end("Down", (home ? "At home." : field_text(story.distance_m()) + " from home.") + lost_words(rig), home);
  });
}

void tow(Story& s, const Rig& rig) {
  if (!rig.release || !rig.home.opens_tow) return;
  s.go({StoryPart::holding, 0, 0, s.distance_m(), s.height_m(),
        *rig.home.opens_tow ? "Tow release opens" : "Tow release stays latched",
        *rig.home.opens_tow ? "If it hangs on a line it is free now." : "If it hangs on a line it stays on it."});
}

/// What the receiver makes of it; false when the story ends there.
bool noticed(Story& s, const Rig& rig, const ControllerClass& c, const HomeReport& r) {
  const OnLoss how = rig.radio.on_loss;
  const auto& notices = c.sticks.notices;
  const double lasts = s.left_mah() / (r.performance.cruise_a.expected * mah_per_as);
  if (how == OnLoss::hold) {
    s.go({StoryPart::unnoticed, lasts, r.performance.cruise_a.expected, s.distance_m(), s.height_m(), "Nobody notices",
          "The receiver repeats its last values: the sticks seem held as they were, the motor goes on, and it flies "
          "away "
          "until the battery is empty. Set the receiver so that it falls silent or says so (station sticks).",
          false});
    s.end("Gone", "A loss that stays hidden is the worst one.", false);
    return false;
  }
  if (how == OnLoss::unknown)
    s.go({StoryPart::flying, c.home.notices_after_s, r.performance.cruise_a.expected, s.distance_m(), s.height_m(),
          "Link lost",
          "What this receiver does then is not known: find it out at station sticks, propeller off. The rest of the "
          "story "
          "supposes that the controller notices.",
          false});
  else if (std::find(notices.begin(), notices.end(), how) != notices.end())
    s.go({StoryPart::flying, c.home.notices_after_s, r.performance.cruise_a.expected, s.distance_m(), s.height_m(),
          "Link lost",
          how == OnLoss::flag
              ? "The receiver says so in its frames, and the controller counts " + told(c.home.notices_after_s, 1) +
                    " s before it believes it."
              : "The frames stop. After " + told(c.home.notices_after_s, 1) + " s the controller knows."});
  else if (r.can_act) {
    s.go({StoryPart::unnoticed, c.home.notices_after_s, r.performance.cruise_a.expected, s.distance_m(), s.height_m(),
          "The controller does not notice",
          "It can't tell this from a hand on the sticks: nothing that is planned here is done. Set the receiver so "
          "that it "
          "falls silent or says so (station sticks).",
          false});
    if (how == OnLoss::preset)
      comes_down(s, rig, r, "What the receiver has stored: if that is throttle closed and a mode that levels.");
    else
      s.end("Left to itself", "Surfaces stay where they were.", false);
    return false;
  }
  return true;
}

}  // namespace

std::vector<StoryStep> loss_story(const Rig& rig, const Catalogue& catalogue, const HomeReport& r,
                                  const HomePlace& place, double left_mah) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || !r.missing.empty()) return {};
  Story s(place, left_mah);
  if (!noticed(s, rig, *c, r)) return s.steps;
  if (!r.can_act) {
    const bool stored = rig.radio.on_loss == OnLoss::preset;
    const bool levels = c->mode(Mode::level) != nullptr;
    if (stored)
      comes_down(
          s, rig, r,
          levels
              ? "The receiver's stored positions: throttle closed, a mode that levels, as far as they were stored so."
              : "The receiver's stored positions: throttle closed. This class does not level: a little stored "
                "rudder keeps it in a wide circle.");
    else
      s.end("Left to itself",
            c->name +
                " does nothing of its own when the link goes. Let the receiver give stored positions: throttle "
                "closed" +
                (levels ? " and the mode that levels." : "."),
            false);
    return s.steps;
  }
  const double cruise = r.performance.cruise_a.expected;
  if (rig.home.loss_hold_s > 0)
    s.go({StoryPart::holding, rig.home.loss_hold_s, cruise, s.distance_m(), s.height_m(), "Waits",
          "Wings level for " + told(rig.home.loss_hold_s, 1) + " s: a short gap passes by."});
  tow(s, rig);
  long_loss(s, rig, r);
  switch (rig.home.on_loss) {
    case LossAction::undecided:
      s.end("Nothing is decided", "The controller does what it came with. Choose what it shall do.", false);
      break;
    case LossAction::glide: comes_down(s, rig, r, "As planned."); break;
    case LossAction::circle: {
      if (!r.knows_place) {
        s.end("It can't", "Without a satellite receiver it does not know where it is: it can glide, no more.", false);
        break;
      }
      const double lasts = std::max(0.0, s.left_mah() / (cruise * mah_per_as));
      s.go({StoryPart::circling, lasts, cruise, s.distance_m(), s.height_m(), "Circles where it is",
            "Until the link is back or the battery is empty, for " + told(lasts / 60, 1) + " min."});
      s.end("Battery empty", "It comes down " + field_text(s.distance_m()) + " from home.", s.distance_m() < 100);
      break;
    }
    case LossAction::come_home:
      if (!r.knows_place)
        s.end("It can't",
              "Without a satellite receiver it does not know where home is; many boards then refuse to arm.", false);
      else
        comes_home(s, rig, r, place);
      break;
  }
  return s.steps;
}

}  // namespace rigging
