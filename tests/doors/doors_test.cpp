#include <gtest/gtest.h>

#include <QAction>
#include <QApplication>
#include <QLabel>
#include <QPushButton>
#include <QTest>
#include <fstream>
#include <iostream>
#include <sstream>

#include "base/json.h"
#include "bench.h"
#include "bench_rig.h"
#include "link/image.h"
#include "look/literals.h"
#include "places.h"
#include "ports.h"
#include "review/stations.h"
#include "run.h"
#include "sheets/setting_card.h"
#include "shell/main_window.h"
#include "stations/entries.h"
#include "stations/proof/proof_chain.h"
#include "store.h"

// The doors of docs/contributing.md: one of each is added here, as a later station would, and looked for wherever a
// builder would meet it. Everything that is added stands in this file.
namespace rigging {
using namespace Qt::StringLiterals;
namespace {

// A setting, kept in the document as a member of the home section.
constexpr const char* volume = "horn_volume_percent";

Setting horn_volume() {
  return {.name = "horn_volume_percent",
          .of = SettingOf::board,
          .label = "horn volume",
          .span = {0, 100},
          .usual = 0.0,
          .always = false,
          .get = [](const Rig& rig, const std::string&) -> SettingValue {
            return number_member(rig.home.unknown_members.members(), volume, 0);
          },
          .set =
              [](Rig& rig, const std::string&, const SettingValue& v) {
                Json members = rig.home.unknown_members.members();
                members[volume] = std::get<double>(v);
                rig.home.unknown_members = UnknownMembers(std::move(members));
              }};
}

// A rule.
void no_horn(const Inspection& in, Findings& found) {
  if (in.rig.name == "Silent")
    found.add(Severity::fix_first, "horn", "It has no horn", "Nobody hears it in tall grass.", "Fit one.");
}

// A check.
CheckFamily horn_heard() {
  CheckFamily f;
  f.id = "senses.horn_heard";
  f.station = Station::logbook;
  f.name = "Horn heard";
  f.one = "horn";
  f.many = "horns";
  f.subjects = [](const CheckContext&) { return std::vector<std::string>{""}; };
  f.depends_on = [](const CheckContext&, const std::string&) {
    return std::vector<std::string>{"name", "controller/kind"};
  };
  f.card = [](const CheckContext&, const std::string&) {
    return CheckCard{"The horn is heard", "", "Sound the horn.", "It is heard at ten paces.", "", {"Propeller off."}};
  };
  return f;
}

// A rule of the second tier, with a fix that is an edit.
void flies_too_far(const Inspection& in, Findings& found) {
  if (in.rig.name != "Silent" || !in.deferred->home.missing.empty()) return;
  found.add(Severity::worth_knowing, "horn", "It flies out of hearing", "Nobody hears it land.", "Name it Loud.").fix =
      sets("Name it Loud", {{"name", std::string("Loud")}});
}

// A station beyond those that there are.
constexpr auto hangar = static_cast<Station>(11);

// An edit.
Result<Edit> silence(const Rig& rig, const Catalogue&, const std::vector<std::string>&) {
  Edit e{rig, "Silenced"};
  e.rig.name = "Silent";
  return e;
}

// A procedure: it asks for a key, hears the time, and records what was heard.
class SoundTheHorn : public Procedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override {
    if (const auto* time = std::get_if<Time>(&event)) now_s_ = time->s;
    const auto* pressed = std::get_if<Pressed>(&event);
    if (pressed && pressed->action == "horn_sound") sounds_since_s_ = now_s_;
    if (!pressed || pressed->action != "horn_was_heard") return {};
    sounds_since_s_.reset();
    Edit louder{scene.rig, "Horn sounded"};
    louder.rig.name = "Loud";
    return {ApplyEdit{louder}, Record{{"senses.horn_heard", ""}, "The horn was heard"}};
  }
  Card card(const Scene&) const override {
    Card c;
    c.todo = sounds_since_s_ ? "Listen at ten paces." : "Sound the horn.";
    c.caution = "Propeller off.";
    c.busy = sounds_since_s_.has_value();
    c.actions = {{.id = "horn_sound", .label = "Sound it", .main = true, .enabled = !c.busy},
                 {.id = "horn_was_heard", .label = "I heard it", .enabled = c.busy}};
    return c;
  }

