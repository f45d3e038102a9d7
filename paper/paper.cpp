#include "paper.h"

#include <QBuffer>
#include <QFontDatabase>
#include <QGuiApplication>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgRenderer>

#include "base/json.h"

// Resources of a static library must be asked for by name, from outside any namespace.
static void load_font_resource() { Q_INIT_RESOURCE(fonts); }

namespace rigging {

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
      QSvgRenderer renderer(QByteArray::fromStdString(svgs[i]));
      if (!renderer.isValid()) return failure(file.string(), "page " + std::to_string(i + 1) + " is no drawing", "SVG");
      // The view box is in millimetres.
      const QSizeF mm = renderer.viewBoxF().size();
      pdf.setPageSize(QPageSize(mm, QPageSize::Millimeter, {}, QPageSize::ExactMatch));
      pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
      if (i == 0) {
        if (!painter.begin(&pdf)) return failure(file.string(), "can't be drawn", "a printable page");
      } else {
        pdf.newPage();
      }
      renderer.render(&painter, QRectF(QPointF(0, 0),
                                       mm * (pdf.resolution() / 25.4)));  // to scale: a page is rounded to whole points
    }
  }
  return write_file_atomically(file, bytes.toStdString());
}

}  // namespace rigging
