#include <algorithm>
#include <cmath>
#include <fstream>
#include <functional>
#include <random>
#include <regex>

#include "base/file.h"
#include "base/json.h"
#include "cli/run_cli.h"
#include "places.h"
#include "rig/rig.h"
#include "signal/capture.h"

namespace rigging {
namespace {

TEST(Cli, DirectionsAnswersTheDocumentedExample) {
  const Folder folder;
  const std::string file = folder.file(
      "case.json",
      R"({ "outputs": [ {"id":"out_1","surface":"elevon_left","mix":{"roll":0.5,"pitch":0.5},"reversed":false},
               {"id":"out_2","surface":"elevon_right","mix":{"roll":0.5,"pitch":0.5},"reversed":false} ],
  "can": ["reverse_output","swap_leads","flip_mix","flip_gyro","turn_board","reverse_transmitter","swap_transmitter"],
  "observations": [
   {"do":"stick","axis":"roll","sense":"right","mode":"manual","saw":{"elevon_left":"up","elevon_right":"up"}},
   {"do":"stick","axis":"roll","sense":"right","channels":{"roll":"rises","pitch":"still"}},
   {"do":"drive","output":"out_1","pulse":"rises","saw":{"elevon_left":"up","elevon_right":"still"}},
   {"do":"tilt","axis":"pitch","sense":"up","mode":"rate","saw":{"elevon_left":"down","elevon_right":"down"}} ] })");
  const Ran ran = run("directions " + file + " --json");
  EXPECT_EQ(ran.status, 0) << ran.err;
  const Json answer = Json::parse(ran.out);
  ASSERT_EQ(answer["explanations"].size(), 1u);
  EXPECT_EQ(answer["explanations"][0]["faults"],
            Json::parse(R"([{"kind":"mix_sign_wrong","output":"out_1","axis":"roll"}])"));
  EXPECT_EQ(answer["explanations"][0]["remedies"],
            Json::parse(R"([{"do":"flip_mix","output":"out_1","axis":"roll"}])"));
  EXPECT_EQ(answer["explanations"][0]["cost"], 1.4);
  EXPECT_EQ(answer["settled"], true);
  EXPECT_EQ(answer["equivalent"], false);
  EXPECT_TRUE(answer["next_observation"].is_null());
  EXPECT_TRUE(answer["contradictions"].empty());
}

TEST(Cli, BadInputIsOneLineAndStatusTwo) {
  const Folder folder;
  for (const std::string& arguments :
       {"directions " + folder.file("a.json", "{"),
        "directions " + folder.file("b.json", R"({"outputs":[{"id":"x","surface":"wing","mix":{}}]})"),
        std::string("directions /nonexistent.json"), "check " + folder.file("c.rig.json", "[1,2]"),
        std::string("check"), std::string("fly"),
        std::string("directions ") + folder.file("d.json", std::string("\xff\xfe\x00", 3)),
        "surfaces " + demo + " --roll 4", "new " + (folder / "n.rig.json") + " --name x --kind zeppelin",
        std::string("check /"), "plan " + demo + " --into \"\"", "mix " + demo + " --into \"\"",
        "edit " + demo + " set name " + std::string(20000, 'x') + " --into /nonexistent/" + std::string(20000, 'y'),
        "begin " + (folder / "b.rig.json") + " --name B --span \"1.2 furlongs\"",
        "begin " + (folder / "b.rig.json") + " --name B --span 200",
        "begin " + (folder / "b.rig.json") + " --name B --mass nan",
        "begin " + (folder / "b.rig.json") + " --name B --receiver toaster"}) {
    const Ran ran = run(arguments);
    EXPECT_EQ(ran.status, 2) << arguments.substr(0, 80) << ran.out;
    EXPECT_EQ(std::count(ran.err.begin(), ran.err.end(), '\n'), 1) << arguments.substr(0, 80) << ": " << ran.err;
    EXPECT_LT(ran.err.size(), 800u) << arguments.substr(0, 80)
                                    << ": what is wrong is said, and not all of it said again";
  }
}

