#pragma once

#include "procedure/procedure.h"
#include "surfaces/linkage.h"

namespace rigging {

/// Reads a surface with a gauge at five places of its output, or all of them in one sitting, says what hands and
/// settings have to change, and records what then holds. The surface is chosen by the action "choose".
class ThrowsProcedure : public Procedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;

  enum class State { idle, reading, doubted, answered };
  State state() const { return state_; }
  Surface surface() const { return surface_; }
  /// What the centring says, once read.
  const std::optional<Centring>& answer() const { return answer_; }

 private:
  Orders press(const Pressed& pressed, const Scene& scene);
  Orders choose(Surface surface, const Scene& scene);
  Orders begin(const Scene& scene);
  Orders begin_all(const Scene& scene);
  Orders next_read(const Scene& scene);
  void judge(const Rig& rig, const Scene& scene);
  Orders take(double up_deg, const Scene& scene);
  Orders finish(const Scene& scene);
  /// What setting the answer, with the throws kept or not, makes stale, in a sentence; empty when nothing.
  std::string makes_stale(const Scene& scene, bool keep_throws) const;
  Orders by_hand(const Scene& scene);
  Orders set(const Scene& scene, bool keep_throws);
  Orders drive_there(const Scene& scene);
  Orders let_go(const Scene& scene);
  /// Eyes wait until the surface stands still.
  bool settled() const;
  static bool none_read(const Rig& rig);
  void watch(double deg);
  double level(const Scene& scene) const;
  std::optional<double> pulse_us(const Scene& scene) const;
  void say_reading(Card& card, const Output& output, const Scene& scene) const;
  void say_result(Card& card, const Scene& scene) const;
  void add_answer(Card& card, const Output& output, const Scene& scene) const;
  void add_actions(Card& card, const Scene& scene) const;
  /// What of the answer is still to be done: by hand first, then by settings.
  bool mechanical() const;
  bool settings(const Output* output) const;

  Surface surface_;
  State state_ = State::idle;
  std::size_t at_ = 0;
  std::vector<ThrowReading> readings_;
  std::optional<Centring> answer_;
  std::vector<ThrowReading> judged_;  ///< what the answer rests on; undone, the answer goes with it
  bool rests_ = false;                ///< the rig holds what was judged
  std::string problem_;
  std::vector<Surface> to_read_;  ///< of a sitting that reads all, after this one
  std::vector<Surface> read_;     ///< in that sitting, whose answers were not looked at yet
  bool drove_ = false;
  double now_s_ = 0, still_since_s_ = 0, still_deg_ = 0;
  int looks_ = 0;
  bool eyes_on_ = false;  ///< simulated eyes read on by themselves, place by place
};

}  // namespace rigging