 private:
  double now_s_ = 0;
  std::optional<double> sounds_since_s_;
};

// A station's page.
class HornPage : public app::StationPage {
 public:
  explicit HornPage(const app::PageContext& context)
      : StationPage(Station::logbook, context), words_(new QLabel(this)) {
    words_->setObjectName(u"horn_words"_s);
    refresh();
  }
  QList<app::NamedAction> named_actions() override {
    return {{u"Sound the horn"_s, u"beep"_s, [this] { come_here(); }}};
  }

 protected:
  void refresh() override { words_->setText(QString::fromStdString(document_.rig().name)); }

 private:
  QLabel* words_;
};

void open_the_doors() {
  settings().push_back(horn_volume());
  for (StationEntry& e : stations())
    if (e.station == Station::logbook) {
      e.rules.push_back({"SENSES-90", Station::logbook, no_horn, source::common});
      e.rules.push_back({"HOME-90", Station::logbook, flies_too_far, source::common, Tier::deferred});
      e.checks.push_back(horn_heard());
      e.procedures.push_back({"horn", "Sound the horn and listen", "",
                              []() -> std::unique_ptr<Procedure> { return std::make_unique<SoundTheHorn>(); }});
      e.edits.push_back({"silence", "Take the horn away", {}, silence});
    }
  Names<Station>::list.emplace_back(hangar, "hangar");
  StationEntry beyond;
  beyond.station = hangar;
  beyond.question = "Where does it stay overnight?";
  beyond.to_come = "Not built yet.";
  beyond.rules.push_back({"HANGAR-01", hangar,
                          [](const Inspection&, Findings& found) {
                            found.add(Severity::worth_knowing, "roof", "It has no roof", "It rains.", "Find one.");
                          },
                          source::common});
  stations().push_back(beyond);
  app::page_entries().push_back(
      {Station::logbook, [](const app::PageContext& c) -> app::StationPage* { return new HornPage(c); }});
}

struct Said {
  int status;
  std::string out;
};
Said cli(std::vector<std::string> words) {
  words.insert(words.begin(), "rigging-cli");
  std::vector<const char*> argv;
  for (const std::string& w : words) argv.push_back(w.c_str());
  std::ostringstream out;
  std::streambuf* const before = std::cout.rdbuf(out.rdbuf());
  const int status = cli::run(static_cast<int>(argv.size()), argv.data());
  std::cout.rdbuf(before);
  return {status, out.str()};
}

/// A folder with a rig of its own, a part and a class that no catalogue has.
class Doors : public testing::Test {
 protected:
  void SetUp() override {
    folder_ = std::filesystem::temp_directory_path() / ("rigging_doors_" + std::to_string(::getpid()));
    std::filesystem::create_directories(folder_);
    rig_ = demo("hedgerow");
    rig_.name = "Silent";
    ASSERT_TRUE(save_rig(rig_, file()));
    Json own{{"format", "parts"}, {"version", 3}};
    own["parts"] = {
        {{"id", "horn_of_my_own"}, {"name", "My horn"}, {"group", "buzzer"}, {"basis", "weighed"}, {"mass_kg", 0.004}}};
    Json classes = *read_json_file(in_source("/data/catalogue/controllers.json"));
    for (Json& c : classes["controllers"])
      if (c["id"] == "full_controller") {
        c["id"] = "board_of_my_own";
        c["name"] = "My board";
        own["controllers"] = Json::array({c});
      }
    std::ofstream(folder_ / "silent.parts.json") << own.dump();
  }
  void TearDown() override { std::filesystem::remove_all(folder_); }
  std::string file() const { return (folder_ / "silent.rig.json").string(); }
  app::Settings window_settings() const {
    app::Settings s;
    s.data_folder = QString::fromStdString(in_source("/data"));
    s.state_folder = QString::fromStdString((folder_ / "state").string());
    return s;
  }

