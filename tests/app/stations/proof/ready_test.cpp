#include <QPushButton>

#include "bench_builder.h"
#include "stations/procedure_card.h"
#include "sticks/stick_checks.h"
#include "surfaces/surface_checks.h"
#include "wiring/lead_checks.h"

namespace rigging::app {
namespace {

/// A builder who does what the window offers, and nothing else: the filled button of the page, the key for what was
/// seen. Counts every press.
class Follower {
 public:
  explicit Follower(Builder& b) : b_(b) {}

  int presses() const { return presses_; }
  void count() { ++presses_; }
  const QStringList& log() const { return log_; }

  bool press(const QString& name) {
    if (!b_.click(name)) return false;
    ++presses_;
    log_ << name;
    return true;
  }

  /// What the card says, for whoever reads why it stopped.
  std::string on_card() const {
    const ProcedureCard* card = shown_card();
    if (!card) return "no card";
    const Card& c = card->runner().card();
    std::string text = c.subject + " | " + c.title + " | " + c.todo + " | " + c.says + " |";
    for (const Action& a : c.actions) text += " " + a.id + (a.main ? "*" : "") + (a.enabled ? "" : " (off)");
    return text;
  }

  /// One step; false when nothing is offered.
  bool step() {
    ProcedureCard* card = shown_card();
    if (card) {
      const Card& c = card->runner().card();
      // Something under way has its time; looks are taken once it is over.
      b_.wait([&] { return !card->runner().card().busy || main_button(); }, 90000);
      if (!c.looks.empty() && watched_ == c.look + 1) return note(c);
      if (!c.looks.empty() && b_.wait([&] { return b_.can_click(u"do_it"_s); }, 5000)) return watch();
    }
    QPushButton* next = main_button();
    if (!next) {
      b_.wait([&] { return main_button() != nullptr; }, 2500);
      next = main_button();
    }
    if (!next) return false;
    const QString name = next->objectName();
    if (name == QLatin1String("do_it")) return watch();
    if (!press(name)) return false;
    b_.let_pass(700, [] { return false; });  // what it did is seen before the next is pressed
    return true;
  }

 private:
  ProcedureCard* shown_card() const {
    for (auto* c : b_.window.findChildren<ProcedureCard*>())
      if (c->isVisible()) return c;
    return nullptr;
  }
  QPushButton* main_button() const {
    for (auto* page : b_.window.findChildren<StationPage*>())
      if (page->isVisible())
        for (auto* button : page->findChildren<QPushButton*>())
          if (button->isVisible() && button->isEnabled() && button->property("main").toBool()) return button;
    return nullptr;
  }
  bool watch() {
    furthest_.clear();
    int looked = 0;
    const auto seen = QObject::connect(&b_.window.bench(), &BenchLink::seen, &b_.window, [&] {
      ++looked;
      for (const auto& [s, d] : b_.window.bench().sight().deflections)
        if (std::abs(d) > std::abs(furthest_[s])) furthest_[s] = d;
    });
    if (!press(u"do_it"_s)) return false;
    if (const ProcedureCard* card = shown_card()) watched_ = card->runner().card().look + 1;
    b_.wait([&] { return looked >= 45 && b_.can_click(u"do_it"_s); }, 20000);
    QObject::disconnect(seen);
    return true;
  }
  bool note(const Card& c) {
    watched_ = 0;
    std::map<std::string, int> saw;
    for (const auto& [s, d] : furthest_) saw[s.name()] = std::abs(d) < 3 ? 0 : d > 0 ? 1 : -1;
    bool as_shown = true;
    for (const auto& [s, way] : c.picture.arrows) as_shown = as_shown && saw[s.name()] == way;
    if (as_shown && press(u"as_shown"_s)) return true;
    for (const LookRow& row : c.looks) press(u"saw_%1_%2"_s.arg(QString::fromStdString(row.id)).arg(saw[row.id]));
    return press(u"note"_s);
  }

  Builder& b_;
  int presses_ = 0, watched_ = 0;
  std::map<Surface, double> furthest_;
  QStringList log_;
};

// Directions with two hidden faults, leads, sticks, the loss of signal, and every surface centred and measured. What is
// left then are corrections that went stale by the centring, and the sensors.
TEST(Ready, TheDemoIsCarriedThroughItsBenchByWhatIsOffered) {
  Builder b({}, 2, 6);
  Follower f(b);
  b.window.start_demo();
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(f.press(u"supply_battery"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().controller_answers(); }));
  b.window.go(Station::proof);
  const auto all_stand = [&] {
    const auto& all = b.window.document().review().checks;
    return std::all_of(all.begin(), all.end(), [](const CheckStatus& c) { return c.family->guides || c.stands(); });
  };
  constexpr int most_presses = 150;
  while (f.presses() < most_presses && !all_stand())
    if (!f.step()) {
      ASSERT_NE(b.window.station(), Station::proof)
          << "nothing is offered: " << f.on_card() << "; " << f.log().join(u" "_s).toStdString();
      b.window.go(Station::proof);
      f.count();
    }
  EXPECT_LT(f.presses(), most_presses) << f.log().join(u" "_s).toStdString();
  for (const CheckStatus& c : b.window.document().review().checks)
    EXPECT_TRUE(c.family->guides || c.stands()) << c.id.text() << ": " << c.title;
}

}  // namespace
}  // namespace rigging::app
