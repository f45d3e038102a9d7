#include <QAbstractScrollArea>
#include <QListWidget>

#include "begin/begin.h"
#include "bench_builder.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/wrapped_check.h"
#include "places.h"

namespace rigging::app {
namespace {

bool wrap_ok(const QLabel& l) {
  const int need = l.heightForWidth(l.width());
  return need <= l.height() + 2;
}

/// What a person would see cut: words in a label, a button or a drop-down that has less room than they take, or that
/// hangs out of its parent.
QStringList cut_words(const QWidget& window) {
  QStringList cut;
  for (const QWidget* w : window.findChildren<QWidget*>()) {
    if (!w->isVisible() || w->visibleRegion().isEmpty()) continue;
    QString text;
    bool fits = true;
    if (const auto* label = qobject_cast<const QLabel*>(w)) {
      text = label->text();
      if (text.isEmpty()) continue;
      if (label->wordWrap()) {
        fits = wrap_ok(*label);
      } else if (label->textFormat() == Qt::PlainText) {
        const QSize need = label->fontMetrics().size(label->buddy() ? Qt::TextShowMnemonic : 0, text);
        fits = need.width() <= label->contentsRect().width() + 2 && need.height() <= label->contentsRect().height() + 4;
      }
    } else if (const auto* wrapped = qobject_cast<const WrappedCheck*>(w)) {
      text = wrapped->text();
      fits = wrapped->heightForWidth(wrapped->width()) <= wrapped->height() + 2;
    } else if (const auto* button = qobject_cast<const QAbstractButton*>(w)) {
      text = button->text();
      if (text.isEmpty() || button->inherits("QToolButton")) continue;
      fits = button->fontMetrics().size(Qt::TextShowMnemonic, text).width() <= button->width() - 4 &&
             button->fontMetrics().height() <= button->height() + 2;
    } else if (const auto* box = qobject_cast<const QComboBox*>(w)) {
      text = box->currentText();
      // Choices may be longer than the box where they can be read by resting on it.
      fits = box->fontMetrics().horizontalAdvance(text) <= box->width() - 22 || box->toolTip() == text;
    } else {
      continue;
    }
    // Hanging out of its place to the side: upright pages scroll.
    if (w->visibleRegion().boundingRect().width() < w->width() - 2) fits = false;
    if (!fits) cut << u"%1 “%2” has %3×%4"_s.arg(w->objectName(), text.left(70)).arg(w->width()).arg(w->height());
  }
  return cut;
}

/// Every name as long as a builder who likes words would make it.
Rig with_long_names(Rig rig) {
  rig.name = "The long-winged surveyor of the upper meadow, second of its name";
  int n = 0;
  for (Part& p : rig.parts)
    p.label = "Carefully chosen " + label_of(p.kind) + " number " + std::to_string(++n) + " from the drawer";
  return rig;
}

struct Seen {
  QSize size;
  double scale = 1;
  Theme theme = Theme::paper;
  bool from_start = false;  ///< the window is made so; else it is changed while it stands
};

void PrintTo(const Seen& s, std::ostream* out) {
  *out << s.size.width() << " x " << s.size.height() << ", text " << s.scale << ", theme " << static_cast<int>(s.theme)
       << (s.from_start ? ", from the start" : "");
}

/// As it stands after the first page: guesses, nothing weighed, nothing read.
Rig just_begun(const Catalogue& catalogue) {
  NewAircraft b;
  b.name = "Merehen", b.kind = AirframeKind::v_tail, b.span_m = 2.4, b.mass_kg = 3.8, b.controller = "large_controller";
  b.others = parts_in_words(catalogue, "satellite with compass, airspeed, power module");
  return begin_rig(catalogue, b)->rig;
}

class EveryScreen : public testing::TestWithParam<Seen> {
 protected:
  void TearDown() override {
    Style::instance().set_text_scale(1);
    Style::instance().set_theme(Theme::paper);
  }
};

TEST_P(EveryScreen, ShowsItsWordsWhole) {
  const auto [size, scale, theme, from_start] = GetParam();
  const auto look = [scale = scale, theme = theme] {
    Style::instance().set_text_scale(scale);
    Style::instance().set_theme(theme);
  };
  if (from_start) look();
  Builder b;
  b.window.begin();  // which stands while the look changes
  QApplication::processEvents();
  look();
  for (const char* name : {"hedgerow", "heath", "bramble", "long", "begun"}) {
    const bool long_names = std::string(name) == "long";
    QString file =
        QString::fromStdString(in_source("/data/demo/%1.rig.json")).arg(QLatin1String(long_names ? "hedgerow" : name));
    if (long_names || std::string(name) == "begun") {
      const Rig rig =
          long_names ? with_long_names(*load_rig(file.toStdString())) : just_begun(b.window.document().catalogue());
      file = b.folder.filePath(QLatin1String(name) + u".rig.json"_s);
      ASSERT_TRUE(save_rig(rig, file.toStdString()));
    }
    ASSERT_TRUE(b.window.open_file(file));
    b.window.resize(size);
    QStringList cut;
    for (const Station station : all_stations()) {
      b.window.go(station);
      // What is reckoned elsewhere comes when it comes, and words take their room after they came.
      for (int i = 0; i < 4; ++i) QApplication::processEvents();
      b.wait([&] { return (cut = cut_words(b.window)).isEmpty(); }, 3000);
      EXPECT_EQ(b.window.size(), size) << name_of(station) << " asks for more room";
      for (const QString& words : cut) ADD_FAILURE() << name << " " << name_of(station) << ": " << words.toStdString();
      if (const QByteArray folder = qgetenv("RIGGING_PICTURES"); !folder.isEmpty())
        b.window.grab().save(
            u"%1/%2-%3-%4-%5-%6.png"_s
                .arg(QString::fromUtf8(folder), QLatin1String(name), QString::fromLatin1(name_of(station).data()))
                .arg(size.width())
                .arg(scale)
                .arg(static_cast<int>(theme)));
    }
    b.window.begin();
    for (int i = 0; i < 4; ++i) QApplication::processEvents();
    b.wait([&] { return (cut = cut_words(b.window)).isEmpty(); }, 3000);
    for (const QString& words : cut) ADD_FAILURE() << name << " beginning: " << words.toStdString();
    const auto* kinds = b.find<QListWidget>(u"begin_kinds"_s);
    const QSize room = kinds->gridSize() - QSize(10, kinds->iconSize().height());
    for (int i = 0; i < kinds->count(); ++i) {
      const QRect words = kinds->fontMetrics().boundingRect(
          QRect(0, 0, room.width(), 1000), Qt::TextWordWrap | Qt::AlignHCenter, kinds->item(i)->text());
      EXPECT_LE(words.height(), room.height()) << kinds->item(i)->text().toStdString();
      EXPECT_LE(words.width(), room.width()) << kinds->item(i)->text().toStdString();
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Sizes, EveryScreen,
                         testing::Values(Seen{{1280, 800}, 1.0, Theme::paper}, Seen{{1280, 800}, 1.5, Theme::paper},
                                         Seen{{1024, 700}, 1.0, Theme::dark}, Seen{{1920, 1080}, 1.5, Theme::paper},
                                         Seen{{1280, 800}, 1.0, Theme::field},
                                         Seen{{1280, 800}, 1.3, Theme::paper, true}));

}  // namespace
}  // namespace rigging::app
