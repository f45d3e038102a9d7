#include "rig/rig_file.h"
#include "base/json.h"
#include "base/number.h"
#include "rig/differing.h"
#include "rig/socket_names.h"

#include <gtest/gtest.h>

#include <unistd.h>
#include <functional>

#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validator.hpp>

#include "airframe/kinds.h"
#include "places.h"
#include "rig/history.h"
#include "rig/path.h"

namespace rigging {
namespace {

const std::filesystem::path source(in_source(""));

Json demo(const char* name) { return *read_json_file(source / "data/demo" / name); }

bool fits_schema(const Json& json, const char* file = "rig") {
  const Json schema_json = *read_json_file(source / "data/schema" / (std::string(file) + ".schema.json"));
  valijson::Schema schema;
  valijson::SchemaParser parser;
  const valijson::adapters::NlohmannJsonAdapter schema_adapter(schema_json);
  parser.populateSchema(schema_adapter, schema);
  valijson::Validator validator;
  const valijson::adapters::NlohmannJsonAdapter target(json);
  return validator.validate(schema, target, nullptr);
}

class Demo : public testing::TestWithParam<const char*> {};

TEST_P(Demo, ReadsAndComesBackByteForByte) {
  const auto path = source / "data/demo" / GetParam();
  const auto rig = load_rig(path);
  ASSERT_TRUE(rig) << rig.error().text();
  EXPECT_TRUE(fits_schema(Json(rig_to_json(*rig))));
  const auto again = rig_from_json(Json::parse(rig_text(*rig)), "again");
  ASSERT_TRUE(again) << again.error().text();
  EXPECT_EQ(*again, *rig);
  EXPECT_EQ(rig_text(*again), rig_text(*rig));
}
INSTANTIATE_TEST_SUITE_P(Rigs, Demo, testing::Values("hedgerow.rig.json", "heath.rig.json", "delta.rig.json"));

TEST(RigFile, EveryKindOfAirframeRoundTrips) {
  for (const auto& [kind, name] : Names<AirframeKind>::list) {
    Rig rig;
    rig.name = name;
    rig.controller.kind = "full_controller";
    rig.airframe.kind = kind;
    rig.outputs = default_outputs(kind);
    const Json json = Json::parse(rig_text(rig));
    EXPECT_TRUE(fits_schema(json)) << name;
    const auto again = rig_from_json(json, "x");
    ASSERT_TRUE(again) << again.error().text();
    EXPECT_EQ(*again, rig) << name;
  }
}

TEST(RigFile, KeepsWhatItDoesNotKnow) {
  Json json = demo("hedgerow.rig.json");
  json["painted"] = {{"colour", "grey"}};
  json["airframe"]["builder_note"] = "left tip repaired";
  json["outputs"][2]["bearing"] = 3;
  json["outputs"][2]["mix"]["air_brake"] = 0.25;
  const auto rig = rig_from_json(json, "x");
  ASSERT_TRUE(rig) << rig.error().text();
  const Json out = Json::parse(rig_text(*rig));
  EXPECT_EQ(out["painted"], json["painted"]);
  EXPECT_EQ(out["airframe"]["builder_note"], "left tip repaired");
  EXPECT_EQ(out["outputs"][2]["bearing"], 3);
  EXPECT_EQ(out["outputs"][2]["mix"]["air_brake"], 0.25);
}

TEST(RigFile, WhatTwoRigsSayDifferentlyComesInWords) {
  const Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  EXPECT_TRUE(differing_words(rig, rig).empty());
  Rig other = rig;
  other.outputs[1].reversed = !other.outputs[1].reversed;
  other.outputs[1].mix.pitch = 0.25;
  other.airframe.span_m += 0.1;
  other.outputs.push_back(other.outputs.front());
  other.outputs.back().id = "tenth";
  std::swap(other.leads.front(), other.leads.back());  // the order of leads says nothing
  std::vector<std::string> said;
  for (const Differing& d : differing_words(rig, other)) said.push_back(d.place + ": " + d.a + " / " + d.b);
  const auto mm = [](double m) { return number_text(m * 1000, 1) + " mm"; };
  const std::string out = "output " + rig.outputs[1].id;
  EXPECT_EQ(said, (std::vector<std::string>{
                      "airframe, span: " + mm(rig.airframe.span_m) + " / " + mm(other.airframe.span_m),
                      out + ", pitch: " + number_text(rig.outputs[1].mix.pitch, 2) + " / 0.25",
                      out + ", reversed: no / yes",
                      "output tenth: not there / there",
                  }));
  Rig later = rig;
  later.unknown_members = UnknownMembers(Json{{"painted", "red"}});
  EXPECT_EQ(differing_words(rig, later).size(), 1u) << "what this version does not know is a difference, too";
}

TEST(RigFile, OneEditChangesOneLine) {
  const Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  Rig other = rig;
  other.outputs[1].reversed = true;
  EXPECT_EQ(differing_members(rig, other), (std::vector<std::string>{"/outputs/1/reversed"}));
  const auto lines = [](const std::string& text) {
    std::vector<std::string> all;
    std::stringstream in(text);
    for (std::string line; std::getline(in, line);) all.push_back(line);
    return all;
  };
  const auto a = lines(rig_text(rig)), b = lines(rig_text(other));
  ASSERT_EQ(a.size(), b.size());
  int different = 0;
  for (std::size_t i = 0; i < a.size(); ++i) different += a[i] != b[i];
  EXPECT_EQ(different, 1);
}

struct Broken {
  const char* pointer;
  Json value;
  const char* says;
  bool schema_sees = true;
};
void PrintTo(const Broken& b, std::ostream* out) { *out << b.pointer << " = " << b.value.dump(); }
class BrokenFile : public testing::TestWithParam<Broken> {};

TEST_P(BrokenFile, SaysWhereAndWhatWasExpected) {
  Json json = demo("hedgerow.rig.json");
  json[Json::json_pointer(GetParam().pointer)] = GetParam().value;
  const auto rig = rig_from_json(json, "my.rig.json");
  ASSERT_FALSE(rig);
  const std::string text = rig.error().text();
  EXPECT_NE(text.find("my.rig.json"), std::string::npos) << text;
  EXPECT_NE(text.find(GetParam().says), std::string::npos) << text;
  EXPECT_FALSE(rig.error().expected.empty()) << text;
  EXPECT_EQ(fits_schema(json), !GetParam().schema_sees);
}
INSTANTIATE_TEST_SUITE_P(
    Places, BrokenFile,
    testing::Values(Broken{"/format", "kite", "/format"}, Broken{"/version", rig_version + 1, "newer"},
                    Broken{"/version", "1", "/version"}, Broken{"/name", 5, "/name"},
                    Broken{"/airframe", Json::array(), "/airframe"},
                    Broken{"/airframe/kind", "balloon", "/airframe/kind"},
                    Broken{"/airframe/span_m", "wide", "/airframe/span_m"},
                    Broken{"/airframe/span_m", 1800, "/airframe/span_m"},
                    Broken{"/airframe/span_m", nullptr, "/airframe/span_m"},
                    Broken{"/controller/mounted", "yes", "/controller/mounted"},
                    Broken{"/outputs/0/mix/roll", 7, "/outputs/0/mix/roll"},
                    Broken{"/outputs/0/surfaces/0", "wing", "/outputs/0/surfaces/0"},
                    Broken{"/outputs/0/surfaces", Json::array({"rudder", "rudder"}), "two outputs"},
                    Broken{"/outputs/1/id", "out_1", "used twice", false}, Broken{"/outputs/1/id", "", "is empty"},
                    Broken{"/outputs/0/low_us", 1600, "enclose", false}, Broken{"/outputs", 3, "/outputs"},
                    Broken{"/sensing", Json{{"board", "arrow_up_top_down"}}, "/sensing/board"},
                    Broken{"/radio/channels/0/number", 0, "/radio/channels/0/number"},
                    Broken{"/radio/channels/0/number", 2, "used twice", false},
                    Broken{"/radio/channels/0/number", 1.5, "/radio/channels/0/number"},
                    Broken{"/modes/0/from_us", 1400, "from_us", false}));

TEST(RigFile, TextThatIsNoJsonIsPlaced) {
  const auto json = parse_json("{\n  \"format\": \"rig\",\n  \"version\": ,\n}", "a.json");
  ASSERT_FALSE(json);
  EXPECT_EQ(json.error().where, "a.json:3:14");
  EXPECT_FALSE(parse_json(std::string(5000, '['), "deep"));
  EXPECT_FALSE(parse_json("{\"x\": 1e999}", "big"));
  EXPECT_FALSE(parse_json("", "empty"));
  EXPECT_FALSE(parse_json("{\"a\":1,\"a\":2}", "twice"));
  EXPECT_FALSE(load_rig("/nonexistent/file"));
  EXPECT_FALSE(load_rig("/"));
}

TEST(RigFile, SavingReplacesWholeFilesOnly) {
  const auto folder = std::filesystem::temp_directory_path() / ("rig_save_" + std::to_string(::getpid()));
  std::filesystem::create_directories(folder);
  const auto path = folder / "a.rig.json";
  Rig rig = *load_rig(source / "data/demo/heath.rig.json");
  ASSERT_TRUE(save_rig(rig, path));
  rig.name = "Changed";
  ASSERT_TRUE(save_rig(rig, path));
  EXPECT_EQ(load_rig(path)->name, "Changed");
  EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder), {}), 1) << "something was left behind";
  EXPECT_FALSE(save_rig(rig, folder / "no" / "such" / "folder.json"));
  EXPECT_EQ(load_rig(path)->name, "Changed");
  std::filesystem::remove_all(folder);
}

