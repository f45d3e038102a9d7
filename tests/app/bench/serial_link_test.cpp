#include "bench/bench_link.h"

#include <gtest/gtest.h>

#include <QApplication>
#include <QElapsedTimer>

#include "bench_builder.h"
#include "link/frame.h"
#include "link/messages.h"
#include "look/literals.h"
#include "places.h"
#include "pseudo_terminal.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

/// A controller behind a serial device, played by the test. Nobody's hands.
class SerialController : public PseudoTerminal {
 public:
  SerialController() { held = link::image_bytes(link::image_of(*load_rig(in_source("/data/demo/hedgerow.rig.json")))); }

  std::string held;

  void serve() {
    char block[4096];
    for (ssize_t n = read(block, sizeof block); n > 0; n = read(block, sizeof block))
      reader_.feed({block, static_cast<std::size_t>(n)});
    while (!reader_.empty()) {
      const link::Received received = reader_.take();
      const Json* r = std::get_if<Json>(&received);
      if (!r) continue;
      Json reply = answer(*r, text_member(*r, "do"));
      reply["id"] = (*r)["id"];
      const std::string bytes = link::encode_frame(reply);
      // In pieces, as a serial line brings them.
      for (std::size_t at = 0; at < bytes.size(); at += 37) write(std::string_view(bytes).substr(at, 37));
    }
  }

 private:
  Json answer(const Json& r, const std::string& what) {
    if (what == "hello")
      return link::to_json(link::HelloReply{link::protocol_version, "full_controller", "9.9", false, 0, true});
    if (what == "read") return link::to_json(link::ImageReply{held, link::image_hash(held)});
    if (what == "stage_begin") staged_.clear();
    if (what == "stage") staged_ += *link::bytes_member(r, "bytes");
    if (what == "commit") held = staged_;
    if (what == "channels") return link::to_json(link::ChannelsReply{{{"roll", 1700.0}}, false});
    return {{"ok", true}};
  }

  link::FrameReader reader_;
  std::string staged_;
};

template <class Done>
bool until(SerialController& controller, Done&& done) {
  QElapsedTimer timer;
  timer.start();
  while (!done() && timer.elapsed() < 8000) {
    controller.serve();
    QApplication::processEvents(QEventLoop::AllEvents, 5);
  }
  return done();
}

TEST(SerialLink, AControllerWithoutHandsConnectsIsReadWrittenAndMissed) {
  Clock::instance().take_by_hand(false);  // a device keeps its own time
  SerialController controller;
  BenchLink bench;
  QString words;
  QObject::connect(&bench, &BenchLink::written,
                   [&](bool good, const QString& w) { words = good ? w : u"failed: "_s + w; });
  bench.connect_device(controller.device());
  ASSERT_TRUE(until(controller, [&] { return bench.board().has_value(); }));
  EXPECT_TRUE(bench.controller_answers());
  EXPECT_FALSE(bench.hands_connected());
  EXPECT_FALSE(bench.simulated()) << "a real board is no simulation";
  EXPECT_EQ(bench.firmware(), u"9.9"_s);
  EXPECT_TRUE(bench.state_words().contains(controller.device())) << bench.state_words().toStdString();
  ASSERT_TRUE(until(controller, [&] { return bench.channels().count("roll") > 0; }));
  EXPECT_EQ(bench.channels().at("roll"), 1700);

  Rig rig = *load_rig(in_source("/data/demo/hedgerow.rig.json"));
  rig.outputs[0].reversed = true;
  bench.write(link::image_of(rig));
  ASSERT_TRUE(until(controller, [&] { return !words.isEmpty(); }));
  EXPECT_FALSE(words.startsWith(QLatin1String("failed"))) << words.toStdString();
  EXPECT_EQ(controller.held, link::image_bytes(link::image_of(rig)));
  EXPECT_EQ(*bench.board(), link::image_of(rig));

  controller.unplug();
  EXPECT_TRUE(until(controller, [&] { return !bench.controller_answers(); })) << "a pulled cable is noticed";
}

TEST(SerialLink, ADeviceThatIsNotThereIsSaid) {
  Clock::instance().take_by_hand(false);  // a device keeps its own time
  BenchLink bench;
  QString words;
  QObject::connect(&bench, &BenchLink::problem, [&](const QString& w) { words = w; });
  bench.connect_device(u"/dev/no_such_device"_s);
  EXPECT_TRUE(words.contains(u"/dev/no_such_device"_s)) << words.toStdString();
  EXPECT_FALSE(bench.controller_answers());
}

TEST(SerialLink, TheWindowWorksWithAControllerThatHasNoHands) {
  SerialController controller;
  Builder b({}, 2, 8, true);  // a device keeps its own time
  ASSERT_TRUE(b.open("hedgerow", Station::proof));
  b.window.bench().connect_device(controller.device());
  ASSERT_TRUE(until(controller, [&] { return b.window.bench().board().has_value(); }));
  b.proof().go_to(u"stick.roll"_s);
  EXPECT_FALSE(b.can_click(u"do_it"_s)) << "no hands to do it";
  EXPECT_TRUE(b.can_click(u"as_shown"_s));
  ASSERT_TRUE(b.click(u"as_shown"_s));
  ASSERT_EQ(b.window.document().rig().proofs.size(), 1u);
  EXPECT_FALSE(b.window.document().rig().proofs[0].simulated);
}

}  // namespace
}  // namespace rigging::app
