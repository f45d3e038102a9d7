#include <algorithm>

#include "bench.h"
#include "direction/from_rig.h"

// What hands do to the model with a tool: clevis, arm, dials, keys, leads.
namespace rigging::twin {

Result<Linkage*> Bench::within_reach(const char* work, Surface surface) {
  const auto it = truth_.linkages.find(surface);
  if (it == truth_.linkages.end())
    return failure(work, "no linkage of the " + surface.label() + " is known", "a surface with a linkage");
  if (supply_.battery) return failure(work, "the battery is in: a servo could pinch a finger", "the battery out");
  return &it->second;
}

Result<void> Bench::clevis(Surface surface, double turns) {
  const auto at = within_reach("clevis", surface);
  if (!at) return tl::make_unexpected(at.error());
  Linkage l = **at;
  l.rod_m += turns * l.clevis_pitch_m;
  if (!FourBar::of(l))
    return failure("clevis", "the clevis comes off, or the rod can't be joined any more", "fewer turns");
  **at = l;
  return {};
}

Result<void> Bench::tooth(Surface surface, int teeth) {
  const auto at = within_reach("tooth", surface);
  if (!at) return tl::make_unexpected(at.error());
  Linkage l = **at;
  l.arm_deg += teeth * l.spline_tooth_deg;
  if (!FourBar::of(l)) return failure("tooth", "arm and horn can't be joined then", "fewer teeth");
  **at = l;
  return {};
}

Result<void> Bench::set_output(const std::string& id, bool reversed, double low_us, double centre_us, double high_us) {
  const Output* planned = rig_.output(id);
  const auto it = std::find_if(set_.outputs.begin(), set_.outputs.end(),
                               [&](const Output& o) { return planned && o.socket == planned->socket; });
  if (it == set_.outputs.end()) return failure("set_output", "there is no output " + id, "an output of the rig");
  if (controller_.link) return failure("set_output", "this controller is set over its link", "a configuration");
  if (!(low_us < centre_us && centre_us < high_us))
    return failure("set_output", "the ends do not enclose the centre", "low_us < centre_us < high_us");
  if (reversed != it->reversed && !controller_.steps_for(Remedy::reverse_output))
    return failure("set_output", "this class reverses no output", "the linkage moved");
  if (centre_us != it->centre_us && !controller_.way("centre_us"))
    return failure("set_output", "this class sets no centre", "arm and clevis");
  if ((low_us != it->low_us || high_us != it->high_us) && !controller_.way("low_us"))
    return failure("set_output", "this class sets no ends", "other holes");
  it->reversed = reversed;
  it->low_us = low_us;
  it->centre_us = centre_us;
  it->high_us = high_us;
  keep();
  return {};
}

Result<void> Bench::turn_gain(const AxisGain& gain) {
  if (controller_.link) return failure("turn_gain", "this controller is set over its link", "a configuration");
  if (controller_.feel.gain_by == GainBy::linkage)
    return failure("turn_gain", "this class has no gain to turn", "other holes in arm and horn");
  AxisGain& is = set_.feel.made_gain(gain.axis);
  if (gain.rate) is.rate = gain.rate;
  if (gain.level && controller_.feel.level_apart) is.level = gain.level;
  keep();
  return {};
}

Result<void> Bench::work(const hands::Work& asked) {
  const Remedy remedy = asked.remedy;
  const direction::Case c = direction::case_from_rig(rig_, controller_);
  const auto refuse = [&](const std::string& what) {
    return failure("work " + std::string(name_of(remedy)), what, "a place as in docs/twin.md");
  };
  const auto socket = [&](const std::string& id) -> std::string {
    const Output* o = rig_.output(id);
    return o ? o->socket : std::string();
  };
  const auto image_output = [&](const std::string& id) -> Output* {
    for (Output& o : set_.outputs)
      if (!id.empty() && o.socket == socket(id)) return &o;
    return nullptr;
  };
  const Axis* axis = asked.axes.size() == 1 ? &asked.axes[0] : nullptr;
  const std::string id = asked.outputs.size() == 1 ? asked.outputs[0] : "";
  if (direction::is_setting(remedy, controller_) && controller_.link)
    return refuse("this controller is set over its link");
  switch (remedy) {
    case Remedy::reverse_output:
    case Remedy::flip_mix: {
      if (!controller_.steps_for(remedy)) return refuse("this class can't");
      Output* o = image_output(id);
      if (!o || (remedy == Remedy::flip_mix && !axis)) return refuse("no such output or axis");
      if (remedy == Remedy::reverse_output)
        o->reversed = !o->reversed;
      else
        o->mix.of(*axis) *= -1;
      keep();
      return {};
    }
    case Remedy::reverse_function:
      if (!axis || !controller_.steps_for(remedy)) return refuse("no axis, or a class that reverses no function");
      direction::reverse_function(set_.outputs, *axis);
      keep();
      return {};
    case Remedy::flip_gyro:
      if (!axis) return refuse("no axis");
      set_.sensing.reversed(*axis) = !set_.sensing.reversed(*axis);
      keep();
      return {};
    case Remedy::turn_board:
      if (controller_.senses.can_be_turned)
        set_.sensing.board = TurnName(truth_.board), keep();
      else
        truth_.board = Turn{};
      return {};
    case Remedy::swap_leads: {
      const auto& ids = asked.outputs;
      if (ids.size() != 2 || !truth_.hangs_on.count(socket(ids[0])) || !truth_.hangs_on.count(socket(ids[1])))
        return refuse("no such outputs");
      std::swap(truth_.hangs_on[socket(ids[0])], truth_.hangs_on[socket(ids[1])]);
      return {};
    }
    case Remedy::check_output: {
      const std::string s = socket(id);
      if (s.empty()) return refuse("no such output");
      truth_.dead[s] = false;
      return {};
    }
    case Remedy::move_linkage: {
      const auto& surface = asked.surface;
      if (!surface || !truth_.servo_sign.count(*surface)) return refuse("no such surface");
      truth_.servo_sign[*surface] *= -1;
      return {};
    }
    case Remedy::reverse_transmitter:
      if (!axis) return refuse("no axis");
      // The direction belongs to the channel that the controller takes for this axis.
      {
        int number = index_of(*axis) == 2 ? 4 : index_of(*axis) + 1;
        for (const Channel& k : set_.radio.channels)
          if (name_of(k.function) == name_of(*axis)) number = k.number;
        radio_.turn_round(number);
      }
      return {};
    case Remedy::swap_transmitter: {
      if (asked.axes.size() != 2) return refuse("no such axes");
      radio_.exchange(*from_name<ChannelFunction>(name_of(asked.axes[0])),
                      *from_name<ChannelFunction>(name_of(asked.axes[1])));
      return {};
    }
  }
  return refuse("unknown work");
}

}  // namespace rigging::twin
