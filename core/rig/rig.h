#pragma once

#include "rig/airframe.h"
#include "rig/controller.h"
#include "rig/feel.h"
#include "rig/fit.h"
#include "rig/home.h"
#include "rig/linkages.h"
#include "rig/outputs.h"
#include "rig/parts.h"
#include "rig/ports.h"
#include "rig/power.h"
#include "rig/proofs.h"
#include "rig/radio.h"
#include "rig/sensing.h"

/// The document: one aircraft as a plain value. Units are in the names; body axes are those of ISO 1151.
/// Every struct keeps members it does not know in `extra`.
namespace rigging {

inline constexpr int rig_version = 3;

struct Rig {
  std::string name;
  std::string note;
  Airframe airframe;
  ControllerFit controller;
  std::vector<Part> parts;
  std::vector<Mounting> mountings;  ///< in the file: `places`
  std::vector<Lead> leads;
  Fit fit;
  Power power;
  Radio radio;
  std::vector<Port> ports;
  std::vector<Output> outputs;
  Saturation saturation = Saturation::each_stops;
  std::vector<Linkage> linkages;
  std::optional<Release> release;
  Sensing sensing;
  Feel feel;
  std::vector<ModeChoice> modes;
  Home home;
  std::vector<Proof> proofs;
  std::vector<LooseEnd> loose_ends;
  std::vector<LogEntry> log;
  UnknownMembers unknown_members;

  // Made once, in rig.cpp: a rig is copied in many places, and each copy would be compiled anew.
  Rig();
  Rig(const Rig&);
  Rig(Rig&&) noexcept;
  Rig& operator=(const Rig&);
  Rig& operator=(Rig&&) noexcept;
  ~Rig();
  bool operator==(const Rig&) const;

  const Output* output(const std::string& id) const;
  Output* output(const std::string& id);
  const Part* part(const std::string& id) const;
  Part* part(const std::string& id);
  /// Where the part sits, or null. The controller has the id "controller".
  const Mounting* mounting(const std::string& part_id) const;
  Mounting* mounting(const std::string& part_id);
  const Lead* lead(const std::string& id) const;
  Lead* lead(const std::string& id);
  const Linkage* linkage(Surface surface) const;
  Linkage* linkage(Surface surface);
  /// How this port is set, or null.
  const Port* port(const std::string& socket) const;
  /// The channel that carries the function, or null.
  const Channel* channel(ChannelFunction function) const;
  Channel* channel(ChannelFunction function);
  /// The output that drives the surface, or null.
  const Output* output_of(Surface surface) const;
};

template <>
const Members& Described<Rig>::members();

}  // namespace rigging
