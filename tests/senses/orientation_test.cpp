#include "senses/orientation.h"

#include <gtest/gtest.h>

#include "senses/held.h"

namespace rigging {
namespace {

HeldPose hold(Hands& hands, const Eigen::Matrix3d& alignment, Pose pose) {
  const double tilt = hands.between(32, 88);
  return {pose, force_on(alignment, hands.attitude(pose, tilt, pose == Pose::level ? 2 : 6)) + hands.vector(0.1)};
}

TEST(Orientation, EveryTurnIsFoundFromThreeSloppyPoses) {
  Hands hands(7);
  for (const Turn& turn : all_turns())
    for (int again = 0; again < 4; ++again) {
      const double roll = hands.between(-5, 5), pitch = hands.between(-5, 5), yaw = hands.between(-5, 5);
      const Eigen::Matrix3d sits = alignment_matrix(turn, roll, pitch, yaw);
      const Orientation o = orientation_from(
          {hold(hands, sits, Pose::level), hold(hands, sits, Pose::nose_up), hold(hands, sits, Pose::right_down)});
      ASSERT_TRUE(o.certain()) << turn.name() << ": " << o.why;
      EXPECT_EQ(*o.turn, turn) << o.why;
      // No better than the hands: level to about 2°, the others to 6°.
      EXPECT_NEAR(*o.roll_deg, roll, 8);
      EXPECT_NEAR(*o.pitch_deg, pitch, 8);
      EXPECT_NEAR(*o.yaw_deg, yaw, 14);
    }
}

TEST(Orientation, ExactPosesGiveTheSmallAnglesExactly) {
  Hands hands(1);
  for (const Turn& turn : all_turns()) {
    const Eigen::Matrix3d sits = alignment_matrix(turn, 4, -7, 9);
    std::vector<HeldPose> poses;
    for (const auto& [pose, name] : Names<Pose>::list)
      poses.push_back({pose, force_on(sits, hands.attitude(pose, 55, 0))});
    const Orientation o = orientation_from(poses);
    ASSERT_TRUE(o.certain()) << o.why;
    EXPECT_EQ(*o.turn, turn);
    EXPECT_NEAR(*o.roll_deg, 4, 1e-6);
    EXPECT_NEAR(*o.pitch_deg, -7, 1e-6);
    EXPECT_NEAR(*o.yaw_deg, 9, 1e-6);
  }
}

TEST(Orientation, PosesThatCannotTellSayWhichWould) {
  Hands hands(2);
  const Eigen::Matrix3d sits = alignment_matrix(*turn_from_name("arrow_right_top_up"));
  const auto of = [&](const std::vector<Pose>& poses) {
    std::vector<HeldPose> held;
    for (const Pose p : poses) held.push_back({p, force_on(sits, hands.attitude(p, 50, 0))});
    return orientation_from(held);
  };
  for (const auto& poses : {std::vector{Pose::level}, {Pose::level, Pose::upside_down}}) {
    const Orientation o = of(poses);
    EXPECT_FALSE(o.certain());
    EXPECT_EQ(o.candidates.size(), 4u) << "any way round the vertical";
    EXPECT_NE(std::find(o.candidates.begin(), o.candidates.end(), *turn_from_name("arrow_right_top_up")),
              o.candidates.end());
    ASSERT_TRUE(o.would_tell);
    EXPECT_TRUE(of({Pose::level, *o.would_tell}).certain()) << name_of(*o.would_tell);
    EXPECT_FALSE(o.roll_deg || o.pitch_deg || o.yaw_deg) << "never a guess";
  }
  EXPECT_EQ(of({}).would_tell, Pose::level);
  // Level and a tilt tell all three; tilts alone leave open how far each was held.
  EXPECT_TRUE(of({Pose::level, Pose::nose_up}).yaw_deg);
  EXPECT_FALSE(of({Pose::nose_up, Pose::right_down}).pitch_deg);
}

TEST(Orientation, PosesThatContradictEachOtherGiveNoCandidate) {
  Hands hands(3);
  const Eigen::Matrix3d sits = Eigen::Matrix3d::Identity();
  std::vector<HeldPose> poses;
  for (const Pose p : {Pose::level, Pose::nose_up, Pose::right_down, Pose::left_down})
    poses.push_back({p, force_on(sits, hands.attitude(p, 60, 0))});
  ASSERT_TRUE(orientation_from(poses).certain());
  poses[2].pose = Pose::left_down;
  poses[3].pose = Pose::right_down;
  const Orientation o = orientation_from(poses);
  EXPECT_FALSE(o.certain());
  EXPECT_TRUE(o.candidates.empty()) << o.why;
}

TEST(Orientation, ReadsPosesFromTextAndSaysWhereItCannot) {
  const auto poses =
      parse_poses("pose,ax,ay,az\nlevel,0,0,-9.8\nlevel,0.1,0,-9.8\nlevel,0,9,-9.8\nnose_up,7,0,-7\n", "f");
  ASSERT_TRUE(poses) << poses.error().text();
  ASSERT_EQ(poses->size(), 2u);
  EXPECT_NEAR(poses->front().force.y(), 0, 1e-12) << "one row that is off moves nothing";
  const std::pair<const char*, const char*> wrong[] = {
      {"pose,ax,ay\nlevel,0,0\n", "columns"},
      {"pose,ax,ay,az\nbelly_up,0,0,-9.8\n", "belly_up"},
      {"pose,ax,ay,az\nlevel,0,0,-1\n", "not units of g"},
      {"pose,ax,ay,az\nlevel,0,0,-90\n", "90"},
      {"pose,ax,ay,az\n", "no rows"},
      {"pose,ax,ay,az\nlevel,x,0,-9.8\n", "a number"},
  };
  for (const auto& [text, part] : wrong) {
    const auto refused = parse_poses(text, "f");
    ASSERT_FALSE(refused) << text;
    EXPECT_NE(refused.error().text().find(part), std::string::npos) << refused.error().text();
  }
}

}  // namespace
}  // namespace rigging
