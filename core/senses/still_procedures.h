#pragma once

#include "airframe/airframe.h"
#include "senses/gyro.h"
#include "senses/inventory.h"
#include "senses/level.h"
#include "senses/sense_procedures.h"

/// What is looked at with the model at rest: what the board finds, whether it woke still, and its level.
namespace rigging {

/// What the board says that it has, against the rig.
class FoundProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;

 private:
  /// The rig as it would be with what was heard.
  Rig as_heard(const Rig& rig) const;
  std::map<Sensor, SensorState> states_;
};

/// Powered up still: at rest the gyro says that nothing turns.
class GyroProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  const std::optional<GyroReport>& found() const { return found_; }

 private:
  Orders press(const std::string& action, const Scene& scene);
  void drop_readings() override;
  Recording rates_;
  GyroOptions options_;
  double warmth_c_ = 0;
  bool warm_known_ = false;
  std::optional<GyroReport> found_;
};

/// The attitude that it takes for level: worked out, taken as the model is propped, or corrected from a flight.
class LevelProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;

 private:
  enum class Asks { nothing, climb, turn };
  Orders press(const Pressed& pressed, const Scene& scene);
  Orders corrected(const Pressed& pressed, const Scene& scene);
  static LevelReport level_of(const Scene& scene);
  Asks asks_ = Asks::nothing;
  std::string said_;
};

}  // namespace rigging
