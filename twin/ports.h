#pragma once

#include "bench.h"
#include "flying.h"
#include "link/frame.h"
#include "link/requests.h"
#include "store.h"

namespace rigging::twin {

/// The controller's end of its link: takes bytes, gives bytes. Holds the half-written configuration of a transaction.
class ControllerPort {
 public:
  ControllerPort(Bench& bench, Store& store, std::string firmware);

  /// Bytes that came in; the bytes to send back.
  std::string feed(std::string_view bytes);
  /// The cable was pulled: what was staged is forgotten.
  void disconnected();
  int damaged_frames() const { return damaged_; }

 private:
  Json answer(const Json& request);
  Json carry_out(const link::Hello&);
  Json carry_out(const link::Read&);
  Json carry_out(const link::StageBegin&);
  Json carry_out(const link::Stage&);
  Json carry_out(const link::Verify&);
  Json carry_out(const link::Commit&);
  Json carry_out(const link::ReadChannels&);
  Json carry_out(const link::ReadReceiver&);
  Json carry_out(const link::ReadOutputs&);
  Json carry_out(const link::ReadSensors&);
  Json carry_out(const link::ReadMotion&);
  Json carry_out(const link::Drive&);
  Json carry_out(const link::Release&);
  Json carry_out(const link::ReadState&);

  Bench& bench_;
  Store& store_;
  std::string firmware_;
  link::FrameReader reader_;
  int damaged_ = 0;
  int protocol_ = link::protocol_version;  ///< that the asker and this one speak
  bool staging_ = false, verified_ = false;
  std::string staged_, staged_hash_;
  std::size_t staged_size_ = 0;
};

/// The builder's hands and eyes.
class HandsPort {
 public:
  /// `shown` are the faults to tell; empty when they are hidden. `air`: how it flies, if it can.
  /// `time_by_hands`: time passes only as hands let it.
  HandsPort(Bench& bench, std::vector<std::string> shown, FlyingTruth air = never_flies(), bool time_by_hands = false);
  std::string feed(std::string_view bytes);

 private:
  Json answer(const Json& request);
  Json carry_out(const hands::Supply&);
  Json carry_out(const hands::Stick&);
  Json carry_out(const hands::Hold&);
  Json carry_out(const hands::Flick&);
  Json carry_out(const hands::ChooseMode&);
  Json carry_out(const hands::SwitchTransmitter&);
  Json carry_out(const hands::TurnControl&);
  Json carry_out(const hands::PressButton&);
  Json carry_out(const hands::ReadTransmitter&);
  Json carry_out(const hands::Dial&);
  Json carry_out(const hands::Clevis&);
  Json carry_out(const hands::Tooth&);
  Json carry_out(const hands::SetOutput&);
  Json carry_out(const hands::Inspect&);
  Json carry_out(const hands::Mend&);
  Json carry_out(const hands::Work&);
  Json carry_out(const hands::PushTube&);
  Json carry_out(const hands::TurnGain&);
  Json carry_out(const hands::Fly&);
  Json carry_out(const hands::ReadFlight&);
  Json carry_out(const hands::PassTime&);
  Json carry_out(const hands::Look&);

  Bench& bench_;
  FlyingTruth air_;
  bool time_by_hands_;
  std::string flight_;  ///< log of the last one
  std::vector<std::string> shown_;
  link::FrameReader reader_;
};

}  // namespace rigging::twin