TEST(Cli, BeginsARigThatIsPlacedFedAndPlanned) {
  const Folder folder;
  const std::string a = folder / "fen.rig.json";
  const Ran ran =
      run("begin " + a +
          " --name Fen --kind flying_wing --span \"48 in\" --mass 1,1kg --with \"camera, 250 mW video\" --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const Json json = Json::parse(ran.out);
  EXPECT_GT(json["parts"], 8);
  EXPECT_GT(json["leads"], 8);
  EXPECT_EQ(json["remarks"].size(), 1u) << "no 250 mW transmitter is known";
  EXPECT_EQ(json["next"].size(), 3u);
  EXPECT_EQ(run("begin " + a + " --name Fen").status, 2) << "nothing is overwritten";
  EXPECT_NEAR(Json::parse(*read_file(a))["airframe"]["span_m"].get<double>(), 1.2192, 1e-9);
  EXPECT_EQ(run("edit " + a + " spread-out").status, 2) << "nothing overlaps";
  EXPECT_EQ(run("edit " + a + " measure span_m \"1.5 m\" --into " + a).status, 0);
  EXPECT_EQ(run("begin " + (folder / "bare.rig.json") + " --name Bare --bare").status, 0);
}

TEST(Cli, CheckTellsReadinessAndExitsByIt) {
  const Ran ran = run("check " + demo + " --json");
  EXPECT_EQ(ran.status, 1);
  const Json json = Json::parse(ran.out);
  EXPECT_EQ(json["ready"], false);
  EXPECT_EQ(json["snags"][0]["code"], "PROOF-01");
  for (const char* key : {"code", "severity", "subject", "what", "why", "remedy", "fixable"})
    EXPECT_TRUE(json["snags"][0].contains(key)) << key;
  EXPECT_TRUE(json["stale_proofs"].empty());
  EXPECT_TRUE(json["loose_ends"].empty());
}

TEST(Cli, NewRigCanBeCheckedComparedAndMixed) {
  const Folder folder;
  const std::string a = folder / "wing.rig.json", b = folder / "other.rig.json";
  EXPECT_EQ(run("new " + a + " --name Wing --kind flying_wing").status, 0);
  EXPECT_EQ(run("new " + a + " --name Wing --kind flying_wing").status, 2) << "nothing is overwritten";
  EXPECT_EQ(run("new " + b + " --name Wing --kind flying_wing").status, 0);
  EXPECT_EQ(run("compare " + a + " " + b).status, 0);
  EXPECT_EQ(run("compare " + a + " " + demo).status, 1);
  const Json mixed = Json::parse(run("surfaces " + a + " --roll 1 --pitch 1 --json").out);
  EXPECT_EQ(mixed["outputs"][0]["pulse_us"], 1500.0) << "left elevon: roll down, pitch up";
  EXPECT_EQ(mixed["outputs"][1]["pulse_us"], 2000.0);
  const Json proof = Json::parse(run("proof " + a + " --json").out);
  for (const Json& c : proof["checks"])
    if (c["check"] == "stick.roll") EXPECT_EQ(c["expected"]["elevon_left"], "down");
  EXPECT_EQ(proof["checks"][0]["check"], "prepare.bind") << "in the order that builders keep";
  EXPECT_EQ(Json::parse(run("airframe " + a + " --json").out)["kind"], "flying_wing");
}

TEST(Cli, HandCardsComeFromWhatWasSeen) {
  const Folder folder;
  const std::string seen = folder.file("seen.json", R"({"observations":[
    {"do":"stick","axis":"pitch","sense":"up","mode":"manual","saw":{"elevon_left":"up","elevon_right":"down","canard":"down"}},
    {"do":"stick","axis":"roll","sense":"right","mode":"manual","saw":{"elevon_left":"down","elevon_right":"down"}},
    {"do":"tilt","axis":"roll","sense":"right","mode":"level","saw":{"elevon_left":"up","elevon_right":"up"}}]})");
  const Ran ran = run("hand-card " + (source / "data/demo/delta.rig.json").string() + " " + seen + " --into " +
                      folder.file("x", "").substr(0, 0) + (folder / ""));
  EXPECT_EQ(ran.status, 0) << ran.err;
  const auto svg = read_file(folder / "hand-card-1.svg");
  ASSERT_TRUE(svg);
  EXPECT_NE(svg->find("Tick reverse for ail 2"), std::string::npos) << *svg;
}

}  // namespace
}  // namespace rigging

