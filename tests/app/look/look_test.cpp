#include <gtest/gtest.h>
#include <QAbstractItemView>
#include <QTest>
#include <memory>

#include <sys/wait.h>
#include <unistd.h>
#include <cmath>
#include <csignal>
#include <fstream>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/number_box.h"
#include "look/pieces.h"
#include "look/units.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

/// WCAG 2.1, from the relative luminances; 4.5 : 1 is wanted for text.
double contrast(QColor a, QColor b) {
  const auto luminance = [](QColor c) {
    const auto part = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
  };
  const double x = luminance(a), y = luminance(b);
  return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

TEST(LookNumbers, ACommaIsADecimalPoint) {
  for (const char* typed : {"1,5", "1.5"}) {
    const std::unique_ptr<QDoubleSpinBox> box(number_box(u"n"_s, u"n"_s));
    box->setRange(0, 10000);  // above 1000 the toolkit would take the comma for a mark between thousands
    box->selectAll();
    QTest::keyClicks(box.get(), QLatin1String(typed));
    QTest::keyClick(box.get(), Qt::Key_Return);
    EXPECT_EQ(box->value(), 1.5) << typed;
    box->setValue(2345.5);
    EXPECT_EQ(box->text(), u"2345.50"_s);
  }
}

TEST(Units, ConvertAtTheScreenOnly) {
  Units& u = Units::instance();
  set_unit_system(UnitSystem::metric);
  EXPECT_EQ(u.figure({"x", 0.2311, "m", {}, {}, "", ""}), u"231 mm"_s);
  EXPECT_EQ(u.figure({"x", 8.59, "m/s", 7.9, 9.5, "", ""}), u"8.6 (7.9–9.5) m/s"_s);
  set_unit_system(UnitSystem::imperial);
  // International yard and pound agreement of 1959: 1 in = 25.4 mm, 1 lb = 0.45359237 kg.
  EXPECT_DOUBLE_EQ(u.length_out(0.0254), 1);
  EXPECT_NEAR(u.mass_out(0.45359237), 16, 1e-9);
  EXPECT_DOUBLE_EQ(u.length_in(u.length_out(1.234)), 1.234);
  EXPECT_EQ(u.figure({"x", 0.3048, "m/s", {}, {}, "", ""}), u"1 ft/s"_s);
  EXPECT_EQ(u.figure({"x", 4.882427636383051, "kg/m²", {}, {}, "", ""}), u"1 lb/ft²"_s);
  EXPECT_EQ(u.figure({"x", 7.8, "", {}, {}, "", ""}), u"7.8"_s);
  set_unit_system(UnitSystem::metric);
}

TEST(Style, TheChosenEntryOfADropDownIsReadable) {
  Style::instance().dress();
  for (const Theme theme : {Theme::paper, Theme::field, Theme::dark}) {
    Style::instance().set_theme(theme);
    QComboBox box;
    box.addItems({u"first"_s, u"MMMM"_s, u"third"_s});
    box.setCurrentIndex(1);
    box.show();
    box.showPopup();
    QApplication::processEvents();
    const QImage seen = box.view()->viewport()->grab().toImage();
    const QRect row = box.view()->visualRect(box.model()->index(1, 0)).intersected(seen.rect());
    ASSERT_FALSE(row.isEmpty());
    const QColor ground = seen.pixelColor(row.right() - 2, row.center().y());
    double most = 1;
    for (int x = row.left(); x <= row.right(); ++x)
      for (int y = row.top(); y <= row.bottom(); ++y) most = std::max(most, contrast(ground, seen.pixelColor(x, y)));
    EXPECT_GE(most, 4.5) << static_cast<int>(theme) << " " << ground.name().toStdString();
    EXPECT_LT(contrast(ground, inks().teal), 1.1);
    box.hidePopup();
  }
  Style::instance().set_theme(Theme::paper);
}

TEST(Style, ThemesKeepContrast) {
  for (const Theme theme : {Theme::paper, Theme::field, Theme::dark}) {
    Style::instance().set_theme(theme);
    const Inks& i = inks();
    for (const QColor& ink : {i.ink, i.soft, i.teal, i.rust, i.ochre, i.slate, i.moss})
      for (const QColor& ground : {i.paper, i.sheet})
        EXPECT_GE(contrast(ink, ground), 4.5) << ink.name().toStdString() << " on " << ground.name().toStdString();
    EXPECT_GE(contrast(i.sheet, i.teal), 4.5);
    EXPECT_GE(contrast(i.soft, i.wash), 4.5);
  }
  Style::instance().set_theme(Theme::paper);
}

}  // namespace
}  // namespace rigging::app
