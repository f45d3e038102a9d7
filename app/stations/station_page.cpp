#include "stations/station_page.h"

#include <QDialog>
#include <QVBoxLayout>

#include "look/literals.h"
#include "look/pieces.h"
#include "review/stations.h"

namespace rigging::app {

StationPage::StationPage(Station station, const PageContext& context)
    : document_(context.document), bench_(context.bench), station_(station) {
  connect(&document_, &RigDocument::changed, this, &StationPage::follow);
  connect(&Style::instance(), &Style::changed, this, &StationPage::follow);
}

void StationPage::set_current(bool current) {
  current_ = current;
  for (ProcedureRunner* r : runners_) r->set_shown(current);
  if (current_ && behind_) follow();
}

void StationPage::follow() {
  behind_ = !current_;
  if (!current_) return;
  for (ProcedureRunner* r : runners_) r->refresh();
  refresh();
}

ProcedureCard* StationPage::make_card(const ProcedureEntry& entry, ProcedureCard::Form form, QWidget* parent) {
  auto* runner = new ProcedureRunner(document_, bench_, entry, parent);
  connect(runner, &ProcedureRunner::said, this, &StationPage::said);
  connect(runner, &ProcedureRunner::wanted, this, &StationPage::wanted);
  connect(runner, &ProcedureRunner::hand_cards_asked, this, [this](const std::vector<HandCard>& cards) {
    Q_EMIT sheets_asked(u"Hand cards"_s, hand_card_sheets(document_, cards));
  });
  return new ProcedureCard(*runner, form, parent);
}

ProcedureCard* StationPage::procedure_card(const char* id, ProcedureCard::Form form) {
  for (const ProcedureEntry& entry : entry_of(station_).procedures)
    if (entry.id == id) {
      ProcedureCard* card = make_card(entry, form, this);
      runners_.push_back(&card->runner());
      card->runner().set_shown(current_);
      return card;
    }
  return nullptr;
}

void StationPage::hear_refusal(NumberBox& box) {
  const QString name = box.accessibleName();
  Q_EMIT said(name + (name.isEmpty() ? QString() : u": "_s) + box.take_refusal());
}

void StationPage::run(const ProcedureEntry& entry) {
  for (const ProcedureRunner* r : runners_)
    if (r->entry().id == entry.id) return come_here(QString::fromStdString(entry.id));
  auto* dialog = new QDialog(this);
  dialog->setObjectName(u"procedure_"_s + QString::fromStdString(entry.id));
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->setWindowTitle(QString::fromStdString(entry.name));
  dialog->resize(420, 520);
  ProcedureCard* card = make_card(entry, ProcedureCard::Form::column, dialog);
  connect(&document_, &RigDocument::changed, card, [card] { card->runner().refresh(); });
  auto* layout = new QVBoxLayout(dialog);
  layout->addWidget(card);
  dialog->show();
}

QLabel* StationPage::heading() {
  QLabel* question = wrapping_words(13, true);
  question->setObjectName(u"station_question"_s);
  question->setText(QString::fromUtf8(entry_of(station_).question));
  return question;
}

}  // namespace rigging::app
