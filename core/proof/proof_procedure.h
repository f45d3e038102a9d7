#pragma once

#include <memory>

#include "home/home_procedures.h"
#include "procedure/timed_orders.h"
#include "proof/session.h"

namespace rigging {

/// Walks through the bench checks: do this, see that, what did you see; then what is wrong and what to do. Checks that
/// their own station records are told and led to. A check is chosen by the action "choose".
class ProofProcedure : public Procedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  bool listens_to_state() const override { return true; }

  /// What is asked now.
  enum class Asking { check, question, verdict, contradiction, done };
  Asking asking() const { return asking_; }
  /// The observation that is asked for, without what is seen.
  const direction::Observation& asked() const { return asked_; }
  const BenchSession& session() const { return session_; }
  /// The check that is on the card, as "stick.roll".
  const std::string& checking() const { return current_; }

 private:
  void follow(const Scene& scene);
  void decide(const Scene& scene);
  void restart(const Scene& scene);
  Orders press(const Pressed& pressed, const Scene& scene);
  Orders note(direction::Observation seen, const Scene& scene);
  Orders apply(const Scene& scene);
  Orders by_hand(const Scene& scene);
  Orders show_cards(const Scene& scene) const;
  void plan_steps(const Scene& scene);
  void hear_channels(const std::map<std::string, double>& us);

  /// A board that is supposed to sit turned is looked at before anybody tells the controller so.
  bool board_unseen() const;
  /// What the eyes would say of a remedy that sends the hand somewhere, if nothing is wrong there.
  std::optional<direction::Observation> as_planned() const;

  /// What the board tells of itself is read by the card of its own station; null where only eyes can say.
  Procedure* reader(const Scene& scene) const;
  /// How many checks were left for later and are still open.
  std::size_t left_for_later(const Scene& scene) const;

  void show_check(Card& card, const CheckStatus& check, const Scene& scene) const;
  void show_elsewhere(Card& card, const CheckStatus& check, const Scene& scene) const;
  void show_question(Card& card, const Scene& scene) const;
  void show_verdict(Card& card, const Scene& scene) const;
  void show_contradiction(Card& card) const;
  static bool must_write_first(Card& card, const Scene& scene);
  void add_looking(Card& card, const Scene& scene) const;
  /// The controller holds something else than the rig: then a look proves nothing about the rig.
  static bool board_differs(const Scene& scene);
  /// What the row of a channel is called in a look.
  static std::string channel_row(Axis axis);

  std::unique_ptr<Procedure> loss_ = std::make_unique<LossProcedure>(),
                             positions_ = std::make_unique<PositionsProcedure>();
  BenchSession session_;
  Rig session_rig_;
  std::string current_;
  std::string last_;         ///< the check before it: the next one is looked for after it
  std::string denied_;       ///< the check of which the answer was no
  std::set<CheckId> later_;  ///< checks that were left for later
  bool unreasoned_ = false;  ///< something was wrong on an aircraft with more outputs than can be reasoned about
  std::string waited_for_;   ///< a check that its own station records, not yet proven
  bool fallback_ = false;    ///< nobody chose it and nothing waits: another is taken as soon as one does
  Asking asking_ = Asking::check;
  bool elsewhere_ = false;  ///< the check is done at its own station
  direction::Observation asked_;
  int look_ = 0;
  std::map<std::string, int> heard_;  ///< of the channels, as the rows of the look call them
  std::optional<Mode> look_in_;       ///< the mode that was chosen for the looks at this check
  std::optional<DirectionCard> direction_;
  std::optional<direction::Question> question_;  ///< the one more look that is asked for
  bool leads_unseen_ = false;                    ///< what is supposed of leads has to be looked at before it is said
  std::optional<direction::Observation> known_;  ///< leads that were proven
  std::vector<direction::Fault> by_hand_;
  direction::Case by_hand_case_;
  TimedOrders steps_;  ///< of the simulated hands, still to come
  double now_s_ = 0;
};

}  // namespace rigging
