#pragma once

#include "procedure/procedure.h"

namespace rigging {

/// The swing test: hang it on two strings, measure, let it swing ten times by the clock of the card or one's own.
class SwingProcedure : public Procedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;

 private:
  enum class Asks { apart, length, swings, nothing };
  Orders press(const Pressed& pressed, const Scene& scene);
  Orders take(double ten_s, const Scene& scene);
  Axis axis_ = Axis::roll;
  Asks asks_ = Asks::apart;
  double apart_m_ = 0, length_m_ = 0, now_s_ = 0;
  std::optional<double> began_s_;  ///< the clock of the card runs
  std::string said_;
};

}  // namespace rigging
