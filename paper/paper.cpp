#include "paper.h"

#include <QBuffer>
#include <QFontDatabase>
#include <QFontMetricsF>
#include <QGuiApplication>
#include <QPainter>
#include <QPdfWriter>
#include <QRegularExpression>
#include <QSvgRenderer>
#include <QXmlStreamReader>
#include <cmath>

#include "base/file.h"

// Resources of a static library must be asked for by name, from outside any namespace.
static void load_font_resource() { Q_INIT_RESOURCE(fonts); }

namespace rigging {
namespace {

/// Draws the words of a sheet, which the SVG module would turn into outlines: megabytes that nobody can search.
void draw_words(QPainter& painter, const QByteArray& svg, double dots_per_mm) {
  QXmlStreamReader xml(svg);
  std::vector<QTransform> groups{QTransform()};
  while (!xml.atEnd()) {
    const auto token = xml.readNext();
    if (token == QXmlStreamReader::EndElement && xml.name() == QLatin1String("g")) groups.pop_back();
    if (token != QXmlStreamReader::StartElement) continue;
    const QXmlStreamAttributes with = xml.attributes();
    if (xml.name() == QLatin1String("g")) {
      QTransform t = groups.back();
      static const QRegularExpression move(QStringLiteral("translate\\(([-.\\d]+) ([-.\\d]+)\\)")),
          size(QStringLiteral("scale\\(([-.\\d]+)\\)"));
      const QString how = with.value(QLatin1String("transform")).toString();
      if (const auto m = move.match(how); m.hasMatch()) t.translate(m.captured(1).toDouble(), m.captured(2).toDouble());
      if (const auto m = size.match(how); m.hasMatch()) t.scale(m.captured(1).toDouble(), m.captured(1).toDouble());
      groups.push_back(t);
    }
    if (xml.name() != QLatin1String("text")) continue;
    const double mm = with.value(QLatin1String("font-size")).toDouble() * groups.back().m11();
    const QPointF at = groups.back().map(
        QPointF(with.value(QLatin1String("x")).toDouble(), with.value(QLatin1String("y")).toDouble()));
    QFont font(QStringLiteral("Rigging Text"));
    font.setPixelSize(std::max(1, static_cast<int>(std::lround(mm * dots_per_mm))));
    font.setBold(with.value(QLatin1String("font-weight")) == QLatin1String("bold"));
    font.setItalic(with.value(QLatin1String("font-style")) == QLatin1String("italic"));
    const auto anchor = with.value(QLatin1String("text-anchor"));
    const QColor ink(with.value(QLatin1String("fill")).toString());
    const QString words = xml.readElementText();
    painter.setFont(font);
    painter.setPen(ink.isValid() ? ink : QColor(Qt::black));
    const double wide = QFontMetricsF(font, painter.device()).horizontalAdvance(words);
    const double share = anchor == QLatin1String("middle") ? 0.5 : anchor == QLatin1String("end") ? 1 : 0;
    painter.drawText(at * dots_per_mm - QPointF(wide * share, 0), words);
  }
}

}  // namespace

QSizeF sheet_size(const QByteArray& svg) { return QSvgRenderer(svg).viewBoxF().size(); }

bool draw_sheet(QPainter& painter, const QByteArray& svg, double dots_per_mm) {
  static const QRegularExpression words(QStringLiteral("<text [^>]*>[^<]*</text>"));
  QSvgRenderer lines(QString::fromUtf8(svg).remove(words).toUtf8());
  if (!lines.isValid()) return false;
  lines.render(&painter, QRectF(QPointF(0, 0), lines.viewBoxF().size() * dots_per_mm));
  draw_words(painter, svg, dots_per_mm);
  return true;
}

void add_shipped_fonts() {
  static const bool once = [] {
    load_font_resource();
    for (const char* face : {"RiggingFigures-Regular", "RiggingFigures-Bold", "RiggingText-Regular", "RiggingText-Bold",
                             "RiggingText-Italic"})
      QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/%1.otf").arg(QLatin1String(face)));
    return true;
  }();
  (void)once;
}

Result<void> write_pdf(const std::string& svg, const std::filesystem::path& file) {
  return write_pdf(std::vector{svg}, file);
}

Result<void> write_pdf(const std::vector<std::string>& svgs, const std::filesystem::path& file) {
  // Fonts need a running toolkit; a command line has none and shows nothing. It lives until the process ends: taken
  // down among the static objects it would find others gone before it.
  if (!QGuiApplication::instance()) {
    static int argc = 1;
    static char name[] = "rigging";
    static char* argv[] = {name, nullptr};
    qputenv("QT_QPA_PLATFORM", "offscreen");
    const auto quiet = qInstallMessageHandler([](QtMsgType, const QMessageLogContext&, const QString&) {});
    static QGuiApplication* const own = new QGuiApplication(argc, argv);
    (void)own;
    qInstallMessageHandler(quiet);
  }
  add_shipped_fonts();
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter pdf(&buffer);
    pdf.setResolution(600);
    pdf.setCreator(QStringLiteral("Rigging"));
    QPainter painter;
    for (std::size_t i = 0; i < svgs.size(); ++i) {
      const QByteArray svg = QByteArray::fromStdString(svgs[i]);
      const QSizeF mm = sheet_size(svg);
      if (mm.isEmpty()) return failure(file.string(), "page " + std::to_string(i + 1) + " is no drawing", "SVG");
      pdf.setPageSize(QPageSize(mm, QPageSize::Millimeter, {}, QPageSize::ExactMatch));
      pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
      if (i == 0) {
        if (!painter.begin(&pdf)) return failure(file.string(), "can't be drawn", "a printable page");
      } else {
        pdf.newPage();
      }
      draw_sheet(painter, svg, pdf.resolution() / 25.4);  // to scale: a page is rounded to whole points
    }
  }
  return write_file_atomically(file, bytes.toStdString());
}

}  // namespace rigging