TEST(History, UndoesByFormerValuesWithoutLimit) {
  Rig rig;
  rig.name = "0";
  History history(rig);
  for (int i = 1; i <= 500; ++i) {
    rig.name = std::to_string(i);
    history.edit(rig, "edit " + rig.name);
  }
  history.edit(rig, "nothing changed");
  EXPECT_EQ(history.last_edit(), "edit 500");
  for (int i = 0; i < 500; ++i) history.undo();
  EXPECT_EQ(history.now().name, "0");
  EXPECT_FALSE(history.can_undo());
  history.redo();
  EXPECT_EQ(history.now().name, "1");
  EXPECT_EQ(history.next_edit(), "edit 2");
  rig.name = "other";
  history.edit(rig, "another way");
  EXPECT_FALSE(history.can_redo());
}

TEST(RigFile, PartsPlacesAndLeadsMustBelongTogether) {
  const auto refused = [](const std::function<void(Json&)>& damage) {
    Json json = demo("hedgerow.rig.json");
    damage(json);
    const auto rig = rig_from_json(json, "my.rig.json");
    EXPECT_FALSE(rig);
    return rig ? std::string() : rig.error().text();
  };
  EXPECT_NE(refused([](Json& j) { j["leads"][0]["from"]["part"] = "ghost"; }).find("/leads/0/from/part"),
            std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["leads"][2]["to"]["part"] = ""; }).find("/leads/2/to/part"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["leads"][1]["id"] = j["leads"][0]["id"]; }).find("/leads/1"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["places"][0]["part"] = "ghost"; }).find("/places/0/part"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["places"].push_back(j["places"][0]); }).find("twice"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["parts"][0]["id"] = "controller"; }).find("the board itself"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["parts"][1]["surface"] = "wing"; }).find("/parts/1/surface"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["leads"][0]["kind"] = "rope"; }).find("four_way"), std::string::npos)
      << "the words that there are";
  EXPECT_NE(refused([](Json& j) { j["leads"][0]["length_m"] = 0; }).find("/leads/0/length_m"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["fit"]["latitude_deg"] = 91; }).find("/fit/latitude_deg"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["fit"]["bay"]["width_m"] = -1; }).find("/fit/bay/width_m"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["fit"]["confirmed"] = "all"; }).find("a list"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["power"]["reserve_share"] = 2; }).find("/power/reserve_share"), std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["places"][0]["turn"] = "upside"; }).find("arrow_A_top_B"), std::string::npos);
}

