#include <algorithm>
#include <cmath>
#include <iostream>
#include <memory>

#include "base/fields.h"
#include "base/find.h"
#include "base/json.h"
#include "base/number.h"
#include "base/units.h"
#include "checks/checks.h"
#include "command.h"
#include "feel/feel.h"
#include "flight/control_effect.h"
#include "opened.h"
#include "rig/rig_file.h"
#include "surfaces/air_loads.h"
#include "surfaces/surface_checks.h"
#include "wiring/lead_checks.h"

namespace rigging::cli {
namespace {

Json at_json(const ServoLoad::At& a) {
  Json json{{"speed_m_s", a.speed_m_s},           {"hinge_low_nm", a.hinge_low_nm},
            {"hinge_high_nm", a.hinge_high_nm},   {"torque_low_nm", a.torque_low_nm},
            {"torque_high_nm", a.torque_high_nm}, {"share_high", a.share_high},
            {"amps_high", a.amps_high},           {"blown_back_deg", nullptr}};
  if (a.blown_back_deg) json["blown_back_deg"] = *a.blown_back_deg;
  return json;
}

struct LinkageOptions {
  std::string surface;
  double want_deg = 0;
  std::vector<double> pulses, degrees;
};

void linkage(const Opened& o, const LinkageOptions& options, Session& session) {
  std::vector<Linkage> chosen;
  if (options.surface.empty()) {
    chosen = o.rig.linkages;
    if (chosen.empty()) return session.refuse({"linkages", "this rig has no linkage", "a linkage for a surface"});
  } else {
    const auto surface = surface_from_name(options.surface);
    const Linkage* l = surface ? o.rig.linkage(*surface) : nullptr;
    if (!l)
      return session.refuse({"--surface", "\"" + options.surface + "\" has no linkage in this rig",
                             "a surface with a linkage, such as " +
                                 (o.rig.linkages.empty() ? "elevator" : o.rig.linkages.front().surface.name())});
    chosen = {*l};
  }
  Json json{{"linkages", Json::array()}};
  const AirframeReport airframe = analyze_airframe(o.rig);
  const SurfacesReport surfaces = analyze_surfaces(o.rig);
  const auto loads = analyze_loads(o.rig, o.catalogue, airframe, surfaces);
  for (const Linkage& l : chosen) {
    const Output* output = o.rig.output_of(l.surface);
    if (!output)
      return session.refuse(
          {"linkage of the " + l.surface.label(), "no output drives this surface", "an output for it"});
    const auto curve = trace(l, *output);
    if (!curve) return session.refuse(curve.error());
    const double chord = chord_of(o.rig, l.surface);
    Json line{{"surface", l.surface.name()},
              {"output", output->id},
              {"neutral_deg", curve->neutral_deg},
              {"up_deg", curve->most_up_deg},
              {"down_deg", curve->most_down_deg},
              {"up_m", throw_m(chord, curve->most_up_deg)},
              {"down_m", throw_m(chord, curve->most_down_deg)},
              {"chord_m", chord},
              {"differential", curve->differential},
              {"deg_per_us", curve->deg_per_us},
              {"problems", Json::array()},
              {"points", Json::array()},
              {"pulses", Json::array()},
              {"holes", Json::array()},
              {"load", nullptr}};
    for (const LinkageProblem& p : curve->problems)
      line["problems"].push_back({{"arm_deg", p.arm_deg}, {"what", p.words}});
    for (const double us : options.pulses) {
      const auto bar = FourBar::of(l);
      const auto pose = bar->pose(arm_at(l, us, rising_lifts(*output, l.surface)));
      if (!pose)
        return session.refuse({"--pulse " + number_text(us, 1), "there the rod can't join arm and horn",
                               "a pulse within the linkage's reach"});
      line["points"].push_back({{"pulse_us", us},
                                {"arm_deg", pose->arm_deg},
                                {"up_deg", pose->up_deg},
                                {"throw_m", throw_m(chord, pose->up_deg)},
                                {"ratio", pose->ratio}});
    }
    for (const double deg : options.degrees) {
      const auto pulse = pulse_for(l, deg, rising_lifts(*output, l.surface));
      if (!pulse) return session.refuse(pulse.error());
      line["pulses"].push_back({{"up_deg", deg}, {"pulse_us", *pulse}});
    }
    if (!session.json) {
      std::cout << l.surface.label() << ": " << number_text(curve->most_up_deg, 1) << "° up, "
                << number_text(curve->most_down_deg, 1) << "° down ("
                << length_text(throw_m(chord, curve->most_up_deg), 1) << " and "
                << length_text(throw_m(chord, curve->most_down_deg), 1) << "), up to down "
                << number_text(curve->differential, 2) << '\n';
      for (const LinkageProblem& p : curve->problems) std::cout << "  " << p.words << '\n';
      for (const Json& p : line["points"])
        std::cout << "  " << number_text(p["pulse_us"].get<double>(), 1)
                  << " µs: " << number_text(p["up_deg"].get<double>(), 2) << "°\n";
      for (const Json& p : line["pulses"])
        std::cout << "  " << number_text(p["up_deg"].get<double>(), 2)
                  << "°: " << number_text(p["pulse_us"].get<double>(), 1) << " µs\n";
    }
    if (options.want_deg != 0) {
      const auto choices = choose_holes(l, *output, options.want_deg, dead_band_us(o.rig, o.catalogue, l.surface));
      if (!choices) return session.refuse(choices.error());
      for (const HoleChoice& c : *choices) {
        line["holes"].push_back({{"arm_m", c.arm_m},
                                 {"horn_m", c.horn_m},
                                 {"up_deg", c.up_deg},
                                 {"down_deg", c.down_deg},
                                 {"reaches", c.reaches},
                                 {"travel_percent", c.travel_percent},
                                 {"step_deg", c.step_deg},
                                 {"force", c.force},
                                 {"remark", c.remark}});
        if (!session.json)
          std::cout << "  arm " << number_text(1000 * c.arm_m, 1) << ", horn " << number_text(1000 * c.horn_m, 1)
                    << ": " << (c.reaches ? number_text(c.travel_percent, 0) + " % of the travel" : c.remark) << '\n';
      }
    }
    if (const ServoLoad* load = find_in(loads, [&](const ServoLoad& x) { return x.surface == l.surface; })) {
      line["load"] = {
          {"servo", load->servo},        {"available_nm", load->available_nm}, {"cruise", at_json(load->cruise)},
          {"fast", at_json(load->fast)}, {"dive", at_json(load->dive)},        {"verdict", load->verdict}};
      if (!session.json) std::cout << "  in the air: " << load->verdict << '\n';
    }
    json["linkages"].push_back(line);
  }
  if (session.json) session.print(json);
}

struct MixOptions {
  std::vector<std::string> wishes;
  std::string into;
};

/// "flaperon_left:roll:20": this much at the surface for full command.
Result<Rig> with_wish(Rig rig, const std::string& wish) {
  const auto first = wish.find(':'), second = wish.find(':', first == std::string::npos ? first : first + 1);
  const char* expected = "SURFACE:COMMAND:DEGREES, such as flaperon_left:roll:20, with roll, pitch, yaw or flap";
  if (second == std::string::npos) return failure("--throw " + wish, "not understood", expected);
  const auto surface = surface_from_name(wish.substr(0, first));
  const auto command = from_name<MixCommand>(wish.substr(first + 1, second - first - 1));
  const auto degrees = number_of(wish.substr(second + 1));
  if (!surface || !command || !degrees) return failure("--throw " + wish, "not understood", expected);
  return with_throw(std::move(rig), *surface, *command, *degrees);
}

void mix(const Opened& given, const MixOptions& options, Session& session) {
  Opened o = given;
  for (const std::string& wish : options.wishes) {
    auto wished = with_wish(std::move(o.rig), wish);
    if (!wished) return session.refuse(wished.error());
    o.rig = std::move(*wished);
  }
  if (const auto ok = can_be_kept(o.rig); !ok) return session.refuse(ok.error());
  if (!options.into.empty())
    if (const auto ok = save_rig(o.rig, options.into); !ok) return session.refuse(ok.error());
  const SurfacesReport r = analyze_surfaces(o.rig);
  const ControlMargin room = control_margin(o.rig);
  const double centre = room.at(ControlMargin::steps / 2, ControlMargin::steps / 2),
               full = room.at(ControlMargin::steps, ControlMargin::steps);
  const double flaps_down = control_margin(o.rig, {.flap = 1}).at(ControlMargin::steps / 2, ControlMargin::steps / 2);
  Json json{
      {"words", r.mix},
      {"sharing", name_of(o.rig.saturation)},
      {"differential", differential_of(o.rig)},
      {"saturated_share", r.saturated_share},
      {"room_at_rest", centre},
      {"room_at_full_sticks", full},
      {"room_with_full_yaw", control_margin(o.rig, {.yaw = 1}).at(ControlMargin::steps / 2, ControlMargin::steps / 2)},
      {"room_with_full_flap", flaps_down},
      {"surfaces", Json::array()},
      {"effects", Json::array()}};
  for (const SurfaceAnswer& a : r.answers) {
    Json line{{"surface", a.surface.name()}, {"output", a.output},           {"in_degrees", a.in_degrees},
              {"worst_sum", a.worst_sum},    {"most_up_deg", a.most_up_deg}, {"most_down_deg", a.most_down_deg}};
    if (const Output* out = o.rig.output(a.output))
      line["weights"] = {
          {"roll", out->mix.roll}, {"pitch", out->mix.pitch}, {"yaw", out->mix.yaw}, {"flap", out->mix.flap}};
    for (const Axis axis : all_axes) {
      const auto i = static_cast<std::size_t>(index_of(axis));
      line[std::string(name_of(axis))] = {
          {"share", a.share[i]}, {"positive_deg", a.positive_deg[i]}, {"negative_deg", a.negative_deg[i]}};
    }
    json["surfaces"].push_back(line);
  }
  for (const Effect& e : effects_of(analyze_feel({o.rig, o.catalogue}).aeroplane, r)) {
    Json line{{"surface", e.surface.name()}, {"least", e.least}, {"most", e.most}};
    for (const Axis axis : all_axes) {
      const auto i = static_cast<std::size_t>(index_of(axis));
      line[std::string(name_of(axis))] = {
          {"m3_per_deg", e.m3_per_deg[i]}, {"at_cruise_nm", e.at_cruise_nm[i]}, {"share", e.share[i]}};
    }
    json["effects"].push_back(line);
  }
  if (session.json) return session.print(json);
  for (const std::string& w : r.mix) std::cout << w << '\n';
  const bool stops = o.rig.saturation == Saturation::each_stops;
  std::cout << (r.saturated_share > 0 ? number_text(100 * r.saturated_share, 0) + " % of the stick square " +
                                            (stops ? "saturates" : "is made smaller by sharing")
                                      : "no stick position saturates")
            << "; at full sticks " << number_text(100 * full, 0) << " % of a correction fits";
  if (std::any_of(o.rig.outputs.begin(), o.rig.outputs.end(), [](const Output& x) { return x.mix.flap != 0; }))
    std::cout << ", with full flap " << number_text(100 * flaps_down, 0) << " %";
  std::cout << '\n';
}

struct ThrowsOptions {
  std::string surface;
  std::vector<std::string> reads;
};

void throws(const Opened& o, const ThrowsOptions& options, Session& session) {
  Rig rig = o.rig;
  if (!options.reads.empty()) {
    const auto surface = surface_from_name(options.surface);
    Linkage* l = surface ? rig.linkage(*surface) : nullptr;
    if (!l)
      return session.refuse(
          {"--surface", "\"" + options.surface + "\" has no linkage in this rig", "the surface that was read"});
    l->readings.clear();
    for (const std::string& read : options.reads) {
      const std::string_view text = read;
      const auto colon = text.find(':');
      const bool mm = text.ends_with("mm");
      const auto us = number_of(text.substr(0, colon));
      const auto value = colon == text.npos ? std::nullopt
                                            : number_of(text.substr(colon + 1, text.size() - colon - 1 -
                                                                                   (mm                      ? 2
                                                                                    : text.ends_with("deg") ? 3
                                                                                                            : 0)));
      if (!us || !value || *us < 500 || *us > 2500)
        return session.refuse({"--read " + read, "not understood",
                               "PULSE:VALUE with VALUE in deg or mm, up positive, e.g. 1000:-18.5deg"});
      l->readings.push_back({*us, mm ? throw_deg(chord_of(rig, *surface), *value / 1000) : *value, {}});
      if (const auto ok = in_range(l->readings.back(), "--read " + read); !ok) return session.refuse(ok.error());
    }
  }
  Json json{{"surfaces", Json::array()}, {"checks", Json::array()}};
  for (const Linkage& l : rig.linkages) {
    if (!options.surface.empty() && l.surface.name() != options.surface) continue;
    const Output* output = rig.output_of(l.surface);
    if (!output || l.readings.size() < 3) {
      json["surfaces"].push_back(
          {{"surface", l.surface.name()}, {"readings", l.readings.size()}, {"centring", nullptr}});
      if (!session.json) std::cout << l.surface.label() << ": " << l.readings.size() << " readings, three are needed\n";
      continue;
    }
    const auto c = centre(l, *output, settable(o.catalogue.controller(rig.controller.kind)));
    if (!c) return session.refuse(c.error());
    json["surfaces"].push_back({{"surface", l.surface.name()},
                                {"readings", l.readings.size()},
                                {"centring",
                                 {{"neutral_deg", c->neutral_now_deg},
                                  {"teeth", c->teeth},
                                  {"clevis_turns", c->clevis_turns},
                                  {"reverse", c->reverse},
                                  {"low_us", c->low_us},
                                  {"centre_us", c->centre_us},
                                  {"high_us", c->high_us},
                                  {"up_deg", c->up_deg},
                                  {"down_deg", c->down_deg},
                                  {"settled", c->settled},
                                  {"limits", c->limits}}}});
    if (session.json) continue;
    std::cout << l.surface.label() << ": " << number_text(c->neutral_now_deg, 1) << "° off at its centre";
    if (c->teeth) std::cout << ", arm " << c->teeth << " teeth toward the hinge";
    if (c->clevis_turns != 0) std::cout << ", rod " << number_text(c->clevis_turns, 1) << " turns longer";
    if (c->reverse) std::cout << ", reverse " << output->id;
    std::cout << "; low " << number_text(c->low_us, 0) << ", centre " << number_text(c->centre_us, 0) << ", high "
              << number_text(c->high_us, 0) << " µs give " << number_text(c->up_deg, 1) << "° up, "
              << number_text(c->down_deg, 1) << "° down\n";
    for (const std::string& limit : c->limits) std::cout << "  " << limit << '\n';
  }
  for (const CheckStatus& c : check_statuses(rig, o.catalogue))
    if (c.family->by_station && c.id.family != lead_family)
      json["checks"].push_back(
          {{"check", c.id.text()}, {"holds", c.holds}, {"why_not", c.why_not}, {"state", name_of(c.state)}});
  if (session.json) session.print(json);
}

}  // namespace

void add_surface_commands(CLI::App& app, Session& session) {
  auto l = std::make_shared<LinkageOptions>();
  auto* linkage_command = add_rig_command(app, session, "linkage",
                                          "From pulse to degrees and millimetres, holes to choose, loads in the air",
                                          [&session, l](const Opened& o) { linkage(o, *l, session); });
  linkage_command->add_option("--surface", l->surface, "One surface; all with a linkage when absent");
  linkage_command->add_option("--pulse", l->pulses, "Where the surface stands at this pulse, µs; repeat for more")
      ->check(number_in(500.0, 2500.0));
  linkage_command->add_option("--degrees", l->degrees, "The pulse for this angle, up positive; repeat for more")
      ->check(number_in(-120.0, 120.0));
  linkage_command->add_option("--want", l->want_deg, "Rank the holes for this throw, degrees");
  auto m = std::make_shared<MixOptions>();
  auto* mix_command =
      add_rig_command(app, session, "mix", "The mix in degrees, what saturates, what answers what and how strongly",
                      [&session, m](const Opened& o) { mix(o, *m, session); });
  mix_command->add_option("--throw", m->wishes, "SURFACE:COMMAND:DEGREES for full command; repeat for more");
  mix_command->add_option("--into", m->into, "Rig file to write with these throws")->check(a_name());
  auto t = std::make_shared<ThrowsOptions>();
  auto* throws_command =
      add_rig_command(app, session, "throws", "From readings at the trailing edge to clevis, centre and ends",
                      [&session, t](const Opened& o) { throws(o, *t, session); });
  throws_command->add_option("--surface", t->surface, "One surface");
  throws_command->add_option("--read", t->reads,
                             "PULSE:VALUEdeg or PULSE:VALUEmm, up positive; in place of the rig's readings");
}

}  // namespace rigging::cli
