#include <poll.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/un.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <chrono>
#include <csignal>
#include <cstring>
#include <fstream>
#include <iostream>

#include "base/data_folder.h"
#include "base/file.h"
#include "direction/from_rig.h"
#include "direction/reason.h"
#include "ports.h"
#include "rig/rig_file.h"
#include "wiring/ports.h"

namespace rigging::twin {
namespace {

volatile std::sig_atomic_t asked_to_stop = 0;

/// One Unix socket with one caller at a time, as a cable has.
class Listener {
 public:
  Result<void> open(const std::string& path) {
    sockaddr_un address{};
    address.sun_family = AF_UNIX;
    if (path.size() >= sizeof address.sun_path)
      return failure(path, "the path is too long for a socket", "at most 107 characters");
    std::strncpy(address.sun_path, path.c_str(), sizeof address.sun_path - 1);
    struct stat status {};
    if (::lstat(path.c_str(), &status) == 0) {
      if (!S_ISSOCK(status.st_mode)) return failure(path, "exists and is no socket", "a free name");
      ::unlink(path.c_str());
    }
    listening_ = ::socket(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0);
    const mode_t mask = ::umask(0077);
    const bool bound = listening_ >= 0 &&
                       ::bind(listening_, reinterpret_cast<sockaddr*>(&address), sizeof address) == 0 &&
                       ::listen(listening_, 2) == 0;
    ::umask(mask);
    if (!bound)
      return failure(path, std::string("can't listen: ") + std::strerror(errno), "a folder that can be written");
    path_ = path;
    return {};
  }
  ~Listener() {
    if (caller_ >= 0) ::close(caller_);
    if (listening_ >= 0) ::close(listening_);
    if (!path_.empty()) ::unlink(path_.c_str());
  }

  /// What poll should watch: the caller if there is one, else the door. Who doesn't read what was answered is not
  /// listened to until it does.
  pollfd watched() const {
    if (caller_ < 0) return {listening_, POLLIN, 0};
    return {caller_, static_cast<short>(unsent_.empty() ? POLLIN : POLLOUT), 0};
  }

  template <class Feed, class Gone>
  void ready(Feed&& feed, Gone&& gone) {
    if (caller_ < 0) {
      caller_ = ::accept4(listening_, nullptr, nullptr, SOCK_CLOEXEC | SOCK_NONBLOCK);
      return;
    }
    bool alive = true;
    if (unsent_.empty()) {
      char bytes[4096];
      const ssize_t n = ::read(caller_, bytes, sizeof bytes);
      alive = n > 0 || (n < 0 && would_wait());
      if (n > 0) unsent_ = feed(std::string_view(bytes, static_cast<std::size_t>(n)));
    }
    while (alive && !unsent_.empty()) {
      const ssize_t w = ::send(caller_, unsent_.data(), unsent_.size(), MSG_NOSIGNAL);
      if (w < 0 && would_wait()) break;
      alive = w > 0;
      if (alive) unsent_.erase(0, static_cast<std::size_t>(w));
    }
    if (!alive) {
      ::close(caller_);
      caller_ = -1;
      unsent_.clear();
      gone();
    }
  }

 private:
  static bool would_wait() { return errno == EAGAIN || errno == EWOULDBLOCK || errno == EINTR; }