TEST(RigFile, SectionsOfTheNewStationsMayBeAbsentAndKeepWhatTheyDoNotKnow) {
  Json json = demo("hedgerow.rig.json");
  for (const char* section : {"parts", "places", "leads", "fit", "power"}) json.erase(section);
  const auto bare = rig_from_json(json, "x");
  ASSERT_TRUE(bare) << bare.error().text();
  EXPECT_EQ(bare->fit, Fit{});
  EXPECT_EQ(bare->power, Power{});
  json = demo("hedgerow.rig.json");
  json["fit"]["hatch"] = "magnets";
  json["fit"]["bay"]["lining"] = "cork";
  json["power"]["tested_by"] = "two of us";
  json["leads"][3]["colour"] = "twisted";
  json["places"][2]["tape"] = true;
  const auto rig = rig_from_json(json, "x");
  ASSERT_TRUE(rig);
  const Json out = Json::parse(rig_text(*rig));
  for (const char* pointer : {"/fit/hatch", "/fit/bay/lining", "/power/tested_by", "/leads/3/colour", "/places/2/tape"})
    EXPECT_EQ(out[Json::json_pointer(pointer)], json[Json::json_pointer(pointer)]) << pointer;
  EXPECT_EQ(rig->lead("gps")->kind, LeadKind::four_way);
  EXPECT_EQ(rig->part("nobody"), nullptr);
  EXPECT_EQ(rig->mounting("nobody"), nullptr);
}

