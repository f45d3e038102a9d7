#pragma once

#include "senses/air.h"
#include "senses/interference.h"
#include "senses/satellites.h"
#include "senses/sense_procedures.h"
#include "senses/vibration.h"

/// What is looked at with the model out on the field or its motor running: where it is, the air, and what the motor
/// does.
namespace rigging {

/// A satellite receiver that stands still: what its line says, and how good a home that makes. Bytes come through the
/// controller or from the receiver by itself.
class SkyProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  const Standing& standing() const { return standing_; }
  const std::vector<SatelliteFix>& fixes() const { return fixes_; }

 private:
  Orders press(const std::string& action, const Scene& scene);
  SatelliteReader reader_;
  std::vector<SatelliteFix> fixes_;
  Standing standing_;
  double began_s_ = 0;
  bool done_ = false;
};

/// Barometer at rest; airspeed sensor covered, pushed, let go.
class AirProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;

 private:
  enum class Step { cover, push, let_go };
  Orders press(const std::string& action, const Scene& scene);
  void drop_readings() override;
  Step step() const;
  std::vector<double> t_s_, pressure_pa_, pitot_t_s_, pitot_pa_;
  Step asked_ = Step::cover;
  std::optional<BarometerReport> barometer_;
  std::optional<AirspeedReport> airspeed_;
};

/// The motor runs up without a propeller: how much the board shakes, and what the current does to the compass.
class MotorProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  const std::optional<Vibration>& vibration() const { return vibration_; }
  const std::optional<Interference>& interference() const { return interference_; }

 private:
  Orders press(const std::string& action, const Scene& scene);
  void drop_readings() override;
  Orders finish(const Scene& scene);
  double read_s() const { return forces_.size() < 2 ? 0 : forces_.t_s.back() - forces_.t_s.front(); }
  Recording forces_, fields_;
  std::vector<double> amps_;
  std::optional<double> now_a_;
  double throttle_ = 0;
  bool by_hands_ = false;
  std::optional<Vibration> vibration_;
  std::optional<Interference> interference_;
};

}  // namespace rigging
