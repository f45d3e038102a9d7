#pragma once

#include "base/described.h"

/// Ranges that several sections share. Generous: they catch a wrong unit or a slip of the finger, not an unusual model.
namespace rigging::range {

inline constexpr Span metres{0.01, 20}, degrees{-89, 89}, small_deg{-20, 20}, share{-0.5, 0.8}, place_m{-20, 20},
    weight{-2, 2}, speed_m_s{3, 150}, read_us{500, 2500}, percent{0, 200}, hole_m{0.001, 1}, throw_deg{0, 85},
    baud{1200, 4e6};

}  // namespace rigging::range
