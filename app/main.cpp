#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QElapsedTimer>
#include <QStandardPaths>
#include <QTimer>
#include <cstdio>
#include <iostream>

#include "look/look.h"
#include "shell/main_window.h"
#include "shell/screenshots.h"

int main(int argc, char** argv) {
  QElapsedTimer since_start;
  since_start.start();
  using namespace rigging;
  using namespace rigging::app;
  QApplication application(argc, argv);
  QApplication::setApplicationName(QStringLiteral("rigging"));
  QApplication::setApplicationVersion(QStringLiteral("0.1.0"));
  QApplication::setStyle(QStringLiteral("Fusion"));
  Look::instance();

  QCommandLineParser parser;
  parser.setApplicationDescription(
      QStringLiteral("Bench companion for flight controllers and stabilizers in fixed-wing models"));
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument(QStringLiteral("RIG"), QStringLiteral("Rig file to open"), QStringLiteral("[RIG]"));
  const QCommandLineOption demo(QStringLiteral("demo"),
                                QStringLiteral("Open the demo aircraft with the simulated bench running"));
  const QCommandLineOption seed(QStringLiteral("seed"), QStringLiteral("Draw of the demo's hidden faults"),
                                QStringLiteral("N"), QStringLiteral("8"));
  const QCommandLineOption shots(QStringLiteral("screenshots"),
                                 QStringLiteral("Write a PNG of each view into a folder and leave"),
                                 QStringLiteral("FOLDER"));
  const QCommandLineOption data(QStringLiteral("data"), QStringLiteral("Data folder"), QStringLiteral("FOLDER"),
                                QStringLiteral(RIGGING_DATA_DIR));
  const QCommandLineOption first_paint(QStringLiteral("time-first-paint"),
                                       QStringLiteral("Print the time to the first painted window and leave"));
  for (const auto& option : {demo, seed, shots, data, first_paint}) parser.addOption(option);
  parser.process(application);

  auto catalogue = load_catalogue((parser.value(data) + QStringLiteral("/catalogue")).toStdString());
  if (!catalogue) {
    std::cerr << "rigging: " << catalogue.error().text() << '\n';
    return 2;
  }
  Settings settings;
  settings.data_folder = parser.value(data);
  settings.state_folder = QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
  bool number = false;
  settings.demo_seed = parser.value(seed).toUInt(&number);
  if (!number) {
    std::cerr << "rigging: --seed " << parser.value(seed).toStdString() << "; expected a whole number\n";
    return 2;
  }
  if (parser.isSet(shots)) {
    settings.state_folder = QDir::tempPath() + QStringLiteral("/rigging-screenshots");
    settings.demo_faults = {QStringLiteral("leads_swapped:out_3,out_4"), QStringLiteral("gyro_reversed:roll")};
  }
  MainWindow window(std::move(*catalogue), settings);
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
  }
  return QApplication::exec();
}
