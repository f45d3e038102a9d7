#include "rig/sections.h"

#include <algorithm>
#include <array>
#include <cassert>

namespace rigging {
namespace {

struct Section {
  std::string_view name;
  bool (*same)(const Rig&, const Rig&);
};

template <auto member>
bool same(const Rig& a, const Rig& b) {
  return a.*member == b.*member;
}

constexpr std::array<Section, section_count> all{{{"name", same<&Rig::name>},
                                                  {"note", same<&Rig::note>},
                                                  {"airframe", same<&Rig::airframe>},
                                                  {"controller", same<&Rig::controller>},
                                                  {"parts", same<&Rig::parts>},
                                                  {"places", same<&Rig::mountings>},
                                                  {"leads", same<&Rig::leads>},
                                                  {"fit", same<&Rig::fit>},
                                                  {"power", same<&Rig::power>},
                                                  {"radio", same<&Rig::radio>},
                                                  {"ports", same<&Rig::ports>},
                                                  {"outputs", same<&Rig::outputs>},
                                                  {"saturation", same<&Rig::saturation>},
                                                  {"linkages", same<&Rig::linkages>},
                                                  {"release", same<&Rig::release>},
                                                  {"sensing", same<&Rig::sensing>},
                                                  {"feel", same<&Rig::feel>},
                                                  {"modes", same<&Rig::modes>},
                                                  {"home", same<&Rig::home>},
                                                  {"proofs", same<&Rig::proofs>},
                                                  {"loose_ends", same<&Rig::loose_ends>},
                                                  {"log", same<&Rig::log>}}};

}  // namespace

const std::vector<std::string_view>& section_names() {
  static const std::vector<std::string_view> names = [] {
    std::vector<std::string_view> list;
    for (const Section& s : all) list.push_back(s.name);
    return list;
  }();
  return names;
}

Sections sections(std::initializer_list<std::string_view> names) {
  Sections set;
  for (const std::string_view name : names) {
    const auto at = std::find_if(all.begin(), all.end(), [&](const Section& s) { return s.name == name; });
    assert(at != all.end());
    set.set(static_cast<std::size_t>(at - all.begin()));
  }
  return set;
}

Sections differing_sections(const Rig& a, const Rig& b) {
  Sections set;
  for (std::size_t i = 0; i < all.size(); ++i) set[i] = !all[i].same(a, b);
  return set;
}

}  // namespace rigging