  int listening_ = -1, caller_ = -1;
  std::string unsent_;  ///< at most what one read of 4096 bytes is answered with
  std::string path_;
};

struct Options {
  std::string rig, sockets, store, data = data_folder().string(), firmware = "0.9.2";
  std::vector<std::string> faults, lead_faults, sense_faults;
  int random = 0, random_leads = 0;
  unsigned seed = 1;
  bool bad_sticks = false, cold_sticks = false, crooked = false, poor_senses = false;
  bool differs = false, hidden = false, battery = false, with_parent = false, time_by_hands = false;
};

Result<int> run(const Options& options) {
  const auto rig = load_rig(options.rig);
  if (!rig) return tl::make_unexpected(rig.error());
  auto catalogue = load_catalogue(options.data + "/catalogue");
  if (!catalogue) return tl::make_unexpected(catalogue.error());
  std::error_code unknown;
  if (const auto own = own_parts_path(options.rig); std::filesystem::exists(own, unknown))
    if (const auto ok = add_own_parts(*catalogue, own); !ok) return tl::make_unexpected(ok.error());
  const ControllerClass* controller = catalogue->controller(rig->controller.kind);
  if (!controller)
    return failure(options.rig + ": /controller/kind", "\"" + rig->controller.kind + "\" is not in the catalogue",
                   "a known class");

  const direction::Case c = direction::case_from_rig(*rig, *controller);
  std::vector<direction::Fault> faults;
  for (const std::string& text : options.faults) {
    const auto fault = fault_from_text(text, c);
    if (!fault) return tl::make_unexpected(fault.error());
    faults.push_back(*fault);
  }
  if (options.random > 0)
    for (const auto& f : drawn_faults(*rig, *controller, options.random, options.seed)) faults.push_back(f);
  auto truth = truth_of(*rig, *controller, faults);
  if (!truth) return tl::make_unexpected(truth.error());
  truth->signal = receiver_signal(*rig, *catalogue).value_or(Signal::inverted_serial);
  if (options.bad_sticks) set_badly(*truth, *rig, options.seed);
  if (options.cold_sticks) make_cold(*truth);
  if (options.crooked) make_crooked(*truth, *rig, *catalogue, options.seed);

  std::vector<LeadFault> lead_faults;
  for (const std::string& text : options.lead_faults) {
    const auto fault = lead_fault_from_text(text, *rig, *catalogue);
    if (!fault) return tl::make_unexpected(fault.error());
    lead_faults.push_back(*fault);
  }
  if (options.random_leads > 0)
    for (const LeadFault& f : drawn_lead_faults(*rig, *catalogue, options.random_leads, options.seed))
      lead_faults.push_back(f);

  const Reports reports(*rig, *catalogue);
  SensesTruth senses = senses_of(reports);
  sit_as(senses, *rig, truth->board);
  if (options.poor_senses) make_poor(senses, options.seed);
  for (const std::string& name : options.sense_faults)
    if (const auto ok = add_sense_fault(senses, name); !ok) return tl::make_unexpected(ok.error());
  Bench bench(*rig, *controller, *truth, Harness(*rig, *catalogue, lead_faults), senses);
  if (options.battery) bench.plug({false, true});
  std::string memory;
  if (!options.store.empty() && std::filesystem::exists(options.store, unknown)) {
    const auto kept = read_file(options.store, 1 << 20);
    if (!kept) return tl::make_unexpected(kept.error());
    memory = *kept;
  }
  Store store(memory);
  // Told now, not when the first setting would be lost. Only asked, not written: a busy disk would hold up the start.
  if (!options.store.empty()) {
    const auto folder = std::filesystem::absolute(options.store).parent_path();
    const bool there = std::filesystem::exists(options.store, unknown);
    if (::access(folder.c_str(), W_OK | X_OK) != 0 || (there && ::access(options.store.c_str(), W_OK) != 0))
      return failure(options.store, "can't be written", "a file in a folder that can be written");
  }
  ControllerPort controller_port(bench, store, options.firmware);
  std::vector<std::string> shown;
  if (!options.hidden) {
    for (const auto& f : faults) shown.push_back(direction::fault_text(f, c));
    for (const LeadFault& f : lead_faults) shown.push_back(lead_fault_text(f));
    if (options.bad_sticks) shown.push_back("the transmitter is set badly");
    if (options.cold_sticks) shown.push_back("the transmitter is cold");
    if (options.crooked) shown.push_back("the linkages are crooked");
    if (options.poor_senses) shown.push_back("the sensors are poor and iron is near the compass");
    if (options.differs) shown.push_back("in the air it is not quite what its rig makes one expect");
    for (const std::string& name : options.sense_faults) shown.push_back(name);
  }
  FlyingTruth air = flying_of(reports);
  if (options.differs) make_different(air, options.seed);
  HandsPort hands_port(bench, shown, air, options.time_by_hands);

  Listener controller_socket, hands_socket;
  for (auto& [listener, name] :
       {std::pair<Listener&, const char*>{controller_socket, "/controller"}, {hands_socket, "/hands"}})
    if (const auto ok = listener.open(options.sockets + name); !ok) return tl::make_unexpected(ok.error());
  std::cout << "ready (simulated): " << options.sockets << std::endl;

  const pid_t parent = ::getppid();
  using clock = std::chrono::steady_clock;
  auto then = clock::now();
  std::string saved = store.memory();
  while (!asked_to_stop) {
    pollfd watched[2] = {controller_socket.watched(), hands_socket.watched()};
    ::poll(watched, 2, 10);
    const auto now = clock::now();
    const double left = std::min(std::chrono::duration<double>(now - then).count(), 0.5);
    then = now;
    if (!options.time_by_hands) pass_time(bench, left);
    if (watched[0].revents)
      controller_socket.ready([&](auto bytes) { return controller_port.feed(bytes); },
                              [&] { controller_port.disconnected(); });
    if (watched[1].revents) hands_socket.ready([&](auto bytes) { return hands_port.feed(bytes); }, [] {});
    if (!options.store.empty() && store.memory() != saved) {
      saved = store.memory();
      if (const auto ok = write_file_atomically(options.store, saved); !ok)
        std::cerr << "rigging-twin: " << ok.error().text() << '\n';
    }
    if (options.with_parent && ::getppid() != parent) break;
  }
  return 0;
}

}  // namespace
}  // namespace rigging::twin