namespace rigging {
namespace {

// The documented examples are real: every JSON block parses, and the case is answered as printed.
TEST(Documentation, CommandLineExamplesHold) {
  const std::string text = *read_file(source / "docs/command-line.md");
  std::vector<Json> blocks;
  for (std::size_t at = text.find("```json"); at != std::string::npos; at = text.find("```json", at + 1)) {
    const std::size_t start = at + 7, end = text.find("```", start);
    const auto json = parse_json(std::string_view(text).substr(start, end - start), "block");
    ASSERT_TRUE(json) << json.error().text();
    blocks.push_back(*json);
  }
  ASSERT_GE(blocks.size(), 6u);
  const Folder folder;
  const Json answer =
      Json::parse(run("directions " + folder.file("documented.json", blocks[0].dump()) + " --json").out);
  EXPECT_EQ(answer["explanations"][0]["faults"], blocks[1]["explanations"][0]["faults"]);
  EXPECT_EQ(answer["settled"], blocks[1]["settled"]);
  const Json checked = Json::parse(run("check " + demo + " --json").out);
  for (const auto& [key, value] : checked.items()) EXPECT_TRUE(blocks[2].contains(key)) << key << " is not documented";
  // Every member that the planning commands answer is in their example, two floors deep.
  const auto documented = [&](const std::string& heading) {
    const std::size_t at = text.find("## `" + heading), start = text.find("```json", at) + 7;
    return *parse_json(std::string_view(text).substr(start, text.find("```", start) - start), heading);
  };
  const std::string heavy = [&] {
    Json rig = *read_json_file(demo);
    for (Json& p : rig["parts"])
      if (p["kind"] == "servo_12g_metal") p["kind"] = "servo_40g_analogue";
    return folder.file("heavy.rig.json", rig.dump());
  }();
  for (const std::string command : {"power", "fit", "wiring", "plan", "sticks", "mix", "linkage", "throws"})
    for (const std::string& rig : {demo, heavy}) {
      const Json example = documented(command + " RIG"), actual = Json::parse(run(command + " " + rig + " --json").out);
      for (const auto& [key, value] : actual.items()) {
        EXPECT_TRUE(example.contains(key)) << command << ": " << key << " is not documented";
        if (!example.contains(key) || !value.is_array() || value.empty() || !value[0].is_object() ||
            example[key].empty())
          continue;
        for (const Json& row : value)
          for (const auto& [member, unused] : row.items())
            if (member != "heat" && member != "junction" && member != "inlet_v")
              EXPECT_TRUE(example[key][0].contains(member))
                  << command << ": " << key << "/" << member << " is not documented";
      }
    }
}

}  // namespace
}  // namespace rigging

