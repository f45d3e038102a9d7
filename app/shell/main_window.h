#pragma once

#include <QMainWindow>
#include <QTemporaryDir>

#include "bench/bench_panel.h"
#include "document/rig_document.h"
#include "sheets/hand_card.h"
#include "shell/ask_box.h"
#include "shell/foot_line.h"
#include "shell/snag_panel.h"
#include "shell/station_strip.h"
#include "stations/station_page.h"

class QStackedWidget;

namespace rigging::app {

class ProofPage;

struct Settings {
  QString data_folder;
  QString state_folder;  ///< recovery copies, list of recent rigs
  QStringList demo_faults, demo_lead_faults;
  int demo_random = 2;
  unsigned demo_seed = 8;
};

struct Sheet;

/// Hand cards drawn for this rig.
QList<Sheet> hand_card_sheets(const RigDocument& document, const std::vector<HandCard>& cards);
/// Wiring drawing and plug list of this rig.
QList<Sheet> wiring_sheets(const RigDocument& document);
/// Wedge, balance marks and throw gauges of this rig, true to scale.
QList<Sheet> gauge_sheets(const RigDocument& document);
/// What to set in the transmitter and on the model.
QList<Sheet> setting_sheets(const RigDocument& document);

class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  MainWindow(Catalogue catalogue, Settings settings);

  RigDocument& document() { return document_; }
  BenchLink& bench() { return bench_; }
  Station station() const { return station_; }

  bool open_file(const QString& path);
  /// The demo aircraft as unsaved work, the simulated bench running, faults hidden in it.
  void start_demo();
  void start_bench(BenchLink::Troubles troubles = {});
  /// The bench with something real to find at the stations sticks and surfaces: a badly set transmitter and crooked
  /// linkages.
  void start_troubled_bench(unsigned seed, BenchLink::Troubles troubles);
  void go(Station station);
  QList<Deed> deeds();

 protected:
  void closeEvent(QCloseEvent*) override;
  void resizeEvent(QResizeEvent*) override;

 private:
  void build_menus();
  void refresh();
  void offer_recovery();
  bool may_leave();
  bool save();
  bool save_as();
  void remember(const QString& path);
  QStringList recent() const;
  void compare_with_board(bool always_show);
  void show_hand_cards(const std::vector<HandCard>& cards);
  void show_wiring_sheets();
  void show_gauges();
  void show_settings();
  void complain(const QString& title, const Error& error);
  void walk_panes(int step);

  Settings settings_;
  RigDocument document_;
  BenchLink bench_;
  Station station_ = Station::airframe;
  StationStrip* strip_;
  QStackedWidget* sheet_;
  SnagPanel* snags_;
  BenchPanel* bench_panel_;
  FootLine* foot_;
  QWidget* recovery_bar_;
  QMenu* recent_menu_;
  QAction *undo_, *redo_, *show_bench_;
  std::array<StationPage*, 11> pages_{};
  ProofPage* proof_ = nullptr;
  QTemporaryDir bench_folder_;
  bool is_demo_ = false;
};

}  // namespace rigging::app