int main(int argc, char** argv) {
  using namespace rigging::twin;
  Options options;
  CLI::App app{"The simulated bench: controller, receiver, servos and the aeroplane in the hand"};
  app.add_option("RIG", options.rig, "Rig file that the aeroplane is built from")->required();
  app.add_option("--sockets", options.sockets, "Folder for the Unix sockets \"controller\" and \"hands\"")->required();
  app.add_option("--fault", options.faults, "A fault such as output_reversed:out_1 (docs/twin.md); repeat for more");
  app.add_option("--lead-fault", options.lead_faults,
                 "A lead that is not as planned, such as pair_turned:gps (docs/twin.md); repeat for more");
  app.add_option("--sense-fault", options.sense_faults,
                 "A sense that is not as it should be, such as bumped (docs/twin.md); repeat for more");
  app.add_option("--random-leads", options.random_leads, "Number of lead faults to draw")->check(CLI::Range(0, 4));
  app.add_option("--random", options.random, "Number of faults to draw")->check(CLI::Range(0, 4));
  app.add_flag("--bad-sticks", options.bad_sticks, "A transmitter that is set badly: order, direction, centre, ends");
  app.add_flag("--cold-sticks", options.cold_sticks, "Gimbals that drift while they warm up");
  app.add_flag("--poor-senses", options.poor_senses, "Sensors that are off, and iron near the compass");
  app.add_flag("--crooked", options.crooked, "Linkages and servos that are not straight");
  app.add_flag("--differs", options.differs, "In the air it is not quite what its rig makes one expect");
  app.add_option("--seed", options.seed, "Seed of the draw");
  app.add_flag("--hidden", options.hidden, "Do not tell the faults");
  app.add_flag("--with-parent", options.with_parent, "Leave when the program that started it is gone");
  app.add_flag("--time-by-hands", options.time_by_hands, "Time stands but for what hands let pass (docs/twin.md)");
  app.add_flag("--battery", options.battery, "Start with the battery plugged in");
  app.add_option("--store", options.store, "File that keeps the controller's settings");
  app.add_option("--data", options.data, "Data folder");
  app.add_option("--firmware", options.firmware, "Version that the controller reports");
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    if (error.get_exit_code() == 0) return app.exit(error);
    std::cerr << "rigging-twin: " << error.what() << '\n';
    return 2;
  }
  std::signal(SIGINT, [](int) { asked_to_stop = 1; });
  std::signal(SIGTERM, [](int) { asked_to_stop = 1; });
  const auto status = run(options);
  if (status) return *status;
  std::cerr << "rigging-twin: " << status.error().text() << '\n';
  return 2;
}
