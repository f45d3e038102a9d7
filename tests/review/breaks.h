#pragma once

#include <functional>
#include <set>

#include "bench_rig.h"
#include "review/rules.h"

/// A good rig is broken in one way and must get exactly the snags it deserves.
namespace rigging {

using Set = std::multiset<std::string>;

inline Rig good(const std::string& name) {
  Rig rig = demo(name);
  rig.controller.mounted = true;
  return directions_proven(std::move(rig));
}

/// Without what only follows for the proofs.
inline Set codes(const Rig& rig) {
  Set all;
  const Review r = review(rig, shipped());
  for (const Snag& s : r.snags)
    if (s.station != Station::proof) all.insert(s.code);
  return all;
}

struct Break {
  const char* name;
  const char* of;
  std::function<void(Rig&)> damage;
  Set deserved;
};
inline void PrintTo(const Break& b, std::ostream* out) { *out << b.name; }

}  // namespace rigging
