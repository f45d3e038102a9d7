#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QPrinter>
#include <QRegularExpression>
#include <cmath>
#include <csignal>
#include <fstream>

#include "bench_builder.h"
#include "direction/from_rig.h"
#include "look/literals.h"
#include "places.h"
#include "rig/rig_file.h"
#include "shell/sheet_dialog.h"

namespace rigging::app {
namespace {

/// Points per millimetre, across and along, at which a PDF draws: the product of the scales in the content of its first
/// page.
std::pair<double, double> scale_of(const QString& path) {
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly)) return {};
  const QByteArray pdf = file.readAll();
  for (qsizetype at = pdf.indexOf("stream\n"); at >= 0; at = pdf.indexOf("stream\n", at + 7)) {
    if (at >= 3 && pdf.mid(at - 3, 3) == "end") continue;
    // Qt's reader wants the length before the deflated bytes.
    const QString content = QString::fromLatin1(
        qUncompress(QByteArray::fromHex("00100000") + pdf.mid(at + 7, pdf.indexOf("endstream", at) - at - 7)));
    static const QRegularExpression scale(u"([0-9.]+) 0 0 (-?[0-9.]+) 0 [0-9.]+ cm"_s);
    auto found = scale.globalMatch(content);
    double x = 1, y = 1;
    int count = 0;
    while (found.hasNext() && count < 2) {
      const auto m = found.next();
      x *= m.captured(1).toDouble();
      y *= std::abs(m.captured(2).toDouble());
      ++count;
    }
    if (count == 2) return {x, y};
  }
  return {};
}

TEST(HandCards, BecomeAPdf) {
  Builder b;
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/heath.rig.json"))));
  const ControllerClass& c = *b.window.document().controller();
  const auto looks = direction::case_from_rig(b.window.document().rig(), c);
  direction::Fault f;
  f.kind = direction::FaultKind::gyro_reversed;
  f.axis = Axis::yaw;
  SheetDialog dialog(u"Hand cards"_s,
                     hand_card_sheets(b.window.document(), {hand_card(b.window.document().rig(), c, f, looks)}),
                     nullptr);
  const QString path = b.folder.filePath(u"cards.pdf"_s);
  ASSERT_TRUE(dialog.write_pdf(path));
  QFile pdf(path);
  ASSERT_TRUE(pdf.open(QIODevice::ReadOnly));
  EXPECT_TRUE(pdf.readAll().startsWith("%PDF"));
  EXPECT_FALSE(dialog.write_pdf(u"/nonexistent/cards.pdf"_s));
}

// A millimetre is 72 / 25.4 points: by definition of both. Gauges are of no use otherwise.
TEST(Sheets, AreDrawnTrueToScaleWhateverTheMargins) {
  Builder b;
  SheetDialog dialog(u"Gauges"_s, gauge_sheets(b.window.document()), nullptr);
  const double exact = 72 / 25.4;
  const auto check = [&](const QString& path) {
    const auto [across, along] = scale_of(path);
    EXPECT_NEAR(across, exact, 1e-4 * exact) << path.toStdString();
    EXPECT_NEAR(along, exact, 1e-4 * exact) << path.toStdString();
  };
  const QString kept = b.folder.filePath(u"kept.pdf"_s);
  ASSERT_TRUE(dialog.write_pdf(kept));
  check(kept);
  for (const double margin : {0.0, 12.0}) {
    const QString printed = b.folder.filePath(u"printed-%1.pdf"_s.arg(margin));
    QPrinter printer(QPrinter::HighResolution);
    printer.setOutputFormat(QPrinter::PdfFormat);
    printer.setOutputFileName(printed);
    printer.setPageMargins(QMarginsF(margin, margin, margin, margin), QPageLayout::Millimeter);
    dialog.print(printer);
    check(printed);
  }
}

}  // namespace
}  // namespace rigging::app
