#pragma once

#include <optional>

#include "bench/bench_link.h"
#include "stations/station_page.h"
#include "sticks/setup.h"
#include "sticks/stick_checks.h"

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace rigging::app {

class ReachRulers;
class SignalStrip;

/// Does the controller hear what I mean? Listens while the hand moves one stick at a time, and says what to dial in.
class SticksPage : public StationPage {
  Q_OBJECT
 public:
  explicit SticksPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<Request> requests() override;
  bool uses_bench() const override { return true; }

  /// What the builder is asked to do now; empty when nothing is under way.
  QString todo() const;
  const std::optional<StickSetup>& listening() const { return setup_; }

 protected:
  void refresh() override;

 private:
  void show_card();
  enum class Doing { nothing, sticks, a_switch, loss };
  void listen();
  void stop();
  void heard(const std::vector<ChannelFrame>& frames);
  void finish_sticks();
  void finish_switch();
  void watch_loss(const std::vector<ChannelFrame>& frames);
  void dial();
  void learn();
  void type_in();
  void transmitter();
  void channels();
  void record(const CheckId& check);
  /// How the receiver took the loss, as heard, or as the builder saw it.
  void loss_seen(OnLoss behaviour);
  void update_card();
  std::vector<ChannelFunction> needed() const;
  bool can_listen() const;

  ReachRulers* rulers_;
  SignalStrip* strip_;
  QLabel *todo_, *remark_, *found_, *facts_, *caution_;
  QPushButton *listen_, *again_, *dial_, *learn_, *write_, *switch_, *loss_, *record_, *type_, *transmitter_,
      *channels_, *card_, *hidden_;
  Doing doing_ = Doing::nothing;
  std::optional<StickSetup> setup_;
  std::optional<SwitchSetup> switch_setup_;
  QString result_;
};

}  // namespace rigging::app
