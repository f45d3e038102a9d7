#include "base/fields.h"
#include "catalogue/catalogue.h"

/// What is known of every member of a class and of a part: names in files, ranges.
namespace rigging {
namespace {

constexpr Span amps{0, 500}, volts{0, 100}, cell_v{1, 5}, size_mm{0.5, 2000};

}  // namespace

template <>
const Members& Described<Terminal>::members() {
  static const Members all = Describe<Terminal>()
                                 .needed("id", &Terminal::id)
                                 .needed("label", &Terminal::label)
                                 .needed("kind", &Terminal::kind)
                                 .member("also", &Terminal::also)
                                 .member("net", &Terminal::net)
                                 .member("timer_group", &Terminal::timer_group, {1, 32})
                                 .member("emulated", &Terminal::emulated)
                                 .member("most_baud", &Terminal::most_baud, {1200, 1e7})
                                 .member("serves", &Terminal::serves)
                                 .member("side", &Terminal::side)
                                 .member("plug", &Terminal::plug)
                                 .member("x_mm", &Terminal::x_mm, {0, 500})
                                 .member("y_mm", &Terminal::y_mm, {0, 500})
                                 .rest(&Terminal::unknown_members);
  return all;
}

template <>
const Members& Described<Feed>::members() {
  static const Members all = Describe<Feed>()
                                 .needed("from", &Feed::from)
                                 .needed("to", &Feed::to)
                                 .needed("kind", &Feed::kind)
                                 .member("volts", &Feed::volts, {0, 60})
                                 .member("amps", &Feed::amps, {0, 500})
                                 .member("least_in_v", &Feed::least_in_v, {0, 100})
                                 .member("most_in_v", &Feed::most_in_v, {0, 100})
                                 .member("k_per_w", &Feed::k_per_w, {0, 500})
                                 .member("most_junction_c", &Feed::most_junction_c, {40, 250})
                                 .rest(&Feed::unknown_members);
  return all;
}

template <>
const Members& Described<Load>::members() {
  static const Members all = Describe<Load>()
                                 .needed("net", &Load::net)
                                 .needed("idle_a", &Load::idle_a, amps)
                                 .needed("typical_a", &Load::typical_a, amps)
                                 .needed("most_a", &Load::most_a, amps)
                                 .needed("least_v", &Load::least_v, volts)
                                 .needed("most_v", &Load::most_v, volts)
                                 .rest(&Load::unknown_members);
  return all;
}

template <>
const Members& Described<RemedySteps>::members() {
  static const Members all = Describe<RemedySteps>()
                                 .needed("remedy", &RemedySteps::remedy)
                                 .member("over_link", &RemedySteps::over_link)
                                 .member("steps", &RemedySteps::steps)
                                 .rest(&RemedySteps::unknown_members);
  return all;
}

template <>
const Members& Described<SettingWay>::members() {
  static const Members all = Describe<SettingWay>()
                                 .needed("what", &SettingWay::what)
                                 .needed("by", &SettingWay::by)
                                 .member("steps", &SettingWay::steps)
                                 .member("restart", &SettingWay::restart)
                                 .rest(&SettingWay::unknown_members);
  return all;
}

template <>
const Members& Described<ModeAnswer>::members() {
  static const Members all = Describe<ModeAnswer>()
                                 .needed("mode", &ModeAnswer::mode)
                                 .needed("answer", &ModeAnswer::answer)
                                 .member("from_deg", &ModeAnswer::from_deg, {0, 90})
                                 .member("motor_unlocked", &ModeAnswer::motor_unlocked)
                                 .member("note", &ModeAnswer::note)
                                 .rest(&ModeAnswer::unknown_members);
  return all;
}

template <>
const Members& Described<Lamp>::members() {
  static const Members all = Describe<Lamp>()
                                 .needed("sign", &Lamp::sign)
                                 .needed("meaning", &Lamp::meaning)
                                 .member("tells", &Lamp::tells)
                                 .rest(&Lamp::unknown_members);
  return all;
}

template <>
const Members& Described<SticksAbilities>::members() {
  static const Members all =
      Describe<SticksAbilities>()
          .member("reads_channels", &SticksAbilities::reads_channels)
          .member("reads_full", &SticksAbilities::reads_full, {0, 10000})
          .member("learns_ends", &SticksAbilities::learns_ends)
          .member("travel_percent", &SticksAbilities::travel_percent, {50, 200})
          .member("pitch_back_falls", &SticksAbilities::pitch_back_falls)
          .member("throttle_opens_falls", &SticksAbilities::throttle_opens_falls)
          .member("gesture_needs_full_ends", &SticksAbilities::gesture_needs_full_ends)
          .member("stick_direction_in_transmitter", &SticksAbilities::stick_direction_in_transmitter)
          .member("notices", &SticksAbilities::notices)
          .member("arming", &SticksAbilities::arming)
          .member("arms_by", &SticksAbilities::arms_by)
          .member("safety_button", &SticksAbilities::safety_button)
          .member("mode_channel", &SticksAbilities::mode_channel, {0, 32})
          .member("unlock_channel", &SticksAbilities::unlock_channel, {0, 32})
          .rest(&SticksAbilities::unknown_members);
  return all;
}

template <>
const Members& Described<SurfacesAbilities>::members() {
  static const Members all = Describe<SurfacesAbilities>()
                                 .member("drives_one_output", &SurfacesAbilities::drives_one_output)
                                 .member("motor", &SurfacesAbilities::motor)
                                 .member("drives", &SurfacesAbilities::drives)
                                 .member("others_by_profile", &SurfacesAbilities::others_by_profile)
                                 .member("y_lead_in_either", &SurfacesAbilities::y_lead_in_either)
                                 .member("trim", &SurfacesAbilities::trim)
                                 .member("trims_in", &SurfacesAbilities::trims_in)
                                 .member("trim_every_s", &SurfacesAbilities::trim_every_s, {0, 3600})
                                 .member("routes_channels", &SurfacesAbilities::routes_channels)
                                 .member("tail_mix_of_roll", &SurfacesAbilities::tail_mix_of_roll)
                                 .rest(&SurfacesAbilities::unknown_members);
  return all;
}

template <>
const Members& Described<SensesAbilities>::members() {
  static const Members all = Describe<SensesAbilities>()
                                 .member("axis_sensing_reversible", &SensesAbilities::axis_sensing_reversible)
                                 .member("can_be_turned", &SensesAbilities::can_be_turned)
                                 .member("either_face", &SensesAbilities::either_face)
                                 .member("half_turn_by_switches", &SensesAbilities::half_turn_by_switches)
                                 .member("has_compass", &SensesAbilities::has_compass)
                                 .member("has_barometer", &SensesAbilities::has_barometer)
                                 .member("shows_motion", &SensesAbilities::shows_motion)
                                 .member("isolated", &SensesAbilities::isolated)
                                 .member("spare", &SensesAbilities::spare)
                                 .member("heated", &SensesAbilities::heated)
                                 .member("power_up", &SensesAbilities::power_up)
                                 .member("level", &SensesAbilities::level)
                                 .member("stores_level", &SensesAbilities::stores_level)
                                 .rest(&SensesAbilities::unknown_members);
  return all;
}

template <>
const Members& Described<FeelAbilities>::members() {
  static const Members all = Describe<FeelAbilities>()
                                 .member("gains", &FeelAbilities::gains)
                                 .member("dials", &FeelAbilities::dials)
                                 .member("gain_is_travel", &FeelAbilities::gain_is_travel)
                                 .member("gain_by", &FeelAbilities::gain_by)
                                 .member("least", &FeelAbilities::least, {-1000, 1000})
                                 .member("most", &FeelAbilities::most, {-1000, 1000})
                                 .member("half_share", &FeelAbilities::half_share, {0.02, 0.98})
                                 .member("full_at_deg_s", &FeelAbilities::full_at_deg_s, {5, 2000})
                                 .member("full_at_deg", &FeelAbilities::full_at_deg, {5, 180})
                                 .member("gentle_share", &FeelAbilities::gentle_share, {0.02, 1})
                                 .member("authority", &FeelAbilities::authority, {0.05, 1})
                                 .member("cycles_hz", &FeelAbilities::cycles_hz, {20, 20000})
                                 .member("filter_hz", &FeelAbilities::filter_hz, {2, 2000})
                                 .member("level_apart", &FeelAbilities::level_apart)
                                 .member("limits", &FeelAbilities::limits)
                                 .member("sets_stick", &FeelAbilities::sets_stick)
                                 .member("stick_share", &FeelAbilities::stick_share, {0, 1})
                                 .member("follows", &FeelAbilities::follows)
                                 .rest(&FeelAbilities::unknown_members);
  return all;
}

template <>
const Members& Described<HomeAbilities>::members() {
  static const Members all = Describe<HomeAbilities>()
                                 .member("on_loss", &HomeAbilities::on_loss)
                                 .member("notices_after_s", &HomeAbilities::notices_after_s, {0.02, 30})
                                 .member("triggers", &HomeAbilities::triggers)
                                 .member("flies", &HomeAbilities::flies)
                                 .member("fixed_modes", &HomeAbilities::fixed_modes)
                                 .member("else_mode", &HomeAbilities::else_mode)
                                 .member("checks_before_arming", &HomeAbilities::checks_before_arming)
                                 .member("tells_state", &HomeAbilities::tells_state)
                                 .member("writes_over_video", &HomeAbilities::writes_over_video)
                                 .member("sounds", &HomeAbilities::sounds)
                                 .rest(&HomeAbilities::unknown_members);
  return all;
}

template <>
const Members& Described<ProofAbilities>::members() {
  static const Members all = Describe<ProofAbilities>()
                                 .needed("modes", &ProofAbilities::modes)
                                 .needed("bench_mode", &ProofAbilities::bench_mode)
                                 .member("rudder_into_bank", &ProofAbilities::rudder_into_bank)
                                 .member("lamps", &ProofAbilities::lamps)
                                 .rest(&ProofAbilities::unknown_members);
  return all;
}

template <>
const Members& Described<ControllerClass>::members() {
  static const Members all = Describe<ControllerClass>()
                                 .needed("id", &ControllerClass::id)
                                 .needed("name", &ControllerClass::name)
                                 .needed("summary", &ControllerClass::summary)
                                 .needed("family", &ControllerClass::family)
                                 .member("link", &ControllerClass::link)
                                 .needed("width_mm", &ControllerClass::width_mm, {5, 500})
                                 .needed("length_mm", &ControllerClass::length_mm, {5, 500})
                                 .member("height_mm", &ControllerClass::height_mm, {1, 200})
                                 .member("mass_kg", &ControllerClass::mass_kg, {0.0005, 2})
                                 .needed("inputs", &ControllerClass::inputs)
                                 .needed("outputs", &ControllerClass::outputs)
                                 .member("ports", &ControllerClass::ports)
                                 .member("pads", &ControllerClass::pads)
                                 .member("feeds", &ControllerClass::feeds)
                                 .member("loads", &ControllerClass::loads)
                                 .member("minus_edge", &ControllerClass::minus_edge)
                                 .member("settings", &ControllerClass::settings)
                                 .member("remedies", &ControllerClass::remedies)
                                 .member("steps", &ControllerClass::steps)
                                 .member("leaflet", &ControllerClass::leaflet)
                                 .at_most(64)
                                 .member("tools", &ControllerClass::tools)
                                 .at_most(64)
                                 .member("sticks", &ControllerClass::sticks)
                                 .member("surfaces", &ControllerClass::surfaces)
                                 .member("senses", &ControllerClass::senses)
                                 .member("feel", &ControllerClass::feel)
                                 .member("home", &ControllerClass::home)
                                 .needed("proof", &ControllerClass::proof)
                                 .rest(&ControllerClass::unknown_members);
  return all;
}

template <>
const Members& Described<LeafletValue>::members() {
  static const Members all = Describe<LeafletValue>()
                                 .needed("id", &LeafletValue::id)
                                 .needed("what", &LeafletValue::what)
                                 .needed("value", &LeafletValue::value)
                                 .member("looked_up", &LeafletValue::looked_up)
                                 .rest(&LeafletValue::unknown_members);
  return all;
}

template <>
const Members& Described<HandStep>::members() {
  static const Members all = Describe<HandStep>()
                                 .needed("id", &HandStep::id)
                                 .needed("title", &HandStep::title)
                                 .needed("when", &HandStep::when)
                                 .member("only_for", &HandStep::only_for)
                                 .needed("steps", &HandStep::steps)
                                 .needed("expected", &HandStep::expected)
                                 .member("cautions", &HandStep::cautions)
                                 .member("until_then", &HandStep::until_then)
                                 .rest(&HandStep::unknown_members);
  return all;
}

template <>
const Members& Described<PlugFigures>::members() {
  static const Members all =
      Describe<PlugFigures>().needed("amps", &PlugFigures::amps, {0.1, 1000}).rest(&PlugFigures::unknown_members);
  return all;
}

template <>
const Members& Described<ServoFigures>::members() {
  static const Members all = Describe<ServoFigures>()
                                 .needed("digital", &ServoFigures::digital)
                                 .needed("seconds_per_60deg", &ServoFigures::seconds_per_60deg, {0.01, 5})
                                 .needed("torque_nm", &ServoFigures::torque_nm, {0.005, 20})
                                 .needed("dead_band_us", &ServoFigures::dead_band_us, {0, 50})
                                 .needed("most_rate_hz", &ServoFigures::most_rate_hz, {20, 1000})
                                 .rest(&ServoFigures::unknown_members);
  return all;
}

template <>
const Members& Described<BatteryFigures>::members() {
  static const Members all = Describe<BatteryFigures>()
                                 .needed("cells", &BatteryFigures::cells, {1, 14})
                                 .needed("capacity_ah", &BatteryFigures::capacity_ah, {0.05, 100})
                                 .needed("amps", &BatteryFigures::amps, {0.1, 1000})
                                 .needed("cell_milliohm", &BatteryFigures::cell_milliohm, {0.1, 500})
                                 .member("full_cell_v", &BatteryFigures::full_cell_v, cell_v)
                                 .member("nominal_cell_v", &BatteryFigures::nominal_cell_v, cell_v)
                                 .member("empty_cell_v", &BatteryFigures::empty_cell_v, cell_v)
                                 .rest(&BatteryFigures::unknown_members);
  return all;
}

template <>
const Members& Described<DriveFigures>::members() {
  static const Members all = Describe<DriveFigures>()
                                 .needed("amps", &DriveFigures::amps, {0.5, 1000})
                                 .needed("least_cells", &DriveFigures::least_cells, {1, 14})
                                 .needed("most_cells", &DriveFigures::most_cells, {1, 14})
                                 .rest(&DriveFigures::unknown_members);
  return all;
}

template <>
const Members& Described<MotorFigures>::members() {
  static const Members all = Describe<MotorFigures>()
                                 .needed("rpm_per_v", &MotorFigures::rpm_per_v, {20, 50000})
                                 .needed("ohm", &MotorFigures::ohm, {0.0005, 20})
                                 .needed("no_load_a", &MotorFigures::no_load_a, {0, 50})
                                 .needed("amps", &MotorFigures::amps, {0.2, 1000})
                                 .rest(&MotorFigures::unknown_members);
  return all;
}

template <>
const Members& Described<PropellerFigures>::members() {
  static const Members all = Describe<PropellerFigures>()
                                 .needed("diameter_m", &PropellerFigures::diameter_m, {0.02, 2})
                                 .needed("pitch_m", &PropellerFigures::pitch_m, {0.01, 2})
                                 .member("blades", &PropellerFigures::blades, {2, 6})
                                 .member("slow_fly", &PropellerFigures::slow_fly)
                                 .member("left_handed", &PropellerFigures::left_handed)
                                 .rest(&PropellerFigures::unknown_members);
  return all;
}

template <>
const Members& Described<SerialFigures>::members() {
  static const Members all =
      Describe<SerialFigures>().needed("baud", &SerialFigures::baud, {1200, 4e6}).rest(&SerialFigures::unknown_members);
  return all;
}

template <>
const Members& Described<LeadFigures>::members() {
  static const Members all = Describe<LeadFigures>()
                                 .needed("kind", &LeadFigures::kind)
                                 .needed("awg", &LeadFigures::awg, {0, 40})
                                 .needed("length_m", &LeadFigures::length_m, {0.01, 20})
                                 .rest(&LeadFigures::unknown_members);
  return all;
}

template <>
const Members& Described<PartKind>::members() {
  static const Members all = Describe<PartKind>()
                                 .needed("id", &PartKind::id)
                                 .needed("name", &PartKind::name)
                                 .needed("group", &PartKind::group)
                                 .member("mass_kg", &PartKind::mass_kg, {0, 100})
                                 .member("length_mm", &PartKind::length_mm, size_mm)
                                 .member("width_mm", &PartKind::width_mm, size_mm)
                                 .member("height_mm", &PartKind::height_mm, size_mm)
                                 .needed("basis", &PartKind::basis)
                                 .member("terminals", &PartKind::terminals)
                                 .member("feeds", &PartKind::feeds)
                                 .member("loads", &PartKind::loads)
                                 .member("servo", &PartKind::servo)
                                 .member("battery", &PartKind::battery)
                                 .member("drive", &PartKind::drive)
                                 .member("motor", &PartKind::motor)
                                 .member("propeller", &PartKind::propeller)
                                 .member("serial", &PartKind::serial)
                                 .member("lead", &PartKind::lead)
                                 .member("plug", &PartKind::plug)
                                 .member("needs_sky", &PartKind::needs_sky)
                                 .member("magnetic_sensor", &PartKind::magnetic_sensor)
                                 .rest(&PartKind::unknown_members);
  return all;
}

}  // namespace rigging
