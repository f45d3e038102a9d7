#include <gtest/gtest.h>

#include <random>

#include "base/fields.h"
#include "base/json.h"
#include "bench_rig.h"
#include "review/review.h"
#include "sheets/wiring_sheets.h"
#include "wiring/lead_checks.h"
#include "wiring/plan.h"

// Rigs that no builder would write: whatever is read must be survived by every station, and every fix must leave a rig
// that can be read.
namespace rigging {
namespace {

class Mutator {
 public:
  explicit Mutator(unsigned seed) : random_(seed) {}

  Json broken() {
    static const char* const names[] = {"hedgerow", "heath", "delta", "bramble"};
    Json rig = Json::parse(rig_text(demo(names[random_() % 3])));
    for (unsigned n = 1 + random_() % 5; n > 0; --n) {
      std::vector<Json*> all;
      collect(rig, all);
      Json& at = *all[random_() % all.size()];
      switch (random_() % 7) {
        case 0: at = nullptr; break;
        case 1: at = static_cast<double>(static_cast<int>(random_() % 4000)) - 500; break;
        case 2: at = words_[random_() % std::size(words_)]; break;
        case 3:
          if (at.is_number()) at = at.get<double>() * (random_() % 2 ? -1 : 10);
          break;
        case 4:
          if (at.is_array() && !at.empty()) at.erase(at.begin() + static_cast<std::ptrdiff_t>(random_() % at.size()));
          break;
        case 5:
          if (has(rig, "leads") && rig["leads"].size() > 1) {
            Json& l = rig["leads"][random_() % rig["leads"].size()];
            const Json& other = rig["leads"][random_() % rig["leads"].size()];
            if (l.is_object() && other.is_object() && other.contains("to")) l["to"] = Json(other["to"]);
          }
          break;
        default: {
          const auto& parts = shipped().parts;
          if (!has(rig, "parts")) break;
          Json& part = rig["parts"][random_() % rig["parts"].size()];
          if (part.is_object()) part["kind"] = parts[random_() % parts.size()].id;
        }
      }
    }
    return rig;
  }

 private:
  static bool has(const Json& rig, const char* list) {
    return rig.is_object() && rig.contains(list) && rig[list].is_array() && !rig[list].empty();
  }
  static void collect(Json& json, std::vector<Json*>& all) {
    all.push_back(&json);
    if (json.is_structured())
      for (auto& child : json) collect(child, all);
  }
  static constexpr const char* words_[] = {"",
                                           "controller",
                                           "battery",
                                           "slot_1",
                                           "plus",
                                           "out_1",
                                           "none",
                                           "arrow_up_top_nose",
                                           "fixed_mini",
                                           "inline_dial",
                                           "screen_keys",
                                           "radio_stabilizer",
                                           "towed_glider",
                                           "twin_differential"};
  std::mt19937 random_;
};

class Hostile : public testing::TestWithParam<unsigned> {};

TEST_P(Hostile, RigsAreRefusedInWordsOrSurvivedEverywhere) {
  Mutator mutator(GetParam());
  int read = 0;
  for (int round = 0; round < 120; ++round) {
    const Json json = mutator.broken();
    const auto rig = rig_from_json(json, "hostile");
    if (!rig) {
      EXPECT_FALSE(rig.error().where.empty() || rig.error().what.empty() || rig.error().expected.empty())
          << rig.error().text();
      continue;
    }
    ++read;
    const Review r = review(*rig, shipped());
    for (const Snag& s : r.snags) {
      EXPECT_FALSE(s.what.empty() || s.why.empty() || s.remedy.empty()) << s.code;
      if (!s.fix) continue;
      const Rig fixed = fixed_by(*s.fix, *rig);
      const auto again = rig_from_json(*parse_json(rig_text(fixed), "fixed"), "fixed");
      EXPECT_TRUE(again) << s.code << " " << s.fix->label << ": " << (again ? "" : again.error().text());
    }
    for (const auto& figures : {r.reports.power().figures(), r.reports.fit().figures()})
      for (const Figure& f : figures) EXPECT_TRUE(std::isfinite(f.value)) << f.name;
    const Plan plan = plan_wiring(*rig, shipped());
    EXPECT_TRUE(rig_from_json(*parse_json(rig_text(plan.rig), "planned"), "planned"));
    for (const Lead& l : rig->leads) EXPECT_FALSE(lead_card(*rig, shipped(), l).todo.empty());
    EXPECT_TRUE(wiring_drawing_svg(*rig, shipped()).ends_with("</svg>\n"));
    EXPECT_TRUE(plug_list_svg(*rig, shipped()).back().ends_with("</svg>\n"));
    EXPECT_EQ(*rig_from_json(*parse_json(rig_text(*rig), "again"), "again"), *rig);
  }
  EXPECT_GT(read, 5) << "the mutations must leave some rigs standing";
}

INSTANTIATE_TEST_SUITE_P(Seeds, Hostile, testing::Range(1u, 7u));

TEST(Schema, NamesWhatIsNeededAndItsRange) {
  const OrderedJson rig = rig_schema();
  const auto& properties = rig["properties"];
  for (const char* section : {"fit", "power", "parts", "places", "leads", "proofs"})
    EXPECT_TRUE(properties.contains(section)) << section;
  EXPECT_EQ(properties["airframe"]["properties"]["span_m"]["minimum"], 0.1);
  EXPECT_EQ(properties["leads"]["items"]["required"], (OrderedJson{"id", "from", "to"}));
  EXPECT_EQ(properties["fit"]["properties"]["static_margin"]["default"], 0.1);
  const OrderedJson parts = parts_schema();
  EXPECT_EQ(
      parts["properties"]["parts"]["items"]["properties"]["terminals"]["items"]["properties"]["kind"]["enum"].size(),
      Names<TerminalKind>::list.size());
}

TEST(OwnParts, EveryShippedKindCanBeTheStartOfOnesOwn) {
  const auto file = std::filesystem::temp_directory_path() / "rigging_every_kind.parts.json";
  std::filesystem::remove(file);
  for (PartKind k : shipped().parts) {
    const std::string original = k.id;
    k.id = "my_" + k.id;
    ASSERT_TRUE(save_own_part(file, k)) << original;
  }
  Catalogue c = shipped();
  ASSERT_TRUE(add_own_parts(c, file));
  for (PartKind k : shipped().parts) {
    const PartKind* mine = c.part("my_" + k.id);
    ASSERT_TRUE(mine) << k.id;
    k.id = mine->id;
    EXPECT_EQ(*mine, k);
  }
  std::filesystem::remove(file);
}

}  // namespace
}  // namespace rigging
