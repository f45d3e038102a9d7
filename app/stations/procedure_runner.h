#pragma once

#include "bench/bench_link.h"
#include "document/rig_document.h"
#include "procedure/procedure.h"

namespace rigging::app {

/// Runs a procedure of core on the open rig and the bench: tells it the time, what is heard and what is pressed, and
/// carries out what it orders.
class ProcedureRunner : public QObject {
  Q_OBJECT
 public:
  ProcedureRunner(RigDocument& document, BenchLink& bench, const ProcedureEntry& entry, QObject* parent);

  const Card& card() const { return card_; }
  const ProcedureEntry& entry() const { return entry_; }
  const Procedure& procedure() const { return *procedure_; }
  const RigDocument& document() const { return document_; }
  void tell(const Event& event);
  /// What the card is about: a surface, a check.
  void choose(const QString& subject) { tell(Pressed{"choose", 0, {}, subject.toStdString()}); }
  /// The scene has changed.
  void refresh();
  /// One that is not shown, and not under way, sleeps: what is heard meanwhile is not told to it.
  void set_shown(bool shown);

 Q_SIGNALS:
  void card_changed();
  void said(const QString& words);
  void wanted(rigging::Station station, const QString& subject);
  void hand_cards_asked(const std::vector<rigging::HandCard>& cards);

 private:
  BenchState bench_state() const;
  Scene scene() const;
  bool sleeps() const { return !shown_ && !card_.busy; }
  /// Something that the bench told, many times a second: the card is laid out for all of it together.
  void overhear(const Event& event);
  void hear(const Event& event);
  void carry_out(const Orders& orders);
  void show();
  void tell_time();

  RigDocument& document_;
  BenchLink& bench_;
  ProcedureEntry entry_;
  std::unique_ptr<Procedure> procedure_;
  Card card_;
  unsigned revision_ = 0;
  BenchState bench_state_;
  std::map<Sensor, SensorState> found_;  ///< as it was told last
  bool shown_ = true;
  Ticks ticks_{40}, soon_{40};
};

}  // namespace rigging::app
