#pragma once

#include <optional>

#include <QMainWindow>
#include <QTemporaryDir>

#include "ask/knowledge.h"
#include "bench/bench_panel.h"
#include "document/rig_document.h"
#include "shell/ask_box.h"
#include "shell/foot_line.h"
#include "shell/new_aircraft_page.h"
#include "shell/snag_panel.h"
#include "shell/station_strip.h"
#include "stations/station_page.h"

class QStackedWidget;

namespace rigging::app {

class Glossary;
class HelpWindow;

struct Settings {
  QString data_folder;
  QString state_folder;  ///< recovery copies, list of recent rigs
  QStringList demo_faults, demo_lead_faults;
  int demo_random = 2;
  unsigned demo_seed = 8;
};

class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  MainWindow(Catalogue catalogue, Settings settings);
  ~MainWindow() override;

  RigDocument& document() { return document_; }
  BenchLink& bench() { return bench_; }
  Station station() const { return station_; }

  bool open_file(const QString& path);
  /// The demo aircraft as unsaved work, the simulated bench running, faults hidden in it.
  void start_demo();
  /// The sheet on which an aircraft is begun; nothing is lost that is open.
  void begin();
  void start_bench(BenchLink::Troubles troubles = {});
  /// The bench with something real to find at the stations sticks and surfaces: a badly set transmitter and crooked
  /// linkages.
  void start_troubled_bench(unsigned seed, BenchLink::Troubles troubles);
  void go(Station station);
  /// Goes there and brings the subject into view.
  void go_to(Station station, const QString& subject);
  void show_bench_panel();
  StationPage& page(Station station) { return *pages_[static_cast<std::size_t>(station)]; }
  /// What can be asked for here and on every page.
  QList<NamedAction> named_actions();
  /// Knows what is open now.
  std::unique_ptr<AskBox> ask_box();

 protected:
  void closeEvent(QCloseEvent*) override;
  void resizeEvent(QResizeEvent*) override;

 private:
  void build_menus();
  void refresh();
  void take_new(const Edit& edit);
  void ask_open();
  void take(const Interpretation& answer);
  void keep_preferences();
  void fit_snags();
  /// The manual at a chapter; at the one of what is on the screen without one.
  void show_help(QString chapter = {});
  void show_sheets(const QString& title, const QList<Sheet>& sheets);
  void show_all_sheets();
  void offer_recovery();
  bool may_leave();
  bool save();
  bool save_as();
  std::optional<bool> settle_with_file();
  void remember(const QString& path);
  QStringList recent() const;
  void connect_controller();
  void write_board();
  void compare_with_board(bool always_show);
  bool open_part_of(const QString& path);
  bool offer_interrupted(const QString& path, const std::filesystem::path& left);
  void say_left_out(const QStringList& left_out);
  void complain(const QString& title, const Error& error);
  void walk_panes(int step);

  Settings settings_;
  RigDocument document_;
  BenchLink bench_;
  Station station_ = Station::airframe;
  StationStrip* strip_;
  QStackedWidget *desk_, *sheet_;  ///< stations or a beginning; one of the stations
  NewAircraftPage* new_aircraft_;
  HelpWindow* help_ = nullptr;
  Glossary* glossary_ = nullptr;
  std::vector<Passage> manual_;  ///< for the ask box, and what it knows
  Knowledge knowledge_;
  SnagPanel* snags_;
  BenchPanel* bench_panel_;
  FootLine* foot_;
  QWidget* recovery_bar_;
  QMenu* recent_menu_;
  QAction* imperial_;
  QAction *undo_, *redo_, *show_bench_;
  std::vector<StationPage*> pages_;  ///< by the number of the station
  QTemporaryDir bench_folder_;
  bool is_demo_ = false;
};

}  // namespace rigging::app
