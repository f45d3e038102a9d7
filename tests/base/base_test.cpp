#include <gtest/gtest.h>

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

}  // namespace
}  // namespace rigging