/// Files of version 2 had other names for what is the same; what a proof rested on goes with them, and who writes an
/// old name into a new file means it, too.
TEST(RigFile, NamesOfVersionTwoAreBroughtUp) {
  for (const char* name : {"hedgerow", "bramble"}) {
    const std::string file = std::string(name) + ".rig.json";
    const Json old = *read_json_file(in_source("/tests/rig/version_2/" + file));
    ASSERT_EQ(old["version"], 2);
    const auto rig = rig_from_json(old, "x");
    ASSERT_TRUE(rig) << rig.error().text();
    EXPECT_EQ(*rig, *rig_from_json(demo(file.c_str()), "x"));
  }
  const std::pair<const char*, const char*> renamed[] = {
      {"sharing", "saturation"},           {"outputs/out_1/passes", "outputs/out_1/passthrough_channel"},
      {"home/hold_s", "home/loss_hold_s"}, {"home/height_m", "home/return_height_m"},
      {"home/warn_v", "home/turn_home_v"}, {"radio/heard_as", "radio/receiver_signal"}};
  Json json = demo("hedgerow.rig.json");
  json.erase("saturation");
  json["sharing"] = "roll_first";
  json["outputs"][0]["passes"] = 7;
  json["home"] = {{"hold_s", 3}, {"height_m", 80}, {"warn_v", 13.1}, {"shows", {"volts"}}};
  json["radio"].erase("receiver_signal");
  json["radio"]["heard_as"] = "summed";
  Json rests = Json::object();
  for (const auto& [was, is] : renamed) rests[was] = nullptr;
  rests["home/obstacles/hill/height_m"] = 24.0;
  json["proofs"] = {{{"check", {{"family", "home.loss"}}}, {"at", "2026-01-01T10:00:00Z"}, {"depends_on", rests}}};
  for (const int version : {2, rig_version}) {
    json["version"] = version;
    const auto rig = rig_from_json(json, "x");
    ASSERT_TRUE(rig) << rig.error().text();
    EXPECT_EQ(rig->saturation, Saturation::roll_first);
    EXPECT_EQ(rig->outputs[0].passthrough_channel, 7);
    EXPECT_EQ(rig->home.loss_hold_s, 3);
    EXPECT_EQ(rig->home.return_height_m, 80);
    EXPECT_EQ(rig->home.turn_home_v, 13.1);
    EXPECT_EQ(rig->home.goggles, (std::vector<GogglesLine>{GogglesLine::volts}));
    EXPECT_EQ(rig->radio.receiver_signal, Signal::summed);
    const Dependencies& now = rig->proofs.at(0).depends_on;
    for (const auto& [was, is] : renamed) {
      EXPECT_TRUE(now.count(is)) << is;
      EXPECT_FALSE(now.count(was)) << was;
      EXPECT_EQ(place_words(is).find('/'), std::string::npos) << is << " is no value of the document";
    }
    EXPECT_TRUE(now.count("home/obstacles/hill/height_m")) << "of another thing";
    EXPECT_EQ(now.size(), std::size(renamed) + 1);
    const Json out = Json::parse(rig_text(*rig));
    EXPECT_EQ(out["version"], rig_version);
    EXPECT_FALSE(out.contains("sharing") || out["home"].contains("warn_v") || out["radio"].contains("heard_as"));
  }
}

