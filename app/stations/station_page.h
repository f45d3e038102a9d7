#pragma once

#include <QLabel>
#include <QWidget>

#include "bench/bench_link.h"
#include "document/rig_document.h"
#include "drawing/rig_sheets.h"
#include "look/named_action.h"
#include "look/number_box.h"
#include "stations/procedure_card.h"

namespace rigging::app {

/// What every page works on.
struct PageContext {
  RigDocument& document;
  BenchLink& bench;
};

/// One station's sheet. Shows the document; edits go through it. The base owns what all have in common: the heading,
/// when the page follows the document, and how it says something, goes elsewhere and shows sheets.
class StationPage : public QWidget, public HearsRefusals {
  Q_OBJECT
 public:
  StationPage(Station station, const PageContext& context);

  Station station() const { return station_; }
  /// The page that is shown follows every change; the others catch up when they are.
  void set_current(bool current);
  /// Brings the part that a snag is about into view, as far as this station knows it; or one of its procedures.
  virtual void go_to(const QString& subject) { (void)subject; }
  /// Where the keyboard starts on this sheet.
  virtual QWidget* first_focus() { return this; }
  /// What the ask box can do here.
  virtual QList<NamedAction> named_actions() { return {}; }
  /// Brings up one of this station's procedures: on the page when it has a place there, else in a window of its own.
  void run(const ProcedureEntry& entry);
  /// The bench stands below this sheet.
  virtual bool uses_bench() const { return false; }
  void hear_refusal(NumberBox& box) override;

 Q_SIGNALS:
  void said(const QString& words);
  void wanted(rigging::Station station, const QString& subject);
  /// The simulated bench is needed, and not there.
  void bench_asked();
  /// Whether the bench stands below has changed.
  void bench_use_changed();
  void sheets_asked(const QString& title, const QList<rigging::app::Sheet>& sheets);

 protected:
  /// The document, its review or the look has changed.
  virtual void refresh() = 0;
  /// The station's question, as the builder would ask it.
  QLabel* heading();
  /// A card for one of this station's procedures, by its id; for the page to place.
  ProcedureCard* procedure_card(const char* id, ProcedureCard::Form form);
  /// Brings this station to the front, at a subject of its own.
  void come_here(const QString& subject = {}) { Q_EMIT wanted(station_, subject); }

  RigDocument& document_;
  BenchLink& bench_;

 private:
  void follow();
  ProcedureCard* make_card(const ProcedureEntry& entry, ProcedureCard::Form form, QWidget* parent);

  Station station_;
  bool current_ = false, behind_ = false;
  std::vector<ProcedureRunner*> runners_;
};

}  // namespace rigging::app
