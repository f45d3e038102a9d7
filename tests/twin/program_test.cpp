#include <gtest/gtest.h>

#include <poll.h>
#include <signal.h>
#include <sys/socket.h>
#include <sys/un.h>
#include <sys/wait.h>
#include <unistd.h>
#include <chrono>
#include <random>

#include <cstring>

#include "base/file.h"
#include "base/json.h"
#include "link/client.h"
#include "places.h"
#include "rig/rig_file.h"

namespace rigging {
namespace {

const std::string demo_file = in_source("/data/demo/hedgerow.rig.json");

/// The real program in a folder of its own.
class Program {
 public:
  explicit Program(std::vector<std::string> more = {}) {
    char pattern[] = "/tmp/XXXXXX";
    folder = ::mkdtemp(pattern);
    start(std::move(more));
  }
  ~Program() {
    stop(SIGTERM);
    std::filesystem::remove_all(folder);
  }
  void start(std::vector<std::string> more) {
    std::vector<std::string> words{program("rigging-twin"), demo_file, "--sockets", folder, "--battery", "--store",
                                   folder + "/store"};
    words.insert(words.end(), more.begin(), more.end());
    int said[2];
    ASSERT_EQ(::pipe(said), 0);
    pid = ::fork();
    if (pid == 0) {
      std::vector<char*> argv;
      for (auto& w : words) argv.push_back(w.data());
      argv.push_back(nullptr);
      ::dup2(said[1], 1);
      ::close(said[0]);
      ::close(said[1]);
      ::execv(program("rigging-twin").c_str(), argv.data());
      ::_exit(127);
    }
    ::close(said[1]);
    std::string words_said;
    for (char c; words_said.find('\n') == std::string::npos && ::read(said[0], &c, 1) == 1;) words_said += c;
    ::close(said[0]);
    ASSERT_EQ(words_said.substr(0, 5), "ready") << words_said;
  }
  int stop(int signal) {
    if (pid <= 0) return 0;
    ::kill(pid, signal);
    int status = 0;
    ::waitpid(pid, &status, 0);
    pid = 0;
    // A killed program leaves its sockets behind; the next one must not be taken for ready because of them.
    std::filesystem::remove(folder + "/hands");
    std::filesystem::remove(folder + "/controller");
    return status;
  }
  std::string folder;
  pid_t pid = 0;
};

class Cable {
 public:
  explicit Cable(const std::string& path) {
    fd_ = ::socket(AF_UNIX, SOCK_STREAM, 0);
    sockaddr_un address{};
    address.sun_family = AF_UNIX;
    std::strncpy(address.sun_path, path.c_str(), sizeof address.sun_path - 1);
    EXPECT_EQ(::connect(fd_, reinterpret_cast<sockaddr*>(&address), sizeof address), 0) << path;
  }
  ~Cable() { ::close(fd_); }
  void send(const std::string& bytes) {
    EXPECT_EQ(::send(fd_, bytes.data(), bytes.size(), MSG_NOSIGNAL), static_cast<ssize_t>(bytes.size()));
  }
  std::optional<link::Reply> ask(const std::string& what, Json body = Json::object()) {
    send(client_.ask(what, std::move(body)).second);
    for (int i = 0; i < 100; ++i) {
      pollfd p{fd_, POLLIN, 0};
      if (::poll(&p, 1, 50) <= 0) continue;
      char block[4096];
      const ssize_t n = ::read(fd_, block, sizeof block);
      if (n <= 0) return std::nullopt;
      for (auto& item : client_.feed({block, static_cast<std::size_t>(n)}))
        if (auto* reply = std::get_if<link::Reply>(&item)) return *reply;
    }
    return std::nullopt;
  }

