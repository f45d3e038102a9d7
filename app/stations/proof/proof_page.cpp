#include "stations/proof/proof_page.h"

#include <QHBoxLayout>
#include "look/literals.h"

namespace rigging::app {

ProofPage::ProofPage(const PageContext& context) : StationPage(Station::proof, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(12, 8, 12, 6);
  page->setSpacing(14);
  chain_ = new ProofChain;
  page->addWidget(chain_);
  card_ = procedure_card("proof", ProcedureCard::Form::wide);
  page->addWidget(card_, 1);
  connect(chain_, &ProofChain::chosen, &card_->runner(), &ProcedureRunner::choose);
  connect(&card_->runner(), &ProcedureRunner::card_changed, this,
          [this] { chain_->set_current(card_->runner().card().subject); });
  refresh();
}

QWidget* ProofPage::first_focus() {
  QWidget* first = card_->first_focus();
  return first ? first : chain_;
}

void ProofPage::refresh() {
  chain_->set_checks(document_.review().checks);
  chain_->set_current(card_->runner().card().subject);
}

void ProofPage::go_to(const QString& subject) { card_->runner().choose(subject); }

QList<NamedAction> ProofPage::named_actions() {
  QList<NamedAction> all;
  for (const CheckStatus& c : document_.review().checks)
    all.append({u"Check: %1"_s.arg(QString::fromStdString(c.title)), u"prove bench test"_s,
                [this, id = QString::fromStdString(c.id.text())] { come_here(id); }});
  return all;
}

}  // namespace rigging::app
