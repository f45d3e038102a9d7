#pragma once

#include "procedure/procedure.h"
#include "sticks/setup.h"
#include "sticks/sticks.h"

namespace rigging {

/// The work at station sticks: listen while the hand moves one stick at a time (what is finished stays when it is
/// stopped; one stick alone can be asked for again), dial in, learn, find switches, try the
/// loss of the link.
class SticksProcedure : public Procedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;

  /// What is listened to now.
  const std::optional<StickSetup>& listening() const { return setup_; }

 private:
  enum class Doing { nothing, sticks, a_switch, loss };

  Orders take(const Event& event, const Scene& scene);
  Orders press(const std::string& action, const Scene& scene);
  /// What simulated hands that follow the card have to do now.
  Orders led_hands();
  Orders listen(std::vector<ChannelFunction> sticks, const Rig& rig);
  std::vector<ChannelFunction> unread(const Rig& rig) const;
  void stop();
  Orders heard(const std::vector<ChannelFrame>& frames, const Scene& scene);
  Orders sticks_found(const Scene& scene);
  Orders switch_found(const Scene& scene);
  Orders loss_seen(OnLoss behaviour, const Scene& scene);
  Orders dial(const Scene& scene);
  void add_actions(Card& card, const Scene& scene) const;
  void say_next(Card& card, const Scene& scene) const;
  std::string facts(const Rig& rig) const;
  /// What came of it, told until the radio becomes another than it then was.
  void tell(std::string result);
  void forget_undone(const Radio& radio);
  bool changes() const;
  bool wrong_way() const;
  std::vector<std::string> limits() const;
  /// What the receiver says can be seen: the class shows it, or the receiver itself is heard.
  static bool shows(const Scene& scene);
  static bool can_listen(const Scene& scene);

  SticksReport report_;
  Doing doing_ = Doing::nothing;
  std::optional<StickSetup> setup_;
  std::optional<SwitchSetup> switch_;
  std::string result_;
  std::optional<Radio> result_of_;  ///< what the result was put into; undone or changed, it says nothing any more
  double now_s_ = 0, last_frame_s_ = 0;
  bool frames_come_ = false;
  bool led_ = false;                                     ///< simulated hands do what the card says
  std::optional<std::pair<ChannelFunction, int>> held_;  ///< what they hold for it
  bool switched_off_ = false;                            ///< they did, for the loss
};

/// The stick that an action "again_roll" asks for once more.
std::optional<ChannelFunction> stick_again(const std::string& action);
/// The sticks that this airframe needs, in the order in which they are asked for.
std::vector<ChannelFunction> sticks_needed(const SticksReport& report);

}  // namespace rigging
