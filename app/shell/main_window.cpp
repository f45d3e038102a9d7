#include "shell/main_window.h"

#include <QActionGroup>
#include <QApplication>
#include <QCloseEvent>
#include <QDateTime>
#include <QFileInfo>
#include <QInputDialog>
#include <QMenuBar>
#include <QSerialPortInfo>
#include <QShortcut>
#include <QSplitter>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "airframe/kinds.h"
#include "base/clean_text.h"
#include "base/json.h"
#include "bench/differences_dialog.h"
#include "document/folders.h"
#include "drawing/rig_sheets.h"
#include "look/literals.h"
#include "look/page_scroll.h"
#include "look/pieces.h"
#include "look/undo_beyond.h"
#include "look/units.h"
#include "review/stations.h"
#include "rig/rig_file.h"
#include "shell/glossary.h"
#include "shell/help_window.h"
#include "shell/preferences.h"
#include "shell/sheet_dialog.h"
#include "stations/entries.h"

namespace rigging::app {

namespace {

constexpr double text_step = 0.1;

/// Asks only for the room that the sheet on top needs, not for that of the largest, and not for what wrapped words
/// would like: they scroll or give way.
class SheetStack : public QStackedWidget {
 public:
  bool hasHeightForWidth() const override { return false; }
  QSize minimumSizeHint() const override {
    return currentWidget() ? currentWidget()->minimumSizeHint() : QStackedWidget::minimumSizeHint();
  }
};

}  // namespace

MainWindow::MainWindow(Catalogue catalogue, Settings settings)
    : settings_(std::move(settings)), document_(std::move(catalogue), settings_.state_folder + u"/recovery"_s) {
  setObjectName(u"main_window"_s);
  if (const QStringList before = recent(); !before.isEmpty()) remember_folder(u"rig"_s, before.front());
  // As much larger as its text, where the screen has that.
  resize((QSizeF(1280, 800) * Style::instance().text_scale())
             .toSize()
             .boundedTo(screen()->availableSize())
             .expandedTo({1280, 800}));
  setMinimumSize(1024, 700);
  // Where it stood; on another screen Qt brings it into view.
  if (const auto kept = read_preferences(settings_.state_folder); !kept.window.isEmpty()) restoreGeometry(kept.window);

  strip_ = new StationStrip;
  sheet_ = new SheetStack;
  snags_ = new SnagPanel(document_);
  bench_panel_ = new BenchPanel(document_, bench_);
  foot_ = new FootLine(document_, bench_);

  for (const Station s : all_stations()) {
    StationPage* page = make_page(s, {document_, bench_});
    pages_.push_back(page);
    sheet_->addWidget(new PageScroll(page));
    connect(page, &StationPage::said, foot_, &FootLine::say);
    connect(page, &StationPage::wanted, this, &MainWindow::go_to);
    connect(page, &StationPage::bench_asked, this, [this] { start_bench(); });
    connect(page, &StationPage::bench_use_changed, this, [this] { show_bench_panel(); });
    connect(page, &StationPage::sheets_asked, this, &MainWindow::show_sheets);
  }

  recovery_bar_ = new QWidget;
  recovery_bar_->setObjectName(u"recovery_bar"_s);
  recovery_bar_->hide();
  auto* centre = new QWidget;
  auto* layout = new QVBoxLayout(centre);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(strip_);
  layout->addWidget(recovery_bar_);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(0);
  // The bench can be pulled up where a surface is to be judged.
  auto* column = new QSplitter(Qt::Vertical);
  column->addWidget(sheet_);
  column->addWidget(bench_panel_);
  column->setStretchFactor(0, 1);
  column->setStretchFactor(1, 0);
  column->setChildrenCollapsible(false);
  column->setHandleWidth(5);
  middle->addWidget(column, 1);
  middle->addWidget(snags_);
  middle->setContentsMargins(0, 0, 0, 0);
  auto* stations = new QWidget;
  stations->setLayout(middle);
  new_aircraft_ = new NewAircraftPage(document_);
  desk_ = new SheetStack;
  desk_->addWidget(stations);
  desk_->addWidget(new_aircraft_);
  layout->addWidget(desk_, 1);
  layout->addWidget(foot_);
  setCentralWidget(centre);
  build_menus();
  glossary_ = new Glossary(manual_folder(settings_.data_folder), this);
  qApp->installEventFilter(glossary_);
  knowledge_ = Knowledge(topics_beside(settings_.data_folder.toStdString()));
  manual_ = passages_beside(settings_.data_folder.toStdString());
  qApp->installEventFilter(new UndoBeyond(this));

  connect(strip_, &StationStrip::chosen, this, &MainWindow::go);
  connect(new_aircraft_, &NewAircraftPage::begun, this, &MainWindow::take_new);
  connect(new_aircraft_, &NewAircraftPage::left, this, [this] { go(station_); });
  connect(new_aircraft_, &NewAircraftPage::wanted, this, &MainWindow::go_to);
  connect(new_aircraft_, &NewAircraftPage::open_asked, this, &MainWindow::ask_open);
  connect(new_aircraft_, &NewAircraftPage::recent_asked, this, [this](const QString& path) {
    if (may_leave()) open_file(path);
  });
  connect(new_aircraft_, &NewAircraftPage::demo_asked, this, [this] {
    if (may_leave()) start_demo();
  });
  connect(snags_, &SnagPanel::take_me_there, this, &MainWindow::go_to);
  connect(bench_panel_, &BenchPanel::start_asked, this, [this] { start_bench(); });
  connect(bench_panel_, &BenchPanel::compare_asked, this, [this] { compare_with_board(true); });
  connect(&document_, &RigDocument::changed, this, &MainWindow::refresh);
  connect(&document_, &RigDocument::refused, foot_, &FootLine::say);
  connect(&document_, &RigDocument::file_changed, this, [this] {
    foot_->say_until(FootLine::Until::replaced,
                     u"The file was changed by somebody else. Saving shows what differs, and asks."_s);
  });
  connect(&bench_, &BenchLink::state_changed, foot_, &FootLine::refresh);
  connect(&bench_, &BenchLink::problem, foot_, &FootLine::say);
  connect(&bench_, &BenchLink::hands_done, this, [this](bool, const QString& words) { foot_->say(words); });
  connect(&bench_, &BenchLink::board_read, this, [this] { compare_with_board(false); });
  connect(&bench_, &BenchLink::written, this, [this](bool, const QString& words) {
    foot_->say(words);
    bench_panel_->refresh();
  });
  offer_recovery();
  if (document_.rig().name.empty()) {
    document_.start_new(fresh_rig("New aircraft", Airframe{}.kind, "full_controller"));
  }
  go(Station::airframe);
  Style::instance().dress();
  // Kept as they are chosen: not every end is a closed window.
  connect(&Style::instance(), &Style::changed, this, &MainWindow::keep_preferences);
}

void MainWindow::build_menus() {
  auto* file = menuBar()->addMenu(u"&Rig"_s);
  const auto add = [&](QMenu* menu, const QString& text, const QKeySequence& key, auto&& act) {
    QAction* action = menu->addAction(text);
    action->setShortcut(key);
    connect(action, &QAction::triggered, this, act);
    return action;
  };
  add(file, u"&New…"_s, QKeySequence::New, [this] { begin(); });
  add(file, u"&Open…"_s, QKeySequence::Open, [this] { ask_open(); });
  recent_menu_ = file->addMenu(u"Open &recent"_s);
  connect(recent_menu_, &QMenu::aboutToShow, this, [this] {
    recent_menu_->clear();
    for (const QString& path : recent())
      connect(recent_menu_->addAction(path), &QAction::triggered, this, [this, path] {
        if (may_leave()) open_file(path);
      });
    if (recent_menu_->isEmpty()) recent_menu_->addAction(u"Nothing yet"_s)->setEnabled(false);
  });
  add(file, u"&Save"_s, QKeySequence::Save, [this] { save(); });
  add(file, u"Save &as…"_s, QKeySequence::SaveAs, [this] { save_as(); });
  auto* print = file->addMenu(u"&Print"_s);
  add(print, u"&All sheets…"_s, QKeySequence::Print, [this] { show_all_sheets(); });
  add(print, u"&Plug list and wiring…"_s, {},
      [this] { show_sheets(u"Plug list and wiring"_s, wiring_sheets(document_)); });
  add(print, u"&Settings card…"_s, {}, [this] { show_sheets(u"Settings card"_s, setting_sheets(document_)); });
  add(print, u"&Throw gauges…"_s, {}, [this] { show_sheets(u"Throw gauges"_s, gauge_sheets(document_)); });
  file->addSeparator();
  add(file, u"Start the &demo"_s, {}, [this] {
    if (may_leave()) start_demo();
  });
  add(file, u"&Connect a controller…"_s, {}, [this] { connect_controller(); });
  add(file, u"&Quit"_s, QKeySequence::Quit, [this] { close(); });

  auto* edit = menuBar()->addMenu(u"&Edit"_s);
  undo_ = add(edit, u"Undo"_s, QKeySequence::Undo, [this] { document_.undo(); });
  redo_ = add(edit, u"Redo"_s, QKeySequence::Redo, [this] { document_.redo(); });
  redo_->setShortcuts({QKeySequence(u"Ctrl+Shift+Z"_s), QKeySequence(u"Ctrl+Y"_s)});
  add(edit, u"Ask for anything…"_s, QKeySequence(u"Ctrl+K"_s), [this] { ask_box()->exec(); });

  auto* view = menuBar()->addMenu(u"&View"_s);
  // The keys as they lie beside each other, then the logbook's letter: minus and plus are for the size of the text.
  const QString keys = u"1234567890L"_s;
  for (const Station s : all_stations()) {
    const int at = static_cast<int>(s);
    add(view, QString::fromStdString(capital(std::string(name_of(s)))),
        at < keys.size() ? QKeySequence(u"Ctrl+"_s + keys.at(at)) : QKeySequence(), [this, s] { go(s); });
  }
  view->addSeparator();
  show_bench_ =
      add(view, u"Bench"_s, QKeySequence(u"F9"_s), [this] { bench_panel_->setVisible(show_bench_->isChecked()); });
  show_bench_->setCheckable(true);
  show_bench_->setChecked(true);
  imperial_ = add(view, u"Imperial units"_s, {}, [] {});
  imperial_->setCheckable(true);
  imperial_->setChecked(unit_system() == UnitSystem::imperial);
  connect(imperial_, &QAction::toggled, this, [this](bool on) {
    set_unit_system(on ? UnitSystem::imperial : UnitSystem::metric);
    document_.say_again();
    keep_preferences();
  });
  auto* larger = add(view, u"Larger text"_s, {},
                     [] { Style::instance().set_text_scale(Style::instance().text_scale() + text_step); });
  // Without Shift where plus lies above "=".
  larger->setShortcuts({QKeySequence(u"Ctrl++"_s), QKeySequence(u"Ctrl+="_s)});
  add(view, u"Smaller text"_s, QKeySequence(u"Ctrl+-"_s),
      [] { Style::instance().set_text_scale(Style::instance().text_scale() - text_step); });
  auto* themes = new QActionGroup(this);
  const std::pair<QString, Theme> choices[] = {
      {u"Paper"_s, Theme::paper}, {u"Field (sunlight)"_s, Theme::field}, {u"Dark"_s, Theme::dark}};
  for (const auto& choice : choices) {
    QAction* action = add(view, choice.first, {}, [theme = choice.second] { Style::instance().set_theme(theme); });
    action->setCheckable(true);
    action->setChecked(choice.second == Style::instance().theme());
    themes->addAction(action);
    // However it was chosen.
    connect(&Style::instance(), &Style::changed, action,
            [action, theme = choice.second] { action->setChecked(theme == Style::instance().theme()); });
  }
  connect(&Style::instance(), &Style::changed, this, &MainWindow::fit_snags);
  connect(&Style::instance(), &Style::changed, this, &MainWindow::refresh);
  auto* help = menuBar()->addMenu(u"&Help"_s);
  add(help, u"Manual, this &chapter"_s, QKeySequence::HelpContents, [this] { show_help(); });
  add(help, u"&Glossary"_s, {}, [this] { show_help(u"glossary"_s); });
  add(help, u"&What next?"_s, {}, [this] {
    desk_->setCurrentWidget(new_aircraft_);
    new_aircraft_->show_next();
  });

  connect(new QShortcut(QKeySequence(u"F8"_s), this), &QShortcut::activated, snags_, &SnagPanel::next);
  connect(new QShortcut(QKeySequence(u"F6"_s), this), &QShortcut::activated, this, [this] { walk_panes(1); });
  connect(new QShortcut(QKeySequence(u"Shift+F6"_s), this), &QShortcut::activated, this, [this] { walk_panes(-1); });
}

void MainWindow::show_all_sheets() {
  show_sheets(u"All sheets"_s, wiring_sheets(document_) + setting_sheets(document_) + gauge_sheets(document_));
}

std::unique_ptr<AskBox> MainWindow::ask_box() {
  return std::make_unique<AskBox>(
      named_actions(),
      [this](const QString& words) {
        return answers({document_.rig(), document_.catalogue(), document_.review(), document_.deferred(),
                        &glossary_->chapter(), &manual_, &knowledge_},
                       words.toStdString());
      },
      [this](const Interpretation& answer) { take(answer); }, this);
}

void MainWindow::take(const Interpretation& answer) {
  switch (answer.view) {
    case AskedView::none: break;
    case AskedView::metric: return imperial_->setChecked(false);
    case AskedView::imperial: return imperial_->setChecked(true);
    case AskedView::paper: return Style::instance().set_theme(Theme::paper);
    case AskedView::field: return Style::instance().set_theme(Theme::field);
    case AskedView::dark: return Style::instance().set_theme(Theme::dark);
    case AskedView::larger: return Style::instance().set_text_scale(Style::instance().text_scale() + text_step);
    case AskedView::smaller: return Style::instance().set_text_scale(Style::instance().text_scale() - text_step);
    case AskedView::undo: return document_.undo();
    case AskedView::redo: return document_.redo();
    case AskedView::save: return (void)save();
    case AskedView::save_as: return (void)save_as();
    case AskedView::open: return ask_open();
    case AskedView::print: return show_all_sheets();
    case AskedView::begin: return begin();
    case AskedView::bench: return start_bench();
    case AskedView::help: return show_help();
  }
  if (answer.edit) document_.apply(*answer.edit);
  foot_->say(said_of(answer.text));
  if (answer.station) go_to(*answer.station, said_of(answer.subject));
}

void MainWindow::keep_preferences() {
  write_preferences(settings_.state_folder,
                    {Style::instance().theme(), unit_system(), Style::instance().text_scale(), saveGeometry()});
}

void MainWindow::show_help(QString chapter) {
  if (!help_) help_ = new HelpWindow(manual_folder(settings_.data_folder), this);
  if (chapter.isEmpty())
    chapter = desk_->currentIndex() == 1 ? u"beginning"_s : QString::fromLatin1(name_of(station_).data());
  help_->show_chapter(chapter);
}

void MainWindow::show_sheets(const QString& title, const QList<Sheet>& sheets) {
  SheetDialog(title, sheets, this).exec();
}

void MainWindow::begin() {
  desk_->setCurrentWidget(new_aircraft_);
  new_aircraft_->begin_anew();
  new_aircraft_->offer_recent(recent());
}

void MainWindow::take_new(const Edit& edit) {
  if (const auto ok = can_be_kept(edit.rig); !ok) return complain(u"This aircraft can't be begun"_s, ok.error());
  if (!may_leave()) return;
  is_demo_ = false;
  bench_.stop();
  foot_->say({});
  // Begun empty, so that one undo takes back what was put on paper.
  document_.start_new(fresh_rig(edit.rig.name, edit.rig.airframe.kind, edit.rig.controller.kind));
  document_.apply(edit);
  new_aircraft_->show_next();
}

void MainWindow::walk_panes(int step) {
  const QList<QWidget*> panes{strip_, &page(station_), snags_, bench_panel_};
  int at = 0;
  for (int i = 0; i < panes.size(); ++i)
    if (panes[i] == focusWidget() || panes[i]->isAncestorOf(focusWidget())) at = i;
  for (int tries = 0; tries < panes.size(); ++tries) {
    at = (at + step + static_cast<int>(panes.size())) % static_cast<int>(panes.size());
    if (!panes[at]->isVisible()) continue;
    if (auto* page = qobject_cast<StationPage*>(panes[at])) {
      page->first_focus()->setFocus(Qt::ShortcutFocusReason);
    } else if (panes[at]->focusPolicy() != Qt::NoFocus) {
      panes[at]->setFocus(Qt::ShortcutFocusReason);
    } else {
      for (QWidget* child : panes[at]->findChildren<QWidget*>())
        if (child->isVisible() && child->isEnabled() && child->focusPolicy() & Qt::TabFocus) {
          child->setFocus(Qt::ShortcutFocusReason);
          break;
        }
    }
    return;
  }
}

void MainWindow::refresh() {
  setWindowTitle(u"%1%2 – Rigging"_s.arg(document_.title(), document_.modified() ? u" *"_s : QString()));
  strip_->set_states(document_.review().stations);
  snags_->refresh();
  bench_panel_->refresh();
  foot_->refresh();
  undo_->setEnabled(document_.history().can_undo());
  redo_->setEnabled(document_.history().can_redo());
  undo_->setText(u"Undo %1"_s.arg(QString::fromStdString(document_.history().last_edit())));
  redo_->setText(u"Redo %1"_s.arg(QString::fromStdString(document_.history().next_edit())));
}

void MainWindow::go(Station station) {
  desk_->setCurrentIndex(0);
  page(station_).set_current(false);
  station_ = station;
  page(station).set_current(true);
  sheet_->setCurrentIndex(static_cast<int>(station));
  sheet_->updateGeometry();
  // From the sheet outward at once: the window must not keep the room that another sheet has asked for.
  for (QWidget* w = sheet_; w; w = w->parentWidget())
    if (w->layout()) w->layout()->activate();
  strip_->set_current(station);
  snags_->set_station(station);
  show_bench_panel();
  page(station).first_focus()->setFocus(Qt::OtherFocusReason);
}

MainWindow::~MainWindow() {
  // A box that is left while the window goes would tell a document that is gone already.
  if (QWidget* typed_in = focusWidget()) typed_in->clearFocus();
}

void MainWindow::show_bench_panel() {
  bench_panel_->setVisible(show_bench_->isChecked() && page(station_).uses_bench());
}

void MainWindow::go_to(Station station, const QString& subject) {
  go(station);
  if (!subject.isEmpty()) page(station).go_to(subject);
}

void MainWindow::start_demo() {
  const QString path = settings_.data_folder + u"/demo/hedgerow.rig.json"_s;
  const auto rig = load_rig(path.toStdString());
  if (!rig) return complain(u"The demo could not be opened"_s, rig.error());
  document_.start_new(*rig);
  is_demo_ = true;
  foot_->say_until(
      FootLine::Until::replaced,
      u"Two faults are hidden in this aircraft. Propeller off, battery in on the bench below, then do the first "
      "check."_s);
  start_bench();
  // Straight to what Rigging is best at; the day's order goes on from there.
  go_to(Station::proof, u"stick.roll"_s);
}

void MainWindow::start_bench(BenchLink::Troubles troubles) {
  // The twin is built from the rig as it stands; a copy, so that nothing of the builder's is touched.
  const QString copy = bench_folder_.filePath(u"bench.rig.json"_s);
  if (const auto ok = save_rig(document_.rig(), copy.toStdString()); !ok)
    return complain(u"The bench could not be started"_s, ok.error());
  if (!document_.path().isEmpty())
    if (const auto own = own_parts_path(document_.path().toStdString());
        QFileInfo::exists(QString::fromStdString(own.string()))) {
      std::error_code ec;
      std::filesystem::copy_file(own, own_parts_path(copy.toStdString()),
                                 std::filesystem::copy_options::overwrite_existing, ec);
    }
  BenchLink::TwinOptions options;
  options.rig_file = copy;
  options.faults = settings_.demo_faults;
  options.lead_faults = settings_.demo_lead_faults;
  options.random = is_demo_ && settings_.demo_faults.isEmpty() ? settings_.demo_random : 0;
  options.troubles = troubles;
  options.troubles.differs = true;  // an aeroplane is never quite what one works out
  options.seed = settings_.demo_seed;
  bench_.start_twin(options);
}

void MainWindow::start_troubled_bench(unsigned seed, BenchLink::Troubles troubles) {
  settings_.demo_random = 0;
  settings_.demo_faults.clear();
  settings_.demo_lead_faults.clear();
  settings_.demo_seed = seed;
  start_bench(troubles);
}

void MainWindow::connect_controller() {
  QStringList devices;
  for (const QSerialPortInfo& port : QSerialPortInfo::availablePorts()) devices << port.systemLocation();
  if (devices.isEmpty()) devices << u"/dev/ttyACM0"_s;
  bool chosen = false;
  const QString device = QInputDialog::getItem(
      this, u"Connect a controller"_s,
      u"Propeller off. A cable that carries data, not only charge.\nSerial device of the controller:"_s, devices, 0,
      true, &chosen);
  if (!chosen || device.trimmed().isEmpty()) return;
  is_demo_ = false;
  bench_.connect_device(device.trimmed());
}

void MainWindow::write_board() {
  if (bench_.is_another_class(document_.rig().controller.kind)) return compare_with_board(false);
  bench_.write(document_.image());
}

void MainWindow::compare_with_board(bool always_show) {
  if (!bench_.board()) {
    if (always_show) foot_->say(u"Nothing to compare: no board was read over a settings link."_s);
    return;
  }
  if (!bench_.firmware().isEmpty() && document_.rig().controller.firmware != bench_.firmware().toStdString()) {
    document_.apply(set_value(document_.rig(), "controller/firmware", bench_.firmware().toStdString()));
  }
  bench_panel_->refresh();
  if (bench_.is_another_class(document_.rig().controller.kind)) {
    const auto name = [&](const std::string& kind) {
      const ControllerClass* c = document_.catalogue().controller(kind);
      return QString::fromStdString(clean_text(c ? c->name : kind, 60));
    };
    foot_->say_until(
        FootLine::Until::link_gone,
        u"The board is of another class: %1. The rig is planned for: %2. Nothing is compared or written."_s.arg(
            name(bench_.kind().toStdString()), name(document_.rig().controller.kind)));
    return;
  }
  const auto differing = link::differences(document_.image(), *bench_.board());
  if (differing.empty()) {
    foot_->say_until(FootLine::Until::link_gone, u"Board and rig agree."_s);
    return;
  }
  if (!always_show) {
    foot_->say_until(FootLine::Until::link_gone, differing.size() == 1
                                                     ? u"Board and rig differ in one part."_s
                                                     : u"Board and rig differ in %1 parts."_s.arg(differing.size()));
    return;
  }
  DifferencesDialog dialog(differing, document_.rig().controller.auto_trim, this);
  if (dialog.exec() != QDialog::Accepted || !bench_.board()) return;
  const auto parts = dialog.from_board();
  if (!parts.empty())
    document_.edit(link::with_board_parts(document_.rig(), *bench_.board(), parts),
                   u"Taken over from the board: %1 parts"_s.arg(parts.size()));
  if (document_.image() != *bench_.board()) bench_.write(document_.image());
  bench_panel_->refresh();
}

void MainWindow::fit_snags() {
  // The sheet needs its room on a small screen, or where text is large; snags wrap.
  const double scale = Style::instance().text_scale();
  snags_->setFixedWidth(width() < 1120 * scale ? qRound(190 * (0.3 + 0.7 * scale)) : Style::instance().px(264));
}

void MainWindow::resizeEvent(QResizeEvent* event) {
  fit_snags();
  QMainWindow::resizeEvent(event);
}

void MainWindow::closeEvent(QCloseEvent* event) {
  if (!may_leave()) return event->ignore();
  bench_.stop();
  keep_preferences();
  event->accept();
}

QList<NamedAction> MainWindow::named_actions() {
  QList<NamedAction> all;
  for (const StationEntry& e : stations())
    all.append({u"Go to %1"_s.arg(QString::fromLatin1(name_of(e.station).data())), QString::fromUtf8(e.question),
                [this, s = e.station] { go(s); }});
  for (StationPage* p : pages_) all.append(p->named_actions());
  all.append(
      {u"Start the bench with a badly set transmitter and crooked linkages"_s, u"twin practise sticks surfaces train"_s,
       [this] {
         start_troubled_bench(static_cast<unsigned>(QDateTime::currentSecsSinceEpoch() % 100000), {true, false, true});
         go(Station::sticks);
       }});
  all.append(
      {u"Start the bench with poor senses"_s, u"twin practise gyro compass iron bumped satellites train"_s, [this] {
         start_troubled_bench(static_cast<unsigned>(QDateTime::currentSecsSinceEpoch() % 100000),
                              {.poor_senses = true});
         go(Station::senses);
       }});
  all.append({u"Start the bench with a cold transmitter"_s, u"twin practise sticks drift centre train"_s, [this] {
                start_troubled_bench(1, {false, true, false});
                go(Station::sticks);
              }});
  all.append(
      {u"Connect a controller on a serial port"_s, u"usb device link board real"_s, [this] { connect_controller(); }});
  all.append({u"Write the rig to the controller"_s, u"upload save board"_s, [this] { write_board(); },
              NamedAction::Does::writes_board});
  all.append({u"Compare the board with the rig"_s, u"read differences"_s, [this] { compare_with_board(true); }});
  all.append({u"The manual's chapter of this station"_s, u"help F1 explain how"_s, [this] { show_help(); }});
  all.append({u"What next?"_s, u"three things to do"_s, [this] {
                desk_->setCurrentWidget(new_aircraft_);
                new_aircraft_->show_next();
              }});
  for (const StationEntry& e : stations())
    for (const ProcedureEntry& p : e.procedures)
      all.append({QString::fromStdString(p.name), u"procedure guided"_s,
                  [this, station = e.station, p] { page(station).run(p); }});
  all.append({u"Next snag"_s, u"problem F8"_s, [this] { snags_->next(); }});
  return all;
}

}  // namespace rigging::app