namespace rigging {
namespace {

TEST(Cli, PowerFitWiringAndPlanAnswerInJson) {
  const Json power = Json::parse(run("power " + demo + " --json").out);
  for (const char* key : {"rails", "sources", "consumers", "explanations", "controller_least", "brown_out_margin",
                          "battery_full", "sag", "endurance", "drive"})
    EXPECT_TRUE(power.contains(key)) << key;
  const auto esc =
      std::find_if(power["sources"].begin(), power["sources"].end(), [](const Json& s) { return s["part"] == "esc"; });
  ASSERT_NE(esc, power["sources"].end());
  EXPECT_EQ((*esc)["rating_a"], 5.0);
  EXPECT_NEAR((*esc)["amps"]["two_stalled_a"].get<double>(), 2 * 1.2 + 2 * 0.3, 1e-9);
  const Json stalled = Json::parse(run("power " + demo + " --stall servo_inverted_v_left --more-cells 1 --json").out);
  EXPECT_NEAR(stalled["battery_full"]["value"].get<double>(), 21.0, 1e-9);

  const Json fit = Json::parse(run("fit " + demo + " --json").out);
  EXPECT_TRUE(fit["complete"].get<bool>());
  double mass = 0, moment = 0;
  for (const Json& i : fit["items"]) {
    mass += i["mass_kg"].get<double>();
    moment += i["mass_kg"].get<double>() * i["behind_nose_m"].get<double>();
  }
  EXPECT_NEAR(fit["mass_kg"].get<double>(), mass, 1e-9);
  EXPECT_NEAR(fit["balance_m"].get<double>(), moment / mass, 1e-9);
  EXPECT_EQ(fit["compasses"].size(), 1u);

  const Json wiring = Json::parse(run("wiring " + demo + " --json").out);
  EXPECT_EQ(wiring["loom"].size(), 17u);
  EXPECT_EQ(wiring["power_pads_needed"], 2);

  const Ran plan = run("plan " + demo + " --json");
  EXPECT_EQ(plan.status, 0);
  EXPECT_EQ(Json::parse(plan.out)["changes"], 0);
  for (const char* command : {"power", "fit", "wiring", "plan"}) {
    const Ran plain = run(std::string(command) + " " + demo);
    EXPECT_EQ(plain.status, 0) << command;
    EXPECT_GT(plain.out.size(), 200u) << command;
  }
}

TEST(Cli, APlanIsWrittenOnlyWhereItIsAskedFor) {
  const Folder folder;
  Json rig = *read_json_file(demo);
  rig.erase("leads");
  const std::string bare = folder.file("bare.rig.json", rig.dump());
  const Ran plan = run("plan " + bare + " --into " + (folder / "planned.rig.json") + " --json");
  EXPECT_EQ(plan.status, 0) << plan.err;
  EXPECT_FALSE(read_json_file(bare)->contains("leads"));
  EXPECT_EQ((*read_json_file(folder / "planned.rig.json"))["leads"].size(), 17u);
  rig["parts"].push_back({{"id", "more_gps"}, {"kind", "satellite_compass"}});
  rig["parts"].push_back({{"id", "even_more"}, {"kind", "satellite_compass"}});
  rig["parts"].push_back({{"id", "too_many"}, {"kind", "satellite_compass"}});
  const Ran full = run("plan " + folder.file("full.rig.json", rig.dump()) + " --json");
  EXPECT_EQ(full.status, 1);
  EXPECT_EQ(Json::parse(full.out)["obstacles"][0]["code"], "WIRING-01");
}

TEST(Cli, SheetsAreWrittenAsSvgAndPdf) {
  const Folder folder;
  for (const char* what : {"plug-list", "wiring"}) {
    const std::string svg = folder / (std::string(what) + ".svg"), pdf = folder / (std::string(what) + ".pdf");
    EXPECT_EQ(run(std::string("sheet ") + demo + " " + what + " --into " + svg).status, 0);
    const Ran ran = run(std::string("sheet ") + demo + " " + what + " --into " + pdf);
    EXPECT_EQ(ran.status, 0) << ran.err;
    EXPECT_EQ(ran.err, "");
    std::ifstream in(pdf);
    std::string first;
    std::getline(in, first);
    EXPECT_TRUE(first.starts_with("%PDF-")) << first;
  }
  for (const std::string& bad :
       {"sheet " + demo + " recipe --into " + (folder / "a.svg"),
        "sheet " + demo + " wiring --into " + (folder / "a.txt"),
        "sheet " + demo + " wiring --into /nowhere/at/all/a.svg", "power " + demo + " --stall nobody"}) {
    const Ran ran = run(bad);
    EXPECT_EQ(ran.status, 2) << bad;
    EXPECT_EQ(std::count(ran.err.begin(), ran.err.end(), '\n'), 1) << ran.err;
    EXPECT_NE(ran.err.find("expected"), std::string::npos) << ran.err;
  }
}

/// Numbers that are none, or beyond everything, are never said: in no answer over the demo rigs at the ends of what
/// each of their values may be.
TEST(Cli, NoAnswerHoldsANumberThatIsNone) {
  const Folder folder;
  std::mt19937 random(9);
  int looked = 0;
  const std::function<void(const Json&, const std::string&)> look = [&](const Json& value, const std::string& where) {
    if (value.is_number()) {
      ++looked;
      EXPECT_LT(std::abs(value.get<double>()), 1e9) << where;
    } else if (value.is_string()) {
      static const std::regex none("(^|[^a-z])-?(nan|inf)([^a-z]|$)|[0-9]{12}");
      EXPECT_FALSE(std::regex_search(value.get<std::string>(), none)) << where << ": " << value;
    } else if (value.is_structured()) {
      for (const auto& [name, inside] : value.items()) look(inside, where + "/" + name);
    }
  };
  const Json schema = *read_json_file(source / "data/schema/rig.schema.json");
  const auto spoil = [&](Json& rig) {
    const Json& sizes = schema["properties"]["airframe"]["properties"];
    for (auto& [name, value] : rig["airframe"].items())
      if (value.is_number() && sizes[name].contains("minimum") && random() % 3 == 0)
        value = sizes[name][random() % 2 ? "minimum" : "maximum"];
  };
  for (const char* name : {"hedgerow", "delta", "bramble"})
    for (int draw = 0; draw < 3; ++draw) {
      Json rig = *read_json_file(source / ("data/demo/" + std::string(name) + ".rig.json"));
      if (draw > 0) spoil(rig);
      const std::string file = folder.file("spoilt.rig.json", rig.dump());
      for (const char* command : {"airframe", "fit", "flight", "margins", "advise", "linkage", "failsafe", "level"}) {
        const Ran ran = run(command + (" " + file) + " --json");
        ASSERT_LE(ran.status, 2) << command << ran.err;
        if (ran.status < 2) look(Json::parse(ran.out), std::string(name) + " " + command);
      }
    }
  EXPECT_GT(looked, 3000);
}

/// A terminal obeys what is in a name; the command line passes no control character on.
TEST(Cli, NamesDoNotCommandTheTerminal) {
  const Folder folder;
  Json rig = *read_json_file(demo);
  rig["name"] =
      "ring\x07 \x1b]0;title\x07 \x1b[2J \xc2\x9b"
      "31m";
  rig["outputs"][0]["id"] = "out\x1b[31m";
  const std::string file = folder.file("bell.rig.json", rig.dump());
  for (const char* command : {"check", "airframe", "wiring", "modes", "compare"}) {
    const Ran ran = run(command + (" " + file) + (std::string(command) == "compare" ? " " + demo : ""));
    for (const std::string& said : {ran.out, ran.err})
      for (const char c : said)
        EXPECT_TRUE(static_cast<unsigned char>(c) >= 0x20 || c == '\n' || c == '\t') << command << static_cast<int>(c);
    EXPECT_EQ(ran.out.find("\xc2\x9b"), std::string::npos) << command;
  }
  const Ran whole = run("check " + file + " --json");
  EXPECT_TRUE(Json::accept(whole.out)) << "and JSON stays JSON";
}

/// A part's place is spoken of as it is measured: behind the nose, though body axes count forward.
TEST(Cli, PlacesAreSpokenOfBehindTheNose) {
  const Folder folder;
  Json rig = *read_json_file(demo);
  rig["places"][0]["x_m"] = -0.1;
  const Ran ran = run("compare " + folder.file("moved.rig.json", rig.dump()) + " " + demo);
  EXPECT_NE(ran.out.find("behind the nose: 100 mm"), std::string::npos) << ran.out;
}

TEST(Cli, SchemasShippedAreThoseOfTheReader) {
  for (const char* what : {"rig", "parts"}) {
    const Ran ran = run(std::string("schema ") + what);
    EXPECT_EQ(ran.status, 0);
    EXPECT_EQ(Json::parse(ran.out), *read_json_file(source / "data/schema" / (std::string(what) + ".schema.json")))
        << what << ": write it again with rigging-cli schema";
  }
  EXPECT_EQ(run("schema soup").status, 2);
}

// Source: published test values of the World Magnetic Model 2025, fourth row of the table in tests/reference/data.
TEST(Cli, DeclinationAnswersAndRefuses) {
  const Ran ran = run("declination --lat -50 --lon -103 --alt-km 3 --date 2025-01-01 --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const Json f = Json::parse(ran.out);
  EXPECT_NEAR(f["declination_deg"].get<double>(), 27.96, 0.005);
  EXPECT_NEAR(f["total_nT"].get<double>(), 38431.724126, 0.01);
  for (const char* bad : {"--lat 91 --lon 0 --date 2026", "--lat 0 --lon 0 --date 2031",
                          "--lat 0 --lon 0 --date 2024-12-31", "--lat x --lon 0 --date 2026", "--lat 0 --lon 0",
                          "--lat 0 --lon 0 --date tomorrow", "--lat nan --lon 0 --date 2026"}) {
    const Ran refused = run(std::string("declination ") + bad);
    EXPECT_EQ(refused.status, 2) << bad;
    EXPECT_EQ(std::count(refused.err.begin(), refused.err.end(), '\n'), 1) << refused.err;
  }
}

}  // namespace
}  // namespace rigging

namespace rigging {
namespace {

TEST(Cli, CapturesAreDecodedAndBadOnesRefused) {
  const Folder folder;
  Capture capture;
  capture.timed = true;
  std::string raw;
  for (int i = 0; i < 40; ++i) {
    ChannelFrame f;
    f.channels = 16;
    f.pulse_us.fill(static_cast<float>(1000 + 25 * i));
    f.failsafe = i == 30;
    capture.chunks.push_back({i * 9000.0, encode_inverted_serial(f)});
    raw += (i == 20 ? std::string("\x13\x37 noise") : std::string()) + encode_inverted_serial(f);
  }
  const Ran timed = run("decode " + folder.file("timed.csv", capture_text(capture)) + " --json");
  EXPECT_EQ(timed.status, 1) << "a frame says that the link was gone";
  const Json json = Json::parse(timed.out);
  EXPECT_EQ(json["signal"], "inverted_serial");
  EXPECT_EQ(json["frames"], 40);
  EXPECT_EQ(json["failsafe"], 1);
  EXPECT_NEAR(json["frames_per_s"].get<double>(), 111.1, 0.1);
  EXPECT_NEAR(json["channels"][3]["most_us"].get<double>(), 1975, 0.4);
  EXPECT_TRUE(json["channels"][3]["moved"].get<bool>());
  EXPECT_EQ(json["channels"][3]["drift_us"], 0) << "what is moved does not drift";
  const Json bare = Json::parse(run("decode " + folder.file("raw.bin", raw) + " --json --every-frame").out);
  EXPECT_EQ(bare["frames"], 40);
  EXPECT_EQ(bare["skipped"], 8);
  EXPECT_EQ(bare["resyncs"], 1);
  EXPECT_TRUE(bare["frames_per_s"].is_null());
  EXPECT_EQ(bare["every_frame"].size(), 40u);
  for (const std::string& bad :
       {"decode " + folder.file("empty", ""), "decode " + folder.file("text", "t_us,bytes\n0,zz\n"),
        "decode " + folder.file("noise", std::string(3000, 'x')), std::string("decode /nonexistent"),
        "decode " + folder.file("raw2.bin", raw) + " --signal morse",
        "decode " + folder.file("raw3.bin", raw) + " --signal summed", "linkage " + demo + " --surface wing",
        "linkage " + demo + " --degrees 80", "linkage " + demo + " --surface flaperon_left --want 90",
        "throws " + demo + " --surface flaperon_left --read 1000",
        "throws " + demo + " --surface flaperon_left --read 1000:5furlong",
        "mix " + demo + " --throw flaperon_left:roll", "mix " + demo + " --throw flaperon_left:yaw:5",
        "mix " + demo + " --throw flaperon_left:roll:80",
        "throws " + demo + " --surface flaperon_left --read 1000:-20 --read 1500:40 --read 2000:20"}) {
    const Ran ran = run(bad);
    EXPECT_EQ(ran.status, 2) << bad << ran.out;
    EXPECT_EQ(std::count(ran.err.begin(), ran.err.end(), '\n'), 1) << bad << ": " << ran.err;
  }
}

TEST(Cli, SticksLinkageMixAndThrows) {
  const Folder folder;
  Json rig = *read_json_file(demo);
  for (Json& c : rig["radio"]["channels"])
    if (c["function"] == "roll") c.update({{"low_us", 1060}, {"centre_us", 1512}, {"high_us", 1940}});
  for (Json& l : rig["linkages"]) l.update({{"arm_holes_m", {0.009, 0.012}}, {"horn_holes_m", {0.012, 0.016}}});
  const std::string file = folder.file("read.rig.json", rig.dump());
  const Json sticks = Json::parse(run("sticks " + file + " --json").out);
  const Json& dial = sticks["channels"][0]["dial_in"];
  EXPECT_NEAR(dial["sub_trim_us"].get<double>(), -12, 1e-9);
  EXPECT_NEAR(dial["travel_low_percent"].get<double>(), 110.6, 0.05);
  const Json linkage =
      Json::parse(run("linkage " + file + " --surface flaperon_left --pulse 1800 --degrees 10 --want 20 --json")
                      .out)["linkages"][0];
  EXPECT_NEAR(Json::parse(run("linkage " + file + " --surface flaperon_left --pulse " +
                              std::to_string(linkage["pulses"][0]["pulse_us"].get<double>()) + " --json")
                              .out)["linkages"][0]["points"][0]["up_deg"]
                  .get<double>(),
              10, 1e-4);
  EXPECT_EQ(linkage["holes"].size(), 4u);
  EXPECT_TRUE(linkage["holes"][0]["reaches"].get<bool>());
  EXPECT_EQ(Json::parse(run("mix " + demo + " --json").out)["words"].size(), 2u);
  const Json throws = Json::parse(
      run("throws " + demo + " --surface flaperon_left --read 1000:-30deg --read 1500:-3deg --read 2000:25deg --json")
          .out);
  EXPECT_LT(throws["surfaces"][0]["centring"]["neutral_deg"].get<double>(), -2.5);
  for (const char* command : {"sticks", "linkage", "mix", "throws"})
    EXPECT_GT(run(std::string(command) + " " + demo).out.size(), 60u) << command;
  // Throws that are wished for: shown without a file, written with one, and the rig that was given stays as it is.
  const std::string before = *read_file(demo, 1 << 20), into = folder / "wished.rig.json";
  const Json wished =
      Json::parse(run("mix " + demo + " --throw flaperon_left:roll:18 --throw inverted_v_left:pitch:12.5 --into " +
                      into + " --json")
                      .out);
  for (const Json& line : wished["surfaces"]) {
    if (line["surface"] == "flaperon_right")
      EXPECT_NEAR((line["roll"]["positive_deg"].get<double>() - line["roll"]["negative_deg"].get<double>()) / 2, 18,
                  0.05);
    if (line["surface"] == "inverted_v_right")
      EXPECT_NEAR((line["pitch"]["positive_deg"].get<double>() - line["pitch"]["negative_deg"].get<double>()) / 2, 12.5,
                  0.05);
  }
  EXPECT_EQ(*read_file(demo, 1 << 20), before);
  EXPECT_EQ(Json::parse(run("mix " + into + " --json").out)["surfaces"], wished["surfaces"]);
  EXPECT_EQ(run("sheet " + demo + " settings --into " + (folder / "s.pdf")).status, 0);
  EXPECT_EQ(read_file(folder / "s.pdf", 1 << 24)->substr(0, 4), "%PDF");
  EXPECT_EQ(run("sheet " + demo + " gauges --into " + (folder / "g.svg")).status, 0);
  EXPECT_TRUE(std::filesystem::exists(folder / "g-2.svg"));
}

TEST(Cli, EditsAsTheScreensDo) {
  Folder folder;
  const std::string rig = (source / "data/demo/hedgerow.rig.json").string(), into = folder / "edited.rig.json";
  Ran ran = run("edit " + rig + " set airframe/span_m 2.1 --into " + into + " --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  EXPECT_EQ(Json::parse(ran.out)["differing"], Json::array({"/airframe/span_m"}));
  EXPECT_EQ((*read_json_file(into))["airframe"]["span_m"], 2.1);
  EXPECT_EQ((*read_json_file(into))["version"], rig_version);
  for (const char* bad :
       {"set airframe/span_m wide", "set airframe/spam 2", "dance", "set airframe/span_m", "flip out_1 yaw"}) {
    ran = run("edit " + rig + " " + bad);
    EXPECT_EQ(ran.status, 2) << bad;
    EXPECT_EQ(std::count(ran.err.begin(), ran.err.end(), '\n'), 1) << ran.err;
  }
}

TEST(Cli, AsksInOnesOwnWords) {
  Folder folder;
  const std::string rig = (source / "data/demo/hedgerow.rig.json").string(), into = folder / "asked.rig.json";
  const auto first = [&](const std::string& sentence) {
    const Ran ran = run("ask " + rig + " \"" + sentence + "\" --json");
    EXPECT_EQ(ran.status, 0) << sentence << ran.err;
    return Json::parse(ran.out)["meant"][0];
  };
  EXPECT_EQ(first("how long can I fly")["kind"], "answer");
  EXPECT_EQ(first("make the text larger")["kind"], "view");
  EXPECT_EQ(first("reverse the left flaperon")["kind"], "deed");
  const Json plugged = first("where is the receiver plugged in");
  for (const auto& [key, value] : plugged.items())
    EXPECT_TRUE(key == "kind" || key == "words" || key == "station" || key == "subject") << key;
  ASSERT_EQ(run("ask " + rig + " 'span 1.9 m' --into " + into).status, 0);
  EXPECT_EQ((*read_json_file(into))["airframe"]["span_m"], 1.9);
  const Ran nothing = run("ask " + rig + " 'colourless green ideas' --json");
  EXPECT_EQ(nothing.status, 1);
  EXPECT_EQ(Json::parse(nothing.out)["meant"], Json::array());
  EXPECT_EQ(run("ask " + rig + " 'how long can I fly' --into " + into).status, 2) << "changes nothing";
  EXPECT_EQ(run("ask nowhere.rig.json 'span'").status, 2);
}

TEST(Cli, CarriesOutTheFixOfASnag) {
  Folder folder;
  Json rig = *read_json_file(source / "data/demo/hedgerow.rig.json");
  rig["airframe"]["mass_kg"] = 9;
  const std::string file = folder.file("heavy.rig.json", rig.dump()), into = folder / "fixed.rig.json";
  int fixed = 0;
  const Json checked = Json::parse(run("check " + file + " --json").out);
  for (const Json& s : checked["snags"]) {
    const std::string code = s["code"], subject = s["subject"];
    const Ran ran = run("fix " + file + " " + code + " --subject '" + subject + "' --into " + into + " --json");
    EXPECT_EQ(ran.status, s["fixable"] ? 0 : 2) << code << " " << subject << ran.err;
    if (!s["fixable"]) continue;
    ++fixed;
    EXPECT_FALSE(Json::parse(ran.out)["differing"].empty()) << code;
    const Json after = Json::parse(run("check " + into + " --json").out);
    for (const Json& t : after["snags"])
      EXPECT_FALSE(t["code"] == code && t["subject"] == subject && t["what"] == s["what"]) << code << " is still there";
  }
  EXPECT_GT(fixed, 0);
  EXPECT_EQ(run("fix " + file + " NOWHERE-01").status, 2);
}

TEST(Cli, UnitsAreChosenAndJsonStaysSi) {
  const std::string rig = (source / "data/demo/hedgerow.rig.json").string();
  EXPECT_NE(run("airframe " + rig).out.find("m/s"), std::string::npos);
  const std::string feet = run("--units imperial airframe " + rig).out;
  EXPECT_NE(feet.find("ft/s"), std::string::npos);
  EXPECT_EQ(run("--units imperial airframe " + rig + " --json").out, run("airframe " + rig + " --json").out);
  EXPECT_EQ(run("--units cubits airframe " + rig).status, 2);
}

TEST(Cli, AnswersWithoutAWindowingLibrary) {
  EXPECT_EQ(run("--version").status, 0);
  EXPECT_EQ(run("--help").status, 0);
  // Only the program that makes a PDF knows Qt.
  FILE* pipe = ::popen((std::string("ldd ") + program("rigging-cli")).c_str(), "r");
  std::string libraries;
  char block[4096];
  for (std::size_t n; (n = std::fread(block, 1, sizeof block, pipe)) > 0;) libraries.append(block, n);
  ::pclose(pipe);
  EXPECT_NE(libraries.find("libstdc++"), std::string::npos) << libraries;
  EXPECT_EQ(libraries.find("Qt"), std::string::npos) << libraries;
}

/// A rig of version 1 and what this version makes of it differ in nothing.
TEST(Cli, ARigOfVersionOneComparesWithItself) {
  Folder folder;
  const std::string old = (source / "tests/rig/version_1/hedgerow.rig.json").string(), now = folder / "now.rig.json";
  ASSERT_EQ(run("edit " + old + " mounted yes --into " + now).status, 0);
  EXPECT_EQ((*read_json_file(now))["version"], rig_version);
  const Ran ran = run("compare " + old + " " + now);
  EXPECT_EQ(ran.status, 0) << ran.out;
}

TEST(Cli, PlayWalksThroughAProcedureFromAScript) {
  const Folder folder;
  const Ran first = run("play " + demo + " proof");
  EXPECT_EQ(first.status, 0);
  EXPECT_NE(first.out.find("can: "), std::string::npos) << first.out;
  const std::string script = folder.file("walk", "# two checks\nchoose stick.roll\npress as_shown\npress as_shown\n");
  const std::string into = folder / "after.rig.json";
  const Ran ran = run("play " + demo + " proof --script " + script + " --into " + into + " --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const Json json = Json::parse(ran.out);
  ASSERT_EQ(json["heard"].size(), 3u);
  EXPECT_EQ(json["heard"][1]["done"][0], "Recorded: stick.roll");
  EXPECT_EQ(json["card"]["subject"], "stick.yaw");
  int stands = 0;
  const Json after = Json::parse(run("check " + into + " --json").out);
  for (const Json& c : after["checks"]) stands += c["state"] == "fresh";
  EXPECT_EQ(stands, 2);

  const Ran bad = run("play " + demo + " proof --script " + folder.file("bad", "choose stick.roll\npress fly\n"));
  EXPECT_EQ(bad.status, 2);
  EXPECT_NE(bad.err.find("bad:2"), std::string::npos) << bad.err;
  EXPECT_NE(bad.err.find("as_shown"), std::string::npos) << "what is offered: " << bad.err;
  EXPECT_EQ(run("play " + demo + " juggling").status, 2);
}

TEST(Cli, PlayHearsACapture) {
  // Four lines, a pulse of each every 20 ms for 1.2 s: sticks at rest, throttle closed.
  const Folder folder;
  std::string table = "t_us,a,b,c,d\n0,0,0,0,0\n";
  const int us[] = {1500, 1500, 1000, 1500};
  for (int frame = 0; frame < 60; ++frame)
    for (int line = 0; line < 4; ++line) {
      const int at = 1000 + frame * 20000 + line * 4000;
      std::string level = ",0,0,0,0";
      level[static_cast<std::size_t>(2 * line + 1)] = '1';
      table += std::to_string(at) + level + "\n" + std::to_string(at + us[line]) + ",0,0,0,0\n";
    }
  folder.file("rest.csv", table);
  const std::string script = folder.file("listen", "bench hears=yes\npress listen\ncapture rest.csv\n");
  const Ran ran = run("play " + demo + " sticks --script " + script + " --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const Json card = Json::parse(ran.out)["card"];
  EXPECT_EQ(card["stick"]["function"], "roll") << "rest was heard: the first stick is asked for";
  EXPECT_EQ(card["stick"]["side"], 1);
  const Ran none = run("play " + demo + " sticks --script " + folder.file("lost", "capture nowhere.csv\n"));
  EXPECT_EQ(none.status, 2);
}

}  // namespace
}  // namespace rigging
