#include <QApplication>
#include <QCommandLineParser>
#include <QElapsedTimer>
#include <QScreen>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>
#include <cstdio>
#include <iostream>

#include "base/data_folder.h"
#include "base/units.h"
#include "look/literals.h"
#include "look/look.h"
#include "shell/main_window.h"
#include "shell/preferences.h"
#include "shell/screenshots.h"
#include "shell/told_to_end.h"

namespace {

/// A scale from the environment that is none would end the program, or make a window of nothing.
void keep_scale_in_range() {
  for (const char* name : {"QT_SCALE_FACTOR", "QT_FONT_DPI", "QT_SCREEN_SCALE_FACTORS"}) {
    if (!qEnvironmentVariableIsSet(name)) continue;
    const double most = QLatin1String(name) == QLatin1String("QT_FONT_DPI") ? 960 : 10, least = most / 40;
    bool good = true;
    for (const QByteArray& one : qgetenv(name).split(';')) {
      const double scale = one.mid(one.indexOf('=') + 1).toDouble(&good);
      if (!good || !(scale >= least && scale <= most)) {
        std::cerr << "rigging: " << name << " is \"" << qgetenv(name).toStdString()
                  << "\", which is left aside; expected " << least << " to " << most << '\n';
        qunsetenv(name);
        break;
      }
    }
  }
}

}  // namespace

int main(int argc, char** argv) {
  QElapsedTimer since_start;
  since_start.start();
  using namespace rigging;
  using namespace rigging::app;
  QCoreApplication::setApplicationName(u"rigging"_s);
  QCoreApplication::setApplicationVersion(QStringLiteral(RIGGING_VERSION));
  const auto option = [](const char* name, const char* words, const char* value = "", const QString& usual = {}) {
    return QCommandLineOption(QLatin1String(name), QLatin1String(words), QLatin1String(value), usual);
  };
  const QCommandLineOption demo = option("demo", "Open the demo aircraft with the simulated bench running"),
                           seed = option("seed", "Draw of the demo's hidden faults", "N", u"8"_s),
                           shots = option("screenshots", "Write a PNG of each view into a folder and leave", "FOLDER"),
                           data =
                               option("data", "Data folder", "FOLDER", QString::fromStdString(data_folder().string())),
                           units = option("units", "metric or imperial", "UNITS", u"metric"_s),
                           first_paint =
                               option("time-first-paint", "Print the time to the first painted window and leave");
  QCommandLineParser parser;
  parser.setApplicationDescription(u"Bench companion for flight controllers and stabilizers in fixed-wing models"_s);
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument(u"RIG"_s, u"Rig file to open"_s, u"[RIG]"_s);
  for (const auto& o : {demo, seed, shots, data, units, first_paint}) parser.addOption(o);
  {
    // Questions about the program itself, and what is said wrong, are answered without a display.
    const QCoreApplication plain(argc, argv);
    const auto wrong = [](const QString& what) {
      std::cerr << "rigging: " << what.toStdString() << '\n';
      return 2;
    };
    for (int i = 1; i < argc; ++i)
      if (QString::fromUtf8(argv[i]).toUtf8() != argv[i])
        return wrong(u"argument %1 is no UTF-8 (%2); expected a name that can be shown"_s.arg(i).arg(
            QString::fromLatin1(argv[i])));
    if (!parser.parse(plain.arguments()))
      return wrong(parser.errorText().chopped(parser.errorText().endsWith(QLatin1Char('.')) ? 1 : 0) +
                   u"; expected what --help lists"_s);
    if (parser.positionalArguments().size() > 1)
      return wrong(u"%1 files are named; expected one rig"_s.arg(parser.positionalArguments().size()));
    if (const QString system = parser.value(units); system != u"metric"_s && system != u"imperial"_s)
      return wrong(u"--units %1; expected metric or imperial"_s.arg(system));
    bool whole = false;
    parser.value(seed).toUInt(&whole);
    if (!whole) return wrong(u"--seed %1; expected a whole number"_s.arg(parser.value(seed)));
    parser.process(plain);
  }
  keep_scale_in_range();
  QApplication application(argc, argv);
  QApplication::setStyle(u"Fusion"_s);
  if (parser.value(units) == QLatin1String("imperial")) set_unit_system(UnitSystem::imperial);
  const QString state = QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
  if (!parser.isSet(shots)) {
    // What was chosen last, but for what is said now.
    Preferences kept = read_preferences(state);
    if (kept.window.isEmpty())
      kept.text_scale = text_scale_for(QGuiApplication::primaryScreen()->availableGeometry().size());
    Style::instance().set_theme(kept.theme);
    Style::instance().set_text_scale(kept.text_scale);
    if (!parser.isSet(units)) set_unit_system(kept.units);
  }
  Style::instance();

  auto catalogue = load_catalogue((parser.value(data) + u"/catalogue"_s).toStdString());
  if (!catalogue) {
    std::cerr << "rigging: " << catalogue.error().text() << '\n';
    return 2;
  }
  Settings settings;
  settings.data_folder = parser.value(data);
  settings.state_folder = state;
  settings.demo_seed = parser.value(seed).toUInt();
  std::optional<QTemporaryDir> shots_state;
  if (parser.isSet(shots)) {
    settings.state_folder = shots_state.emplace().path();
    settings.demo_faults = {u"leads_swapped:out_3,out_4"_s, u"gyro_reversed:roll"_s};
  }
  MainWindow window(std::move(*catalogue), settings);
  ToldToEnd told_to_end;
  QObject::connect(&told_to_end, &ToldToEnd::told, &application, [&window](int signal) {
    window.document().leave();
    QCoreApplication::exit(128 + signal);
  });
  window.show();
  if (parser.isSet(first_paint)) {
    window.repaint();
    QTimer::singleShot(0, &application, [&] {
      std::printf("first paint after %lld ms\n", since_start.elapsed());
      QApplication::quit();
    });
    return QApplication::exec();
  }
  if (parser.isSet(shots)) return take_screenshots(window, parser.value(shots));
  if (parser.isSet(demo)) {
    window.start_demo();
  } else if (!parser.positionalArguments().isEmpty()) {
    window.open_file(parser.positionalArguments().constFirst());
  } else {
    window.begin();
  }
  return QApplication::exec();
}
