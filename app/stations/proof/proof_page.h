#pragma once

#include "proof/proof_procedure.h"
#include "stations/proof/proof_chain.h"
#include "stations/station_page.h"

namespace rigging::app {

/// Is it ready? The chain of checks, and the card of the one that is done now.
class ProofPage : public StationPage {
  Q_OBJECT
 public:
  explicit ProofPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<NamedAction> named_actions() override;
  bool uses_bench() const override { return true; }

  const ProofProcedure& procedure() const { return static_cast<const ProofProcedure&>(card_->runner().procedure()); }

 protected:
  void refresh() override;

 private:
  ProofChain* chain_;
  ProcedureCard* card_;
};

}  // namespace rigging::app
