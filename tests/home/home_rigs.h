#pragma once

#include "bench_rig.h"
#include "home/home.h"

namespace rigging {

/// A case of the closed form, as in docs/command-line.md.
inline HomeCase usual_way_home() {
  HomeCase c;
  c.place = {1500, 240, 60};
  c.wind = {6, 270};
  c.aircraft = {14, 9.5, 2.5, 22, 30};
  c.back = {100, 50};
  c.battery = {1300, 250};
  return c;
}

/// A demo rig that comes home from 800 m, with all else open; its receiver says that the link is gone.
inline Rig comes_home() {
  Rig rig = demo("hedgerow");
  rig.radio.on_loss = OnLoss::flag;
  rig.home = {};
  rig.home.on_loss = LossAction::come_home;
  rig.home.area_m = 800;
  return rig;
}

inline HomeReport home_of(const Rig& rig) { return analyze_home({rig, shipped()}, analyze_feel({rig, shipped()})); }

}  // namespace rigging