  std::filesystem::path folder_;
  Rig rig_;
};

TEST_F(Doors, ARuleACheckAndAnEditReachTheCommandLine) {
  const Said check = cli({"check", file(), "--json"});
  const Json json = Json::parse(check.out);
  int snags = 0, checks = 0;
  for (const Json& s : json["snags"]) snags += s["code"] == "SENSES-90" && s["source"] == "common practice";
  for (const Json& c : json["checks"])
    checks += c["check"] == "senses.horn_heard" && c["station"] == "logbook" && c["state"] == "none";
  EXPECT_EQ(snags, 1);
  EXPECT_EQ(checks, 1);
  EXPECT_FALSE(json["ready"].get<bool>()) << "readiness waits for it";
  EXPECT_NE(cli({"proof", file()}).out.find("It is heard at ten paces"), std::string::npos) << "its card";
  EXPECT_EQ(cli({"edit", file(), "silence"}).out, "Silenced\n");
}

TEST_F(Doors, AProcedureIsPlayedOnTheCommandLine) {
  const std::string script = (folder_ / "horn.script").string();
  std::ofstream(script) << "time 2\npress horn_sound\npress horn_was_heard\n";
  EXPECT_NE(cli({"play", "--help"}).out.find("Sound the horn and listen"), std::string::npos);
  const Said said = cli({"play", file(), "horn", "--script", script, "--into", file()});
  EXPECT_EQ(said.status, 0);
  EXPECT_NE(said.out.find("Listen at ten paces."), std::string::npos) << said.out;
  EXPECT_NE(said.out.find("Recorded: senses.horn_heard"), std::string::npos) << said.out;
  const Rig after = *load_rig(file());
  EXPECT_EQ(after.name, "Loud");
  EXPECT_EQ(after.proofs.back().check.text(), "senses.horn_heard");
}

TEST_F(Doors, APartAndAClassOfOnesOwnWorkLikeShippedOnes) {
  EXPECT_EQ(cli({"edit", file(), "add-part", "horn_of_my_own", "--into", file()}).status, 0);
  EXPECT_EQ(cli({"edit", file(), "class", "board_of_my_own", "--into", file()}).status, 0);
  const Json fit = Json::parse(cli({"fit", file(), "--json"}).out);
  int found = 0;
  for (const Json& item : fit["items"])
    found += item["name"].get<std::string>().find("My horn") != std::string::npos || item["mass_kg"] == 0.004;
  EXPECT_GE(found, 1);
  app::RigDocument document(shipped(), QString::fromStdString((folder_ / "recovery").string()));
  ASSERT_TRUE(document.open(QString::fromStdString(file())));
  ASSERT_TRUE(document.controller());
  EXPECT_EQ(document.controller()->name, "My board");
  EXPECT_TRUE(document.controller()->steps_for(Remedy::reverse_output)) << "what it can set, it can cure";
  EXPECT_TRUE(document.controller()->steps_for(Remedy::swap_leads)) << "and what hands can do on any model";
  twin::Bench bench(document.rig(), *document.controller(),
                    *twin::truth_of(document.rig(), *document.controller(), {}));
  EXPECT_EQ(bench.controller().id, "board_of_my_own");
}

TEST_F(Doors, ASettingReachesTheLinkTheTwinAndTheDifferences) {
  const ControllerClass& controller = *shipped().controller("full_controller");
  twin::Bench bench(rig_, controller, *twin::truth_of(rig_, controller, {}));
  bench.plug({true, true});
  for (int i = 0; i < 100; ++i) bench.step(0.01);
  twin::Store store;
  twin::ControllerPort port(bench, store, "1.0");
  Rig louder = rig_;
  setting_named(SettingOf::board, "horn_volume_percent")->set(louder, "", 80.0);
  link::Client client;
  link::WriteTransaction write(link::image_of(louder));
  while (const auto request = write.next())
    for (auto& item : client.feed(port.feed(client.ask(*request).second))) write.answered(std::get<link::Reply>(item));
  ASSERT_TRUE(write.done()) << write.problem();
  EXPECT_EQ(bench.image().value({SettingOf::board, "", "horn_volume_percent"}), SettingValue(80.0))
      << "the twin holds it";
  const auto found = link::differences(link::image_of(rig_), bench.image());
  ASSERT_EQ(found.size(), 1u);
  EXPECT_NE(found[0].words.find("horn volume 80 % on the board, 0 % in the rig"), std::string::npos) << found[0].words;
  // A class that has it set by hand finds it on its card.
  Catalogue dials = shipped();
  for (ControllerClass& c : dials.controllers)
    if (c.id == "full_controller") {
      SettingWay& way = c.settings.emplace_back();
      way.what = "horn_volume_percent";
      way.by = SetBy::dial;
    }
  std::string card;
  for (const std::string& page : setting_card_svg(louder, dials)) card += page;
  EXPECT_NE(card.find("horn volume"), std::string::npos);
  EXPECT_NE(card.find("80 %"), std::string::npos);
  EXPECT_NE(card.find(">dial<"), std::string::npos);
  Rig taken = link::with_board_parts(rig_, bench.image(), {found[0].part});
  EXPECT_EQ(number_member(taken.home.unknown_members.members(), volume, 0), 80);
}

TEST_F(Doors, ARuleOfTheSecondTierIsFoundAndItsFixCarriedOut) {
  const Json checked = Json::parse(cli({"check", file(), "--json"}).out);
  int found = 0;
  for (const Json& s : checked["snags"]) found += s["code"] == "HOME-90" && s["fixable"] == true;
  EXPECT_EQ(found, 1);
  EXPECT_EQ(cli({"fix", file(), "HOME-90", "--into", file()}).out, "Name it Loud\n");
  EXPECT_EQ(load_rig(file())->name, "Loud");
  app::RigDocument document(shipped(), QString::fromStdString((folder_ / "recovery").string()));
  ASSERT_TRUE(save_rig(rig_, file()));
  ASSERT_TRUE(document.open(QString::fromStdString(file())));
  for (int i = 0; i < 2000 && !document.deferred(); ++i) QTest::qWait(5);
  ASSERT_TRUE(document.deferred());
  const std::vector<Snag> snags = document.snags();
  const auto far = std::find_if(snags.begin(), snags.end(), [](const Snag& s) { return s.code == "HOME-90"; });
  ASSERT_TRUE(far != snags.end() && far->fix);
  EXPECT_TRUE(document.apply(far->fix->edit(document.rig(), document.catalogue())));
  EXPECT_EQ(document.rig().name, "Loud");
  document.undo();
  EXPECT_EQ(document.rig().name, "Silent");
}

TEST_F(Doors, ACheckFromOutsideIsNeededByTheDemo) {
  const Review r = review(demo("hedgerow"), shipped());
  ASSERT_TRUE(find_check(r.checks, std::string("senses.horn_heard")));
  Rig rig = demo("hedgerow");
  const auto to_do = [](const Rig& of) {
    const Review all = review(of, shipped());
    return std::count_if(all.checks.begin(), all.checks.end(),
                         [](const CheckStatus& c) { return c.state == ProofState::none && !c.family->guides; });
  };
  const auto before = to_do(rig);
  const auto proven = with_proof(rig, shipped(), {"senses.horn_heard", ""}, "2026-12-01T10:00:00Z", false);
  ASSERT_TRUE(proven);
  EXPECT_EQ(to_do(*proven), before - 1);
}

TEST_F(Doors, ATwelfthStationStandsInTheStripTheMenuAndTheFile) {
  const Json checked = Json::parse(cli({"check", file(), "--json"}).out);
  int found = 0;
  for (const Json& s : checked["snags"]) found += s["code"] == "HANGAR-01" && s["station"] == "hangar";
  EXPECT_EQ(found, 1);
  app::MainWindow window(shipped(), window_settings());
  window.show();
  ASSERT_TRUE(window.open_file(QString::fromStdString(file())));
  window.go(hangar);
  QLabel* question = nullptr;
  for (QLabel* l : window.findChildren<QLabel*>(u"station_question"_s))
    if (l->isVisible()) question = l;
  ASSERT_TRUE(question);
  EXPECT_EQ(question->text(), u"Where does it stay overnight?"_s);
  int keys = 0;
  for (const QAction* a : window.findChildren<QAction*>()) keys += a->text() == u"Hangar"_s;
  EXPECT_EQ(keys, 1);
  // The last bay of the strip is its own.
  auto* strip = window.findChild<QWidget*>(u"station_strip"_s);
  window.go(Station::airframe);
  QTest::mouseClick(strip, Qt::LeftButton, {}, QPoint(strip->width() - 60, strip->height() / 2));
  EXPECT_TRUE(question->isVisible());
}

TEST_F(Doors, EverythingIsSeenOnTheScreen) {
  app::MainWindow window(shipped(), window_settings());
  window.show();
  ASSERT_TRUE(window.open_file(QString::fromStdString(file())));
  window.go(Station::logbook);
  auto* words = window.findChild<QLabel*>(u"horn_words"_s);
  ASSERT_TRUE(words) << "the station has its page";
  EXPECT_TRUE(words->isVisible());
  EXPECT_EQ(words->text(), u"Silent"_s);
  Rig rig = window.document().rig();
  rig.name = "Louder";
  window.document().edit(rig, u"named"_s);
  EXPECT_EQ(words->text(), u"Louder"_s) << "it follows the document without a line of its own";
  window.document().undo();
  bool asked = false, snag = false;
  for (const app::NamedAction& r : window.named_actions()) asked = asked || r.text == u"Sound the horn"_s;
  EXPECT_TRUE(asked);
  for (const QLabel* l : window.findChildren<QLabel*>()) snag = snag || l->text() == u"It has no horn"_s;
  EXPECT_TRUE(snag);
  window.go_to(Station::proof, u"senses.horn_heard"_s);
  QApplication::processEvents();
  auto* title = window.findChild<QLabel*>(u"proof_title"_s);
  ASSERT_TRUE(title);
  EXPECT_EQ(title->text(), u"The horn is heard"_s);
  // A procedure for which no page has a place comes up in a window of its own, with the card that shows all of them.
  for (const app::NamedAction& r : window.named_actions())
    if (r.text == u"Sound the horn and listen"_s) r.act();
  auto* horn = window.findChild<QDialog*>(u"procedure_horn"_s);
  ASSERT_TRUE(horn && horn->isVisible());
  EXPECT_EQ(horn->findChild<QLabel*>(u"horn_todo"_s)->text(), u"Sound the horn."_s);
  horn->findChild<QPushButton*>(u"horn_sound"_s)->click();
  EXPECT_EQ(horn->findChild<QLabel*>(u"horn_todo"_s)->text(), u"Listen at ten paces."_s);
  horn->findChild<QPushButton*>(u"horn_was_heard"_s)->click();
  EXPECT_EQ(window.document().rig().name, "Loud");
  EXPECT_TRUE(find_check(window.document().review().checks, std::string("senses.horn_heard"))->stands());
  horn->close();
  window.document().undo();
  window.document().undo();
  // A check that no station records by itself is recorded from its card.
  auto* seen = window.findChild<QPushButton*>(u"record_card"_s);
  ASSERT_TRUE(seen && seen->isVisible());
  seen->click();
  EXPECT_TRUE(find_check(window.document().review().checks, std::string("senses.horn_heard"))->stands());
}

}  // namespace
}  // namespace rigging

int main(int argc, char** argv) {
  testing::InitGoogleTest(&argc, argv);
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  rigging::open_the_doors();
  return RUN_ALL_TESTS();
}
