#pragma once

#include "procedure/procedure.h"
#include "reports/reports.h"

namespace rigging {

/// Plays a procedure from a script: one event a line, docs/command-line.md has the words. Orders are carried out on the
/// rig; what is for a bench is only told.
class ProcedurePlayer {
 public:
  /// `at` is the date of what is recorded, ISO 8601, UTC: a script has no clock. It counts as simulated.
  ProcedurePlayer(Rig rig, const Catalogue& catalogue, const ProcedureEntry& entry, std::string at);

  /// What one line made happen.
  struct LineOutcome {
    std::vector<std::string> done;  ///< one sentence each: what was ordered and what became of it
    bool card_changed = false;
  };
  /// Hears one line; `where` is for messages, "file:line". Empty lines and comments (#) are nothing. Errors: a word
  /// that is not known, an action that the card does not offer or that can't be chosen now, time that runs backward.
  Result<LineOutcome> play(const std::string& line, const std::string& where);

  const Card& card() const { return card_; }
  const Rig& rig() const { return rig_; }

 private:
  Result<Event> event_of(const std::string& line, const std::string& where);
  Result<Event> pressed(const std::vector<std::string>& words, const std::string& where) const;
  Result<Event> looked(const std::vector<std::string>& words, const std::string& where) const;
  Result<Event> frame(const std::vector<std::string>& words, const std::string& where) const;
  Result<void> set_bench(const std::vector<std::string>& words, const std::string& where);
  void tell(const Event& event, LineOutcome& heard);
  void carry_out(const Orders& orders, LineOutcome& heard);

  Rig rig_;
  const Catalogue& catalogue_;
  std::unique_ptr<Procedure> procedure_;
  std::vector<CheckStatus> checks_;
  std::optional<Reports> reports_;  ///< of the rig as it stands
  BenchState bench_;
  Card card_;
  double now_s_ = 0;
  std::string at_;
};

/// A card as lines of text, and as JSON.
std::string card_text(const Card& card);
Json card_to_json(const Card& card);

}  // namespace rigging
