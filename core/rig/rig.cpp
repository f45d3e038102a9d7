#include "rig/rig.h"

#include "base/find.h"

namespace rigging {

Rig::Rig() = default;
Rig::Rig(const Rig&) = default;
Rig::Rig(Rig&&) noexcept = default;
Rig& Rig::operator=(const Rig&) = default;
Rig& Rig::operator=(Rig&&) noexcept = default;
Rig::~Rig() = default;
bool Rig::operator==(const Rig&) const = default;

namespace {

template <class List>
auto* with_id(List& list, const std::string& id) {
  return find_in(list, [&](const auto& x) { return x.id == id; });
}

template <class List>
auto* at_part(List& list, const std::string& part) {
  return find_in(list, [&](const Mounting& p) { return p.part == part; });
}

template <class List>
auto* of_surface(List& list, Surface s) {
  return find_in(list, [&](const Linkage& l) { return l.surface == s; });
}

template <class List>
auto* carrying(List& list, ChannelFunction function) {
  return find_in(list, [&](const Channel& c) { return c.function == function; });
}

}  // namespace

const Output* Rig::output(const std::string& id) const { return with_id(outputs, id); }
Output* Rig::output(const std::string& id) { return with_id(outputs, id); }
const Part* Rig::part(const std::string& id) const { return with_id(parts, id); }
Part* Rig::part(const std::string& id) { return with_id(parts, id); }
const Mounting* Rig::mounting(const std::string& part_id) const { return at_part(mountings, part_id); }
Mounting* Rig::mounting(const std::string& part_id) { return at_part(mountings, part_id); }
const Lead* Rig::lead(const std::string& id) const { return with_id(leads, id); }
Lead* Rig::lead(const std::string& id) { return with_id(leads, id); }
const Linkage* Rig::linkage(Surface s) const { return of_surface(linkages, s); }
Linkage* Rig::linkage(Surface s) { return of_surface(linkages, s); }
const Channel* Rig::channel(ChannelFunction function) const { return carrying(radio.channels, function); }
Channel* Rig::channel(ChannelFunction function) { return carrying(radio.channels, function); }

const Port* Rig::port(const std::string& socket) const {
  return find_in(ports, [&](const Port& p) { return p.socket == socket; });
}

const Output* Rig::output_of(Surface surface) const {
  for (const Output& o : outputs)
    for (const Surface s : o.surfaces)
      if (s == surface) return &o;
  return nullptr;
}

}  // namespace rigging
