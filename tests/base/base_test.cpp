#include <gtest/gtest.h>

#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>
#include <csignal>

#include <chrono>
#include <fstream>

#include <Eigen/Dense>
#include <set>

#include "base/clean_text.h"
#include "base/fields.h"
#include "base/fingerprint.h"
#include "base/json.h"
#include "base/number.h"
#include "base/point.h"
#include "base/turn.h"
#include "rig/surface.h"

namespace rigging {
namespace {

Eigen::Matrix3d matrix_of(const Turn& t) {
  Eigen::Vector3d x = Eigen::Vector3d::Zero(), top = Eigen::Vector3d::Zero();
  x[t.arrow.axis] = t.arrow.sign;
  top[t.top.axis] = t.top.sign;
  Eigen::Matrix3d m;
  m.row(0) = x.transpose();
  m.row(1) = (-top).cross(x).transpose();
  m.row(2) = -top.transpose();
  return m;
}

// The 24 proper rotations of the cube, with Eigen as reference.
TEST(Turn, SensesAsTheRotationMatrixDoes) {
  for (const Turn& t : all_turns()) {
    const Eigen::Matrix3d m = matrix_of(t);
    EXPECT_NEAR(m.determinant(), 1, 1e-12) << t.name();
    for (int axis = 0; axis < 3; ++axis) {
      const Eigen::Vector3d sensed = m * Eigen::Vector3d::Unit(axis);
      const SignedAxis s = t.sensed(axis);
      EXPECT_NEAR(sensed[s.axis], s.sign, 1e-12) << t.name() << " axis " << axis;
    }
  }
}

TEST(Turn, ComposesAsMatricesDo) {
  for (const Turn& frame : all_turns())
    for (const Turn& inner : all_turns()) {
      const Turn both = inner.inside(frame);
      EXPECT_TRUE(matrix_of(both).isApprox(matrix_of(inner) * matrix_of(frame)))
          << inner.name() << " in " << frame.name();
    }
  EXPECT_EQ(Turn{}.inside(Turn{}), Turn{});
}

TEST(Turn, NamesAreTheFixedOnes) {
  EXPECT_EQ(Turn{}.name(), "none");
  EXPECT_EQ(*turn_from_name("arrow_nose_top_up"), Turn{});
  EXPECT_EQ(turn_from_name("arrow_right_top_up")->sensed(0), (SignedAxis{1, -1}))
      << "arrow right: rolling right is felt as the board's nose going down";
  for (const char* bad :
       {"", "arrow_nose_top_tail", "arrow_nose_top_nose", "arrow_up", "ARROW_NOSE_TOP_UP", "arrow_nose_top_up "})
    EXPECT_FALSE(turn_from_name(bad)) << bad;
  std::set<std::string> names;
  for (const Turn& t : all_turns()) EXPECT_TRUE(names.insert(t.label()).second);
}

TEST(Surface, WordsGoThereAndBack) {
  for (const Surface s : all_surfaces()) {
    EXPECT_EQ(surface_from_name(s.name()), s);
    for (const int direction : {-1, 0, 1})
      EXPECT_EQ(motion_from_name(s, motion_word(s, direction)), direction) << s.name();
    EXPECT_FALSE(motion_from_name(s, "sideways"));
  }
  EXPECT_EQ(all_surfaces().size(), 23u);
  EXPECT_FALSE(surface_from_name("aileron")) << "paired kinds need a side";
  EXPECT_FALSE(surface_from_name("motor"));
  EXPECT_TRUE(surface_from_name("rudder_left"));
  EXPECT_FALSE(motion_from_name({SurfaceKind::rudder, Side::single}, "up"));
  EXPECT_FALSE(motion_from_name({SurfaceKind::elevator, Side::single}, "faster"));
}

// Common practice.
TEST(Surface, RequiredDirections) {
  const auto way = [](const char* word, Axis axis) { return required_direction(*surface_from_name(word), axis); };
  EXPECT_EQ(way("aileron_right", Axis::roll), 1);
  EXPECT_EQ(way("flaperon_left", Axis::roll), -1);
  EXPECT_EQ(way("taileron_left", Axis::pitch), 1);
  EXPECT_EQ(way("canard", Axis::pitch), -1);
  EXPECT_EQ(way("canard_left", Axis::pitch), -1);
  EXPECT_EQ(way("vtail_right", Axis::yaw), -1);
  EXPECT_EQ(way("inverted_v_right", Axis::yaw), 1);
  EXPECT_EQ(way("motor_left", Axis::yaw), 1);
  EXPECT_EQ(way("rudder", Axis::roll), 1) << "without ailerons the rudder answers roll";
  EXPECT_EQ(way("rudder", Axis::pitch), 0);
  EXPECT_EQ(way("aileron_left", Axis::yaw), 0);
}

TEST(Number, IsShortAndNeverMinusZero) {
  EXPECT_EQ(number_text(1.5, 3), "1.5");
  EXPECT_EQ(number_text(-0.0001, 2), "0");
  EXPECT_EQ(number_text(1000, 0), "1000");
  EXPECT_EQ(number_text(12.3456, 2), "12.35");
  EXPECT_EQ(number_text(-1e300, 1), "-1e+300");
  EXPECT_EQ(number_text(999999999999999, 0), "999999999999999");
}

TEST(Words, AreChoices) {
  EXPECT_EQ(choice_of<Axis>(), "roll, pitch or yaw");
  EXPECT_EQ(from_name<Axis>("pitch"), Axis::pitch);
  EXPECT_FALSE(from_name<Axis>("Pitch"));
  EXPECT_EQ(capital("left"), "Left");
  EXPECT_EQ(capital(""), "");
}

TEST(Fingerprint, KeepsPiecesApart) {
  // FNV-1a, 64 bits, of the empty input is its offset basis (Fowler, Noll, Vo).
  EXPECT_EQ(Fingerprint().value(), 0xcbf29ce484222325u);
  // By hand in another language, as the link's document says: FNV-1a over "a" and one closing byte 1f.
  EXPECT_EQ(Fingerprint().add("a").text(), "089be907b544fdc9");
  EXPECT_NE(Fingerprint().add("ab").add("c").text(), Fingerprint().add("a").add("bc").text());
  EXPECT_EQ(Fingerprint().add("x").text().size(), 16u);
}

TEST(Point, TurnsByTheRightHandRule) {
  const Point p = turned({1, 0, 0}, {0, 0, 0}, {0, 0, 5}, 1.5707963267948966);
  EXPECT_NEAR(p.x(), 0, 1e-12);
  EXPECT_NEAR(p.y(), 1, 1e-12);
  // Rodrigues' formula, about a line that misses the nose.
  const Point origin{0.1, 0.2, -0.4}, k = Point(1, 2, 3) / std::sqrt(14.0), v = Point(0.3, -0.2, 0.9) - origin;
  const Point along = k * (k.x() * v.x() + k.y() * v.y() + k.z() * v.z());
  const Point across{k.y() * v.z() - k.z() * v.y(), k.z() * v.x() - k.x() * v.z(), k.x() * v.y() - k.y() * v.x()};
  const Point wanted = origin + along + (v - along) * std::cos(0.7) + across * std::sin(0.7);
  EXPECT_LT((turned({0.3, -0.2, 0.9}, origin, {1, 2, 3}, 0.7) - wanted).norm(), 1e-12);
  EXPECT_EQ(Point(), Point(0, 0, 0)) << "a point begins at the nose";
}

TEST(JsonMembers, AreReadLeniently) {
  const Json json = Json::parse(R"({"a":"x","b":2,"c":true,"d":["p",3,"q"]})");
  EXPECT_EQ(text_member(json, "a"), "x");
  EXPECT_EQ(text_member(json, "b", "none"), "none");
  EXPECT_EQ(number_member(json, "b", 0), 2);
  EXPECT_EQ(number_member(json, "a", 7), 7);
  EXPECT_TRUE(flag_member(json, "c", false));
  EXPECT_EQ(texts_member(json, "d"), (std::vector<std::string>{"p", "q"}));
  EXPECT_TRUE(texts_member(Json(3), "d").empty());
}

TEST(Files, AreReadWithinBounds) {
  const auto path = std::filesystem::temp_directory_path() / "rigging_files_test";
  // What another run was killed over goes, what is fresh stays.
  const auto dead = path.parent_path() / ".rigging-DEADxx", young = path.parent_path() / ".rigging-freshx";
  for (const auto& half : {dead, young}) std::ofstream(half) << "half";
  std::filesystem::last_write_time(dead, std::filesystem::last_write_time(dead) - std::chrono::hours(1));
  ASSERT_TRUE(write_file_atomically(path, std::string(1000, 'x')));
  EXPECT_FALSE(std::filesystem::exists(dead));
  EXPECT_TRUE(std::filesystem::exists(young));
  std::filesystem::remove(young);
  EXPECT_EQ(read_file(path)->size(), 1000u);
  const auto refused = read_file(path, 10);
  ASSERT_FALSE(refused);
  EXPECT_NE(refused.error().what.find("too large"), std::string::npos);
  // A link is followed, not replaced.
  const auto link = std::filesystem::temp_directory_path() / "rigging_files_link";
  std::filesystem::remove(link);
  std::filesystem::create_symlink(path, link);
  ASSERT_TRUE(write_file_atomically(link, "through the link"));
  EXPECT_TRUE(std::filesystem::is_symlink(link));
  EXPECT_EQ(*read_file(path), "through the link");
  // Rights stay as they were.
  std::filesystem::permissions(path, std::filesystem::perms::owner_read | std::filesystem::perms::owner_write);
  // Another name of the same file goes on leading to it; a link that leads nowhere yet makes its file.
  const auto twin = path.parent_path() / "twin", ahead = path.parent_path() / "ahead",
             later = path.parent_path() / "later";
  std::filesystem::create_hard_link(path, twin);
  ASSERT_TRUE(write_file_atomically(path, "for both names"));
  EXPECT_EQ(*read_file(twin), "for both names");
  std::filesystem::remove(twin);
  std::filesystem::create_symlink("later", ahead);
  ASSERT_TRUE(write_file_atomically(ahead, "made"));
  EXPECT_EQ(*read_file(later), "made");
  EXPECT_TRUE(std::filesystem::is_symlink(ahead));
  std::filesystem::remove(ahead);
  std::filesystem::remove(later);
  // Protected by its owner, it is not replaced.
  const auto kept = path.parent_path() / "kept";
  ASSERT_TRUE(write_file_atomically(kept, "mine"));
  std::filesystem::permissions(kept, std::filesystem::perms::owner_read);
  const auto over = write_file_atomically(kept, "theirs");
  ASSERT_FALSE(over);
  EXPECT_NE(over.error().what.find("write-protected"), std::string::npos);
  EXPECT_EQ(*read_file(kept), "mine");
  std::filesystem::remove(kept);
  ASSERT_TRUE(write_file_atomically(path, "again"));
  EXPECT_EQ(std::filesystem::status(path).permissions() & std::filesystem::perms::mask,
            std::filesystem::perms::owner_read | std::filesystem::perms::owner_write);
  std::filesystem::remove(link);
  std::filesystem::remove(path);
}

TEST(Number, OneFiniteNumberAndNothingElse) {
  EXPECT_EQ(number_of("-18.5"), -18.5);
  EXPECT_EQ(number_of("+2e3"), 2000);
  for (const char* bad : {"", "+", "+-1", "1 ", " 1", "1,5", "nan", "inf", "1e999", "0x10", "--2"})
    EXPECT_FALSE(number_of(bad)) << bad;
}

TEST(CleanText, IsOneLineOfWholeLettersNoLongerThanAsked) {
  EXPECT_EQ(clean_text("plain äöü µ €", 100), "plain äöü µ €");
  EXPECT_EQ(clean_text("a\nb\tc\x1b[31m\x7f", 100), "a b c [31m ");
  EXPECT_EQ(clean_text("\xff\xc3(\xe2\x82", 100),
            "?"
            "?("
            "?"
            "?")
      << "no UTF-8";
  const std::string cut = clean_text(std::string(1000000, 'x') + "end", 60);
  EXPECT_EQ(cut.size(), 60 + std::string(" … ").size());
  EXPECT_TRUE(cut.ends_with("end")) << cut;
  // Never half a letter, wherever the cut falls.
  for (std::size_t most = 1; most < 12; ++most) {
    const std::string some = clean_text("äöüäöüäöüäöü", most);
    EXPECT_EQ(some.find('?'), std::string::npos) << most << " " << some;
  }
  EXPECT_EQ(clean_text("", 10), "");
}

// A disk that is full in the middle of a write: said, and the old file is whole. A limit on the size of files stands
// for the disk, in a process of its own.
TEST(Files, AFullDiskLeavesTheOldFileWhole) {
  const auto folder = std::filesystem::temp_directory_path() / ("rigging_full_" + std::to_string(::getpid()));
  std::filesystem::create_directory(folder);
  const auto file = folder / "kept";
  ASSERT_TRUE(write_file_atomically(file, "old"));
  const pid_t child = ::fork();
  if (child == 0) {
    ::signal(SIGXFSZ, SIG_IGN);
    const rlimit small{4096, 4096};
    ::setrlimit(RLIMIT_FSIZE, &small);
    const auto ok = write_file_atomically(file, std::string(100000, 'n'));
    ::_exit(ok ? 1 : ok.error().what.empty() ? 2 : 0);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  EXPECT_TRUE(WIFEXITED(status) && WEXITSTATUS(status) == 0) << status;
  EXPECT_EQ(*read_file(file, 1 << 20), "old");
  const auto entries = std::filesystem::directory_iterator(folder);
  EXPECT_EQ(std::distance(begin(entries), end(entries)), 1) << "nothing half written is left";
  std::filesystem::remove_all(folder);
}

}  // namespace
}  // namespace rigging
