#pragma once

#include "stations/station_page.h"
#include "sticks/edits.h"
#include "sticks/sticks_procedure.h"

class QPushButton;

namespace rigging::app {

class ReachRulers;
class SignalStrip;
class SwitchBars;

/// Does the controller hear what I mean? Listens while the hand moves one stick at a time, and says what to dial in.
class SticksPage : public StationPage {
  Q_OBJECT
 public:
  explicit SticksPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<NamedAction> named_actions() override;
  bool uses_bench() const override { return true; }

  const SticksProcedure& procedure() const { return static_cast<const SticksProcedure&>(card_->runner().procedure()); }

 protected:
  void refresh() override;

 private:
  void show_settings_card();
  /// The rulers follow what comes from the receiver; the strip, eight seconds wide, more at leisure.
  void show_signal();
  void show_history();
  void follow_card();
  void type_in(ReadOn where);
  void listen_to_receiver();
  void transmitter();
  void channels();

  ReachRulers* rulers_;
  SwitchBars* switches_;
  SignalStrip* strip_;
  ProcedureCard* card_;
  Ticks history_due_{100};
  QPushButton *type_, *transmitter_, *channels_, *receiver_, *screen_;
};

}  // namespace rigging::app