 private:
  int fd_;
  link::Client client_;
};

bool write_image(Cable& cable, const link::Image& image) {
  link::WriteTransaction transaction(image);
  while (auto request = transaction.next()) {
    const auto reply = cable.ask(link::request_name(*request), link::body_of(*request));
    if (!reply) return false;
    transaction.answered(*reply);
  }
  return transaction.done();
}

TEST(TwinProgram, ServesBothChannelsAndTellsOnlyWhatItMay) {
  Program shown({"--fault", "output_reversed:out_1"});
  Cable hands(shown.folder + "/hands"), controller(shown.folder + "/controller");
  const auto hello = hands.ask("hello");
  ASSERT_TRUE(hello);
  EXPECT_EQ(hello->body["faults"].size(), 1u);
  EXPECT_EQ(hello->body["simulated"], true);
  EXPECT_EQ(controller.ask("hello", {{"protocol", 1}})->body["kind"], "full_controller");
  EXPECT_FALSE(controller.ask("look")->ok()) << "eyes do not go through the cable";
  Program hidden({"--random", "2", "--seed", "9", "--hidden"});
  Cable other(hidden.folder + "/hands");
  EXPECT_TRUE(other.ask("hello")->body["faults"].empty());
}

TEST(TwinProgram, KeepsItsSettingsOverAKill) {
  Program program;
  Rig rig = *load_rig(demo_file);
  rig.outputs[2].mix.pitch = 0.4;
  {
    Cable controller(program.folder + "/controller");
    ASSERT_TRUE(write_image(controller, link::image_of(rig)));
  }
  program.stop(SIGKILL);
  program.start({});
  Cable controller(program.folder + "/controller");
  const auto image = link::image_in(*controller.ask("read"));
  ASSERT_TRUE(image);
  EXPECT_EQ(*image, link::image_of(rig));
}

TEST(TwinProgram, SurvivesNoiseAndACallerThatLeavesInTheMiddle) {
  Program program;
  const link::Image before = link::image_of(*load_rig(demo_file));
  for (int round = 0; round < 5; ++round) {
    Cable controller(program.folder + "/controller");
    controller.send(std::string(3000, static_cast<char>(200 + round)) + '\0');
    ASSERT_TRUE(controller.ask("stage_begin", {{"size", 100}, {"hash", "x"}}));
    controller.send("half a fra");
  }
  Cable controller(program.folder + "/controller");
  EXPECT_EQ(controller.ask("stage", {{"offset", 0}, {"bytes", Json::binary({1})}})->refused(), "nothing was begun")
      << "what the last caller staged is forgotten";
  EXPECT_EQ(*link::image_in(*controller.ask("read")), before);
  EXPECT_GE(controller.ask("hello", {{"protocol", 1}})->body["damaged_frames"].get<int>(), 5);
}

TEST(TwinProgram, HandsRefuseNonsense) {
  Program program;
  Cable hands(program.folder + "/hands");
  for (const auto& [what, body] :
       std::vector<std::pair<std::string, Json>>{{"stick", {{"axis", "collective"}}},
                                                 {"mode", {{"mode", "turbo"}}},
                                                 {"flick", {{"axis", 3}}},
                                                 {"work", {{"work", "swap_leads"}, {"outputs", {"out_1"}}}},
                                                 {"work", {{"work", "sing"}}},
                                                 {"fly", Json::object()}}) {
    const auto reply = hands.ask(what, body);
    ASSERT_TRUE(reply);
    EXPECT_FALSE(reply->ok()) << what;
    EXPECT_FALSE(reply->refused().empty());
  }
  EXPECT_TRUE(hands.ask("stick", {{"axis", "roll"}, {"position", 1e300}})->ok())
      << "positions are held within their range";
  EXPECT_TRUE(hands.ask("look")->ok());
}

TEST(TwinProgram, LeadsThatAreNotAsPlannedShowOnBothChannels) {
  Program program(
      {"--lead-fault", "pair_turned:gps", "--lead-fault", "wrong_socket:module_sense,serial_3", "--hidden"});
  Cable controller(program.folder + "/controller"), hands(program.folder + "/hands");
  const auto hello = hands.ask("hello");
  ASSERT_TRUE(hello && hello->ok());
  EXPECT_TRUE(hello->body["faults"].empty()) << "hidden";
  const auto sensed = controller.ask("sensors");
  ASSERT_TRUE(sensed && sensed->ok());
  EXPECT_EQ(sensed->body["ports"]["serial_4"], false);
  EXPECT_EQ(sensed->body["ports"]["serial_2"], true);
  EXPECT_EQ(sensed->body["battery_v"], 0.0);
  EXPECT_FALSE(hands.ask("inspect", {{"lead", "gps"}})->ok()) << "not while the battery is in";
  EXPECT_TRUE(hands.ask("supply", {{"usb", false}, {"battery", false}})->ok());
  EXPECT_EQ(hands.ask("inspect", {{"lead", "gps"}})->body["pair_turned"], true);
  EXPECT_EQ(hands.ask("inspect", {{"lead", "module_sense"}})->body["to"]["socket"], "serial_3");
  EXPECT_FALSE(hands.ask("inspect", {{"lead", "spaghetti"}})->ok());
  for (const char* lead : {"gps", "module_sense"}) EXPECT_TRUE(hands.ask("mend", {{"lead", lead}})->ok());
  EXPECT_TRUE(hands.ask("supply", {{"usb", false}, {"battery", true}})->ok());
  const auto after = controller.ask("sensors");
  ASSERT_TRUE(after && after->ok());
  EXPECT_EQ(after->body["ports"]["serial_4"], true);
  EXPECT_GT(after->body["battery_v"].get<double>(), 14);
}

TEST(TwinProgram, AMissingRedWireKeepsTheBoardFromAnswering) {
  Program program({"--lead-fault", "red_missing:esc_signal"});
  Cable controller(program.folder + "/controller"), hands(program.folder + "/hands");
  const auto look = hands.ask("look");
  ASSERT_TRUE(look && look->ok());
  // The board lives from the measuring module, the servos from the speed controller.
  EXPECT_EQ(look->body["servos_powered"], false);
  EXPECT_TRUE(controller.ask("sensors")->ok());
  const auto drive = controller.ask("drive", {{"output", "slot_1"}, {"level", 0.5}});
  ASSERT_TRUE(drive);
  EXPECT_FALSE(drive->ok());
  EXPECT_NE(drive->refused().find("red wires"), std::string::npos) << drive->refused();
}

// Who asks and never reads holds up only himself: the other channel answers, and the program still ends when told to.
TEST(TwinProgram, ACallerThatNeverReadsBlocksNobody) {
  Program program;
  const int fd = ::socket(AF_UNIX, SOCK_STREAM | SOCK_NONBLOCK, 0);
  sockaddr_un address{};
  address.sun_family = AF_UNIX;
  std::strncpy(address.sun_path, (program.folder + "/hands").c_str(), sizeof address.sun_path - 1);
  ASSERT_EQ(::connect(fd, reinterpret_cast<sockaddr*>(&address), sizeof address), 0);
  link::Client client;
  std::size_t poured = 0;
  for (int stuck = 0; stuck < 40 && poured < 4u << 20;) {
    const std::string ask = client.ask("look", Json::object()).second;
    const ssize_t n = ::send(fd, ask.data(), ask.size(), MSG_NOSIGNAL);
    if (n > 0) {
      poured += static_cast<std::size_t>(n);
      stuck = 0;
    } else {
      ++stuck;
      ::usleep(10000);
    }
  }
  EXPECT_LT(poured, 4u << 20) << "what is not taken off must not pile up inside";
  Cable controller(program.folder + "/controller");
  EXPECT_TRUE(controller.ask("hello", {{"protocol", 1}}));
  const auto before = std::chrono::steady_clock::now();
  const int status = program.stop(SIGTERM);
  EXPECT_TRUE(WIFEXITED(status) && WEXITSTATUS(status) == 0);
  EXPECT_LT(std::chrono::steady_clock::now() - before, std::chrono::seconds(20)) << "it was told to end";
  ::close(fd);
}

// Three hundred callers come and go in the middle of whatever they say; the board serves the next one as the first.
TEST(TwinProgram, ManyCallersComeAndGo) {
  Program program;
  std::mt19937 random(5);
  link::Client client;
  for (int i = 0; i < 300; ++i) {
    Cable cable(program.folder + (i % 2 ? "/hands" : "/controller"));
    std::string bytes;
    for (unsigned n = random() % 3; n > 0; --n) bytes += client.ask(i % 2 ? "look" : "read", Json::object()).second;
    bytes.resize(random() % (bytes.size() + 1));
    for (unsigned n = random() % 20; n > 0; --n) bytes += static_cast<char>(random());
    cable.send(bytes);
  }
  Cable controller(program.folder + "/controller");
  const auto image = link::image_in(*controller.ask("read"));
  ASSERT_TRUE(image);
  EXPECT_EQ(*image, link::image_of(*load_rig(demo_file)));
}

// Killed at any moment of a write, the board holds the old settings or the new ones, never something between.
TEST(TwinProgram, AKillInTheMiddleOfAWriteLeavesOneOrTheOther) {
  Program program;
  Rig rig = *load_rig(demo_file);
  link::Image before = link::image_of(rig);
  for (int round = 0; round < 12; ++round) {
    rig.outputs[2].mix.pitch = 0.1 + 0.05 * round;
    const link::Image after = link::image_of(rig);
    {
      Cable controller(program.folder + "/controller");
      link::WriteTransaction transaction(after);
      int left = round % 6;
      while (auto request = transaction.next()) {
        const auto [id, bytes] = link::Client().ask(link::request_name(*request), link::body_of(*request));
        (void)id;
        if (left-- == 0) {
          controller.send(bytes);
          ::usleep(static_cast<useconds_t>(300 * round));
          break;
        }
        const auto reply = controller.ask(link::request_name(*request), link::body_of(*request));
        ASSERT_TRUE(reply);
        transaction.answered(*reply);
      }
      program.stop(SIGKILL);
    }
    program.start({});
    Cable controller(program.folder + "/controller");
    const auto image = link::image_in(*controller.ask("read"));
    ASSERT_TRUE(image) << "round " << round;
    EXPECT_TRUE(*image == before || *image == after) << "round " << round;
    before = *image;
  }
}

// A place to keep settings that can't be written is told at the start, not when the first setting is lost.
TEST(TwinProgram, BadOptionsAreOneLineAndStatusTwo) {
  for (const char* arguments :
       {"", "/nonexistent.rig.json --sockets /tmp", "RIG --sockets /nonexistent/folder",
        "RIG --sockets /tmp --fault nonsense", "RIG --sockets /tmp --random 9",
        "RIG --sockets /tmp --store /nonexistent/store", "RIG --sockets /tmp --lead-fault pair_turned:nothing",
        "RIG --sockets /tmp --random-leads 9", "RIG --sockets /tmp --fault mix_sign_wrong:out_3,yaw"}) {
    std::string line = arguments;
    if (const auto at = line.find("RIG"); at != std::string::npos) line.replace(at, 3, demo_file);
    const int status = std::system((program("rigging-twin") + " " + line + " >/dev/null 2>rigging_twin_err").c_str());
    EXPECT_EQ(WEXITSTATUS(status), 2) << arguments;
    const std::string err = *read_file("rigging_twin_err");
    EXPECT_EQ(std::count(err.begin(), err.end(), '\n'), 1) << err;
  }
  std::filesystem::remove("rigging_twin_err");
}

}  // namespace
}  // namespace rigging