// Sockets of the shipped classes got plain ids of our own: files of before are brought up, a builder's own class is
// left alone.
TEST(RigFile, SocketsOfBeforeAreBroughtUp) {
  Json json = {{"format", "rig"},
               {"version", 3},
               {"name", "A"},
               {"controller", {{"kind", "small_controller"}, {"mounted", true}}},
               {"outputs", {{{"id", "out_1"}, {"socket", "s3"}}, {{"id", "out_2"}, {"socket", "s12"}}}},
               {"ports", {{{"socket", "uart_b"}, {"job", "receiver"}}}},
               {"leads",
                {{{"id", "l"},
                  {"from", {{"part", "gps"}, {"socket", "s1"}}},
                  {"to", {{"part", "controller"}, {"socket", "uart_b"}}}}}},
               {"parts", {{{"id", "gps"}, {"kind", "satellite_plain"}}}},
               {"proofs",
                {{{"check", {{"family", "lead"}, {"subject", "l"}}},
                  {"at", "2026-01-01T10:00:00Z"},
                  {"depends_on",
                   {{"leads/l/to/socket", "uart_b"},
                    {"outputs/out_1/socket", "s3"},
                    {"ports/uart_b/job", "receiver"},
                    {"name", "s3"}}}}}}};
  Json own = json;
  bring_sockets_up(json);
  EXPECT_EQ(json["outputs"][0]["socket"], "slot_3");
  EXPECT_EQ(json["outputs"][1]["socket"], "slot_12");
  EXPECT_EQ(json["ports"][0]["socket"], "data_b");
  EXPECT_EQ(json["leads"][0]["to"]["socket"], "data_b");
  EXPECT_EQ(json["leads"][0]["from"]["socket"], "s1") << "a part's own";
  const Json& rests = json["proofs"][0]["depends_on"];
  EXPECT_EQ(rests.at("leads/l/to/socket"), "data_b");
  EXPECT_EQ(rests.at("outputs/out_1/socket"), "slot_3");
  EXPECT_TRUE(rests.contains("ports/data_b/job"));
  EXPECT_EQ(rests.at("name"), "s3") << "no socket";
  own["controller"]["kind"] = "my_board";
  const Json before = own;
  bring_sockets_up(own);
  EXPECT_EQ(own, before);
  for (const char* id : {"slot_1", "slot_12", "data_c", "serial_1", "sense"})
    EXPECT_EQ(current_socket(former_socket(id)), id);
  for (const char* other : {"s", "servo", "s123", "uart_", "uart_ab", ""}) EXPECT_EQ(current_socket(other), other);
}

TEST(PartsFile, TheCatalogueFitsItsSchema) {
  int files = 0;
  for (const auto& entry : std::filesystem::directory_iterator(source / "data/catalogue")) {
    EXPECT_TRUE(fits_schema(*read_json_file(entry.path()), "parts")) << entry.path();
    ++files;
  }
  EXPECT_GE(files, 9);
  Json wrong = *read_json_file(source / "data/catalogue/servos.json");
  wrong["parts"][0]["loads"][0]["idle_a"] = "much";
  EXPECT_FALSE(fits_schema(wrong, "parts"));
}

/// What is more than any aircraft has is refused before it is read, with its place and how much is allowed.
TEST(RigFile, CountsAndLengthsHaveLimitsThatAreSaid) {
  const auto refused = [](auto&& damage) {
    Json json = demo("hedgerow.rig.json");
    damage(json);
    const auto rig = rig_from_json(json, "big");
    EXPECT_FALSE(rig);
    return rig ? std::string() : rig.error().text();
  };
  const auto says = [](const std::string& text, const char* where, const char* most) {
    EXPECT_NE(text.find(where), std::string::npos) << text;
    EXPECT_NE(text.find(most), std::string::npos) << text;
  };
  says(refused([](Json& j) { j["parts"] = Json(std::vector<Json>(10000, j["parts"][0])); }), "/parts", "300");
  says(refused([](Json& j) { j["leads"] = Json(std::vector<Json>(5000, j["leads"][0])); }), "/leads", "600");
  says(refused([](Json& j) { j["linkages"][0]["arm_holes_m"] = std::vector<double>(200, 0.01); }), "arm_holes_m", "40");
  says(refused([](Json& j) { j["name"] = std::string(100000, 'x'); }), "/name", "2000");
  says(refused([](Json& j) { j["outputs"][0]["surfaces"] = std::vector<Json>(4000, "rudder"); }), "surfaces", "100");
}

TEST(RigFile, APusherOfAnOlderFileIsThePropellersSide) {
  Rig rig = fresh_rig("A", AirframeKind::two_ailerons, "full_controller");
  Json json = *parse_json(rig_text(rig), "A");
  json["power"]["pusher"] = true;
  const auto read = rig_from_json(json, "A");
  ASSERT_TRUE(read) << read.error().text();
  EXPECT_EQ(read->airframe.propeller, PropellerSide::pusher);
  EXPECT_EQ(rig_text(*read).find("\"pusher\": true"), std::string::npos);
  json["power"]["pusher"] = false;
  EXPECT_EQ(rig_from_json(json, "A")->airframe.propeller, PropellerSide::usual) << "that was no word about it";
}

}  // namespace
}  // namespace rigging
