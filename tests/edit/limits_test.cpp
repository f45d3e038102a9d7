#include <gtest/gtest.h>

#include <random>

#include "base/fields.h"
#include "base/file.h"
#include "base/number.h"
#include "base/wrapped.h"
#include "bench_rig.h"
#include "edit/edit.h"
#include "play/script.h"
#include "procedure/procedure.h"
#include "review/stations.h"
#include "rig/path.h"
#include "rig/rig_file.h"

// What no file can hold is refused where it is typed; what was written all the same is opened as far as it goes.
namespace rigging {
namespace {

constexpr const char* demos[] = {"hedgerow", "heath", "delta"};

void add_obstacle(Rig& rig, const std::string& name, double height_m) {
  FieldObstacle& o = rig.home.obstacles.emplace_back();
  o.name = name;
  o.height_m = height_m;
}

/// One value of the document, where it stands in the JSON.
struct Leaf {
  std::string pointer;
  const Member* member;  ///< that holds it, or the list it is in
  const TypeInfo* type;
};

void collect(const Json& json, const TypeInfo* type, const Member* member, const std::string& pointer,
             std::vector<Leaf>& leaves) {
  if (const TypeInfo* inside = type->present_type()) type = inside;
  if (const Members* members = type->members()) {
    for (const Member& m : members->list)
      if (json.contains(m.name)) collect(json[m.name], m.type, &m, pointer + "/" + m.name, leaves);
  } else if (type->item_type()) {
    leaves.push_back({pointer, member, type});
    for (std::size_t i = 0; i < json.size(); ++i)
      collect(json[i], type->item_type(), member, pointer + "/" + std::to_string(i), leaves);
  } else {
    leaves.push_back({pointer, member, type});
  }
}

std::vector<Leaf> leaves_of(const Json& json) {
  std::vector<Leaf> leaves;
  collect(json, &TypeOf<Rig>::get(), nullptr, "", leaves);
  return leaves;
}

/// Every value of the demo rigs at and beyond its limits, by the same description that made the boxes: whatever the
/// reader takes can be kept, and read again as it was; what it does not take can't be kept either.
TEST(Limits, WhatIsReadCanBeKeptAndNothingElse) {
  int refused = 0, taken = 0;
  for (const char* name : demos) {
    const Json whole = Json::parse(rig_text(demo(name)));
    for (const Leaf& leaf : leaves_of(whole)) {
      const Json::json_pointer at(leaf.pointer);
      std::vector<Json> tries;
      if (whole[at].is_number()) {
        const Span span = leaf.member->span;
        for (const double v : {span.least, span.most, span.least - 1, span.most + 1, 1e300}) tries.emplace_back(v);
      } else if (whole[at].is_string()) {
        tries = {std::string(most_letters, 'x'), std::string(most_letters + 1, 'x')};
      } else if (whole[at].is_array() && !whole[at].empty()) {
        tries.emplace_back(std::vector<Json>(leaf.member->most + 1, whole[at][0]));
      }
      for (const Json& value : tries) {
        Json changed = whole;
        changed[at] = value;
        const auto rig = rig_from_json(changed, "rig");
        if (!rig) {
          ++refused;
          continue;
        }
        ++taken;
        const auto kept = can_be_kept(*rig);
        EXPECT_TRUE(kept) << name << leaf.pointer << ": " << kept.error().text();
        const auto again = rig_from_text(rig_text(*rig), "again");
        EXPECT_TRUE(again && *again == *rig) << name << leaf.pointer;
      }
    }
  }
  EXPECT_GT(refused, 500);
  EXPECT_GT(taken, 500);
}

/// The cases that were met: each was saved, and nothing could open it again, the safety copy neither.
TEST(Limits, WhatNoFileCanHoldIsNeverSaved) {
  const auto file = std::filesystem::temp_directory_path() / ("rigging_limits_" + std::to_string(::getpid()));
  const Rig good = demo("hedgerow");
  ASSERT_TRUE(save_rig(good, file));
  const auto refused = [&](auto&& spoil, const char* where, const char* expected) {
    Rig rig = good;
    spoil(rig);
    const auto ok = save_rig(rig, file);
    ASSERT_FALSE(ok) << where;
    EXPECT_NE(ok.error().where.find(where), std::string::npos) << ok.error().text();
    EXPECT_NE(ok.error().expected.find(expected), std::string::npos) << ok.error().text();
    EXPECT_TRUE(load_rig(file) && *load_rig(file) == good) << "what stood there stands there";
  };
  refused([](Rig& r) { r.home.looked_up = std::string(2100, 'x'); }, "looked up", "2000 letters");
  refused([](Rig& r) { r.fit.altitude_km = 12.3456; }, "height above sea level", "-1 to 10");
  refused([](Rig& r) { add_obstacle(r, std::string(3000, 'x'), 20); }, "name", "2000 letters");
  refused([](Rig& r) { add_obstacle(r, "Oak", 12345.6); }, "Obstacle Oak", "-500 to 3000");
  refused([](Rig& r) { r.name = std::string(2001, 'x'); }, "Name", "2000 letters");
  refused([](Rig& r) { r.home.obstacles.resize(101); }, "obstacles", "at most 100");
  refused(
      [](Rig& r) {
        for (int i = 0; r.parts.size() <= 300; ++i) {
          r.parts.push_back(r.parts.front());
          r.parts.back().id = "p" + std::to_string(i);
        }
      },
      "Parts", "at most 300");
  refused([](Rig& r) { r.mountings.resize(301); }, "Places", "at most 300");
  refused([](Rig& r) { r.outputs[0].high_us = std::nan(""); }, "Output out_1", "number");
  // In letters, not bytes: what can be typed is counted as it is typed.
  Rig umlauts = good;
  umlauts.home.looked_up.clear();
  for (int i = 0; i < 2000; ++i) umlauts.home.looked_up += "ä";
  EXPECT_TRUE(save_rig(umlauts, file));
  EXPECT_TRUE(load_rig(file) && *load_rig(file) == umlauts);
  std::filesystem::remove(file);
}

/// Every edit that can be asked for by name, with words of every bad kind, on every demo: what it makes can be kept,
/// or it is refused.
TEST(Limits, EveryEditMakesWhatCanBeKeptOrIsRefused) {
  const std::string hostile[] = {"",
                                 std::string(2001, 'x'),
                                 std::string(3000, '/'),
                                 "1e300",
                                 "-1e300",
                                 "nan",
                                 "nothing",
                                 "yes",
                                 "12345.6",
                                 "0",
                                 "-1",
                                 "controller",
                                 "out_1",
                                 "~",
                                 "\n",
                                 "\xff\xfe"};
  std::mt19937 random(33);
  int made = 0, not_kept = 0;
  for (const char* name : demos) {
    const Rig rig = demo(name);
    for (const EditEntry& e : all_edits())
      for (int tries = 0; tries < 12; ++tries) {
        std::vector<std::string> words;
        for (std::size_t i = 0; i < e.arguments.size(); ++i) {
          // Now and then something that is there, so that the other words are looked at.
          const auto pick = random() % (std::size(hostile) + 4);
          words.push_back(pick < std::size(hostile)        ? hostile[pick]
                          : pick % 2 && !rig.parts.empty() ? rig.parts[random() % rig.parts.size()].id
                                                           : "rudder");
        }
        if (const auto edit = e.apply(rig, shipped(), words)) {
          ++made;
          const auto kept = can_be_kept(edit->rig);
          not_kept += !kept;
          if (kept) EXPECT_TRUE(rig_from_text(rig_text(edit->rig), "again")) << e.name;
        } else {
          EXPECT_FALSE(edit.error().what.empty()) << e.name;
        }
      }
  }
  EXPECT_GT(made, 20);
  std::printf("%d edits made, of which the door refuses %d\n", made, not_kept);
}

/// Every procedure, walked through at random with numbers at and beyond what its cards ask for: what it makes of the
/// rig can be kept.
TEST(Limits, EveryProcedureLeavesWhatCanBeKept) {
  std::mt19937 random(34);
  int pressed = 0, changed = 0;
  for (const ProcedureEntry& entry : all_procedures())
    for (const char* name : demos) {
      const Rig rig = demo(name);
      ProcedurePlayer player(rig, shipped(), entry, "2026-12-01T08:00:00Z");
      (void)player.play("bench controller=yes hands=yes usb=yes battery=yes hears=yes", "walk");
      for (int step = 0; step < 60; ++step) {
        std::vector<const Action*> can;
        for (const Action& a : player.card().actions)
          if (a.enabled) can.push_back(&a);
        std::string line = "time " + std::to_string(step);
        if (!can.empty() && step % 3 != 0) {
          line = "press " + can[random() % can.size()]->id;
          if (const auto& asked = player.card().number) {
            const double numbers[] = {asked->least, asked->most, asked->most * 10 + 1, -1e300,
                                      (asked->least + asked->most) / 2};
            line += " " + number_text(numbers[random() % std::size(numbers)], 6);
            if (!asked->units.empty()) line += " " + asked->units[random() % asked->units.size()].id;
          }
        }
        if (const auto heard = player.play(line, "walk"); heard && line.starts_with("press")) ++pressed;
        ASSERT_TRUE(can_be_kept(player.rig())) << entry.id << " on " << name << ": " << line;
      }
      changed += !(player.rig() == rig);
    }
  EXPECT_GT(pressed, 300);
  EXPECT_GT(changed, 3);
}

/// Lists that edits fill are full at their limit, and say so.
TEST(Limits, ListsThatEditsFillAreFullAtTheirLimit) {
  Rig rig = demo("hedgerow");
  const auto add = [&](const std::string& kind) -> Result<Edit> {
    for (const EditEntry& e : all_edits())
      if (e.name == "add-part") return e.apply(rig, shipped(), {kind});
    return failure("add-part", "is not there");
  };
  const std::string kind = rig.parts.front().kind;
  Result<void> kept;
  for (int i = 0; i < 400 && kept; ++i) {
    const auto edit = add(kind);
    ASSERT_TRUE(edit) << edit.error().text();
    kept = can_be_kept(edit->rig);
    if (kept) rig = edit->rig;
  }
  ASSERT_FALSE(kept);
  EXPECT_LE(rig.parts.size(), 300u);
  EXPECT_GT(rig.parts.size(), 250u);
  EXPECT_NE(kept.error().text().find("at most 300"), std::string::npos) << kept.error().text();
}

/// A copy that is cut at any place gives back what stands before the cut.
TEST(PartOfARig, CutAnywhereGivesWhatStandsBeforeTheCut) {
  for (const char* name : demos) {
    const Rig whole = demo(name);
    const std::string text = rig_text(whole);
    std::size_t most = 0;
    for (std::size_t cut = 0; cut < text.size(); cut += 211) {
      const auto part = rig_as_far_as_it_goes(text.substr(0, cut), "copy");
      if (!part) {
        EXPECT_LT(cut, 40u) << "only where it does not say yet what it is: " << part.error().text();
        continue;
      }
      EXPECT_FALSE(part->left_out.empty()) << "what is cut is said";
      EXPECT_TRUE(can_be_kept(part->rig)) << cut;
      if (cut > text.find("\"controller\"") + 2) {
        EXPECT_EQ(part->rig.name, whole.name) << cut;
        EXPECT_EQ(part->rig.airframe, whole.airframe) << cut;
      }
      EXPECT_GE(part->rig.parts.size(), most) << cut;
      most = part->rig.parts.size();
    }
    EXPECT_EQ(most, whole.parts.size());
    EXPECT_TRUE(rig_as_far_as_it_goes(text, "copy")->left_out.empty());
    EXPECT_EQ(rig_as_far_as_it_goes(text, "copy")->rig, whole);
  }
}

/// One value after another is made impossible: only that, or what can't stand without it, is missing, and it is said.
TEST(PartOfARig, LacksWhatIsSpoiltAndNothingElse) {
  const Rig whole = demo("hedgerow");
  const Json json = Json::parse(rig_text(whole));
  for (const Leaf& leaf : leaves_of(json)) {
    const Json::json_pointer at(leaf.pointer);
    if (json[at].is_array()) continue;  // a whole list that is none is gone with all of it
    Json spoilt = json;
    spoilt[at] = spoilt[at].is_string() ? Json(std::string(9000, 'x')) : Json("not this");
    const auto part = rig_as_far_as_it_goes(spoilt.dump(), "copy");
    ASSERT_TRUE(part) << leaf.pointer << ": " << part.error().text();
    EXPECT_TRUE(can_be_kept(part->rig)) << leaf.pointer;
    // Beyond what belongs to a spoilt name nothing is lost.
    EXPECT_GE(part->rig.parts.size() + 1, whole.parts.size()) << leaf.pointer;
    EXPECT_GE(part->rig.outputs.size() + 1, whole.outputs.size()) << leaf.pointer;
    EXPECT_EQ(part->rig.log.size(), whole.log.size()) << leaf.pointer;
  }
}

/// Bytes exchanged, lost and doubled anywhere: what comes back can be kept.
TEST(PartOfARig, AnyDamageGivesWhatCanBeKeptOrNothing) {
  std::mt19937 random(77);
  const std::string text = rig_text(demo("hedgerow"));
  int read = 0;
  for (int draw = 0; draw < 200; ++draw) {
    std::string damaged = text;
    for (int n = 1 + static_cast<int>(random() % 6); n > 0; --n) {
      const std::size_t at = random() % damaged.size();
      switch (random() % 4) {
        case 0: damaged[at] = static_cast<char>(random() % 256); break;
        case 1: damaged.erase(at, 1 + random() % 40); break;
        case 2: damaged.insert(at, damaged.substr(random() % damaged.size(), random() % 60)); break;
        default: damaged[at] = "{}[]\",:0e-"[random() % 11]; break;
      }
    }
    const auto part = rig_as_far_as_it_goes(damaged, "copy");
    if (!part) continue;
    ++read;
    EXPECT_TRUE(can_be_kept(part->rig)) << draw;
  }
  EXPECT_GT(read, 150);
}

TEST(PartOfARig, TooMuchIsShortenedToWhatCanBeKept) {
  Json json = Json::parse(rig_text(demo("hedgerow")));
  json["home"]["looked_up"] = std::string(2100, 'x');
  for (int i = 0; i < 130; ++i)
    json["home"]["obstacles"].push_back({{"name", "tree " + std::to_string(i)},
                                         {"bearing_deg", 10},
                                         {"distance_m", 100},
                                         {"height_m", i == 7 ? 9e9 : 20}});
  const auto part = rig_as_far_as_it_goes(json.dump(), "copy");
  ASSERT_TRUE(part);
  EXPECT_EQ(part->rig.home.looked_up.size(), 2000u);
  EXPECT_EQ(part->rig.home.obstacles.size(), 99u) << "a hundred, without the one of an impossible height";
  EXPECT_EQ(part->left_out.size(), 4u) << "too many, a height, the obstacle without one, a text";
  EXPECT_FALSE(rig_as_far_as_it_goes("{\"format\":\"rig\",\"version\":99}", "copy")) << "of a newer Rigging";
  EXPECT_FALSE(rig_as_far_as_it_goes("[]", "copy"));
  EXPECT_FALSE(rig_as_far_as_it_goes("", "copy"));
}

}  // namespace
}  // namespace rigging
