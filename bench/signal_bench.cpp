#include <benchmark/benchmark.h>

#include <boost/dynamic_bitset.hpp>
#include <cstring>
#include <random>

#include "signal/signal.h"

namespace rigging {
namespace {

std::string capture(Signal signal) {
  std::mt19937 random(1);
  std::string bytes;
  for (int i = 0; i < 40000; ++i) {
    ChannelFrame f;
    f.channels = 16;
    for (float& p : f.pulse_us) p = static_cast<float>(1000 + random() % 1000);
    bytes +=
        signal == Signal::inverted_serial ? encode_inverted_serial(f) : encode_two_way(f, static_cast<std::uint8_t>(i));
  }
  return bytes;
}

void decode_bytes(benchmark::State& state, Signal signal) {
  const std::string bytes = capture(signal);
  std::vector<ChannelFrame> frames;
  for (auto _ : state) {
    frames.clear();
    ByteDecoder decoder(signal);
    decoder.feed(bytes, frames);
    decoder.finish(frames);
    benchmark::DoNotOptimize(frames.data());
  }
  state.SetBytesProcessed(static_cast<std::int64_t>(state.iterations() * bytes.size()));
}
BENCHMARK_CAPTURE(decode_bytes, inverted_serial, Signal::inverted_serial);
BENCHMARK_CAPTURE(decode_bytes, two_way_serial, Signal::two_way_serial);

/// The general-purpose alternative: a library's bit set, channels taken out bit by bit, at known places.
void decode_by_bitset(benchmark::State& state) {
  const std::string bytes = capture(Signal::inverted_serial);
  std::vector<ChannelFrame> frames;
  for (auto _ : state) {
    frames.clear();
    for (std::size_t at = 0; at + 25 <= bytes.size(); at += 25) {
      boost::dynamic_bitset<unsigned char> bits(reinterpret_cast<const unsigned char*>(bytes.data()) + at + 1,
                                                reinterpret_cast<const unsigned char*>(bytes.data()) + at + 23);
      ChannelFrame& f = frames.emplace_back();
      for (std::size_t c = 0; c < 16; ++c) {
        unsigned raw = 0;
        for (std::size_t b = 0; b < 11; ++b) raw |= static_cast<unsigned>(bits[c * 11 + b]) << b;
        f.pulse_us[c] = 880 + 0.625f * static_cast<float>(raw);
      }
    }
    benchmark::DoNotOptimize(frames.data());
  }
  state.SetBytesProcessed(static_cast<std::int64_t>(state.iterations() * bytes.size()));
}
BENCHMARK(decode_by_bitset);

}  // namespace
}  // namespace rigging
