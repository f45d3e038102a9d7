#include "bench/bench_link.h"

#include <QFileInfo>
#include "look/literals.h"

namespace rigging::app {
namespace {

constexpr int poll_ms = 10, connect_ms = 30, most_tries = 200;
constexpr int ticks_a_look = 3;
/// Where nobody did anything for so long, and nothing moved, it is looked at no more often than an eye would.
constexpr double rests_after_s = 1;
constexpr int rest_poll_ms = 50, rest_ticks_a_look = 2;

}  // namespace

BenchLink::BenchLink(QObject* parent) : QObject(parent), poll_(poll_ms) {
  connect(&poll_, &Ticks::timeout, this, &BenchLink::poll);
  connect_.setInterval(connect_ms);
  connect(&connect_, &QTimer::timeout, this, &BenchLink::try_to_connect);
  connect(&Clock::instance(), &Clock::passed, this, [this](double s) {
    hands_.pass_time(s);
    board_.pump();
  });

  connect(&twin_, &TwinProcess::problem, this, [this](const QString& words) {
    connect_.stop();
    Q_EMIT problem(words);
  });

  connect(&board_, &BoardLink::opened, this, [this] {
    poll_.start();
    Q_EMIT state_changed();
  });
  connect(&board_, &BoardLink::lost, this, &BenchLink::lost);
  connect(&board_, &BoardLink::greeted, this, &BenchLink::state_changed);
  connect(&board_, &BoardLink::fell_silent, this, [this] {
    receiver_.unpowered();
    Q_EMIT state_changed();
  });
  connect(&board_, &BoardLink::receiver_told, this, [this](const link::ReceiverReply& wire) {
    wire.unpowered ? receiver_.unpowered() : receiver_.take(wire.signal, wire.chunks, wire.edges);
  });
  connect(&board_, &BoardLink::channels_heard, this, &BenchLink::channels_heard);
  connect(&board_, &BoardLink::sensed, this, &BenchLink::board_sensed);
  connect(&board_, &BoardLink::told, this, &BenchLink::board_told);
  connect(&board_, &BoardLink::motion_heard, this, &BenchLink::motion_heard);
  connect(&board_, &BoardLink::was_read, this, &BenchLink::board_read);
  connect(&board_, &BoardLink::written, this, &BenchLink::written);
  connect(&board_, &BoardLink::problem, this, &BenchLink::problem);

  connect(&hands_, &HandsLink::lost, this, &BenchLink::lost);
  connect(&hands_, &HandsLink::seen, this, &BenchLink::seen);
  connect(&hands_, &HandsLink::changed, this, &BenchLink::state_changed);
  connect(&hands_, &HandsLink::supply_out, &board_, &BoardLink::supply_out);
  connect(&hands_, &HandsLink::done, this, &BenchLink::hands_done);
  connect(&hands_, &HandsLink::flew, this, &BenchLink::flew);
  connect(&hands_, &HandsLink::inspected, this, &BenchLink::inspected);
  connect(&hands_, &HandsLink::transmitter_read, this, &BenchLink::transmitter_read);
  connect(&hands_, &HandsLink::problem, this, &BenchLink::problem);

  connect(&receiver_, &ReceiverLink::frames_heard, this, &BenchLink::frames_heard);
  connect(&receiver_, &ReceiverLink::listening_changed, this, &BenchLink::state_changed);
  connect(&receiver_, &ReceiverLink::problem, this, &BenchLink::problem);
}

BenchLink::~BenchLink() {
  blockSignals(true);
  stop();
}

void BenchLink::start_twin(const TwinOptions& options) {
  stop();
  stop_listening();
  connect_to(twin_.start(options));
}

void BenchLink::connect_to(const QString& folder) {
  where_ = folder;
  connect_tries_ = 0;
  connect_.start();
}

void BenchLink::try_to_connect() {
  if (++connect_tries_ > most_tries) {
    connect_.stop();
    if (!board_.open()) Q_EMIT problem(u"The bench does not answer at %1"_s.arg(where_));
    return;
  }
  const QString hands = where_ + u"/hands"_s;
  if (!board_.open()) board_.connect_to(where_ + u"/controller"_s);
  if (hands_.idle() && QFileInfo::exists(hands)) hands_.connect_to(hands);
  if (!board_.open() || !hands_connected()) return;
  connect_.stop();
  Q_EMIT state_changed();
}

void BenchLink::connect_device(const QString& device) {
  stop();
  stop_listening();
  where_ = device;
  board_.connect_device(device);
}

void BenchLink::stop() {
  connect_.stop();
  twin_.stop();
  lost();
}

void BenchLink::lost() {
  poll_.stop();
  hands_.close();
  board_.close();
  receiver_.unpowered();
  Q_EMIT state_changed();
}

void BenchLink::listen_to(const ReceiverAt& receiver) {
  stop();
  receiver_.listen_to(receiver);
}

void BenchLink::poll() {
  const bool rests = hands_.connected() && !board_.writing() &&
                     Clock::instance().now_s() - std::max(hands_.stirred_s(), board_.stirred_s()) > rests_after_s;
  if (rests != std::exchange(rests_, rests)) poll_.start(rests ? rest_poll_ms : poll_ms);
  if (++ticks_ % (rests ? rest_ticks_a_look : ticks_a_look) == 0) hands_.look();
  board_.pump();
}

bool BenchLink::simulated() const { return hands_connected() || (board_.hello() && board_.hello()->simulated); }

QString BenchLink::firmware() const {
  return board_.hello() ? QString::fromStdString(board_.hello()->firmware) : QString();
}

bool BenchLink::is_another_class(const std::string& wanted) const {
  return board_.hello() && board_.hello()->kind != wanted;
}

QString BenchLink::kind() const { return board_.hello() ? QString::fromStdString(board_.hello()->kind) : QString(); }

QString BenchLink::state_words() const {
  if (listening()) return u"A receiver by itself is listened to"_s;
  if (!board_.open()) return connecting() ? u"Connecting to the simulated bench…"_s : u"No bench connected"_s;
  const QString answers = controller_answers() ? u"controller answers, firmware %1"_s.arg(firmware()) : QString();
  if (!hands_connected()) {
    const QString where = simulated() ? u"Simulated controller at %1"_s : u"Controller at %1"_s;
    return u"%1 · %2"_s.arg(where.arg(where_), answers.isEmpty() ? u"waiting for an answer"_s : answers);
  }
  const hands::Sight& seen = sight();
  const QString supply = seen.battery ? (seen.usb ? u"USB and battery"_s : u"battery"_s)
                         : seen.usb   ? u"USB only"_s
                                      : u"no supply"_s;
  return u"Simulated bench · %1 · %2"_s.arg(supply, !answers.isEmpty()  ? answers
                                                    : seen.lamp.empty() ? u"waiting"_s
                                                                        : QString::fromStdString(seen.lamp));
}

}  // namespace rigging::app
