#pragma once

#include "bench/bench_hands.h"
#include "drawing/aircraft_view.h"
#include "proof/session.h"
#include "stations/proof/look_keys.h"
#include "stations/proof/proof_chain.h"
#include "stations/station_page.h"

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace rigging::app {

/// Is it ready? One card per check: do this, see that, what did you see; then what is wrong and what to do. Checks that
/// their own station records are told here and led to.
class ProofPage : public StationPage {
  Q_OBJECT
 public:
  explicit ProofPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<Request> requests() override;
  bool uses_bench() const override { return true; }

  /// What the page is asking now.
  enum class Asking { check, question, verdict, contradiction, done };
  Asking asking() const { return asking_; }
  /// The observation that is asked for, without what is seen.
  const direction::Observation& asked() const { return asked_; }
  const BenchSession& session() const { return session_; }

 protected:
  void refresh() override;

 private:
  void restart_session();
  void choose(const std::string& check);
  void present();
  void present_check(const CheckStatus& status);
  void present_elsewhere(const CheckStatus& status);
  void present_question();
  void present_verdict();
  void present_contradiction();
  void note(direction::Observation seen);
  void apply();
  void done_by_hand();
  void do_it();
  void animate();
  /// True if the controller that answers holds something else than the rig: then a look proves nothing about the rig.
  bool board_differs() const;
  const CheckStatus* status(const std::string& id) const;

  BenchHands hands_;
  BenchSession session_;
  Rig session_rig_;
  std::string current_;
  Asking asking_ = Asking::check;
  direction::Observation asked_;
  std::optional<DirectionCard> card_;
  std::vector<direction::Fault> by_hand_;
  direction::Case by_hand_case_;

  ProofChain* chain_;
  QLabel *title_, *todo_, *how_, *caution_, *verdict_, *remedy_, *looked_, *picture_words_;
  AircraftView* view_;
  LookKeys* keys_;
  QPushButton *as_shown_, *note_, *do_it_, *apply_, *card_button_, *by_hand_button_, *back_, *again_, *write_, *there_,
      *record_;
  QTimer animation_;
  double phase_ = 0;
};

}  // namespace rigging::app
