#include "shell/new_aircraft_page.h"

#include <QComboBox>
#include <QEvent>
#include <QFileInfo>
#include <QGridLayout>
#include <QListWidget>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>

#include "airframe/airframe.h"
#include "airframe/kinds.h"
#include "airframe/planform.h"
#include "drawing/aircraft_view.h"
#include "drawing/motor_choices.h"
#include "look/literals.h"
#include "look/measure_edit.h"
#include "look/member_box.h"
#include "look/pieces.h"
#include "look/side_scroll.h"
#include "look/units.h"
#include "review/stations.h"
#include "wiring/ports.h"

namespace rigging::app {
namespace {

constexpr int picture_w = 92, picture_h = 62;
constexpr const char* own_board = "";  ///< described after the beginning

/// A field with what it is for before it.
void add_row(QGridLayout* grid, const QString& words, QWidget* field) {
  auto* label = new QLabel(words);
  label->setBuddy(field);
  const int at = grid->rowCount();
  grid->addWidget(label, at, 0);
  grid->addWidget(field, at, 1);
}

/// "9 × 6 inch" of "Propeller, 9 × 6 inch".
QString figures_of(const PartKind& kind) {
  const QString name = said_of(kind.name);
  const auto comma = name.indexOf(u", "_s);
  return comma < 0 ? name : name.mid(comma + 2);
}

/// The measures that tell most of a kind beside its span.
std::vector<double Airframe::*> telling(AirframeKind kind) {
  std::vector<double Airframe::*> all{&Airframe::root_chord_m, &Airframe::tip_chord_m, &Airframe::length_m};
  if (!has_tail(kind) || kind == AirframeKind::tailerons || kind == AirframeKind::tailerons_canards)
    all.push_back(&Airframe::sweep_deg);
  if (has_v(kind)) all.push_back(&Airframe::v_angle_deg);
  return all;
}

}  // namespace

NewAircraftPage::NewAircraftPage(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(u"beginning"_s);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  pages_ = new QStackedWidget;
  pages_->addWidget(make_form());
  pages_->addWidget(make_next());
  // An undo takes back what is told here.
  connect(&document_, &RigDocument::changed, this, [this] {
    if (isVisible() && pages_->currentIndex() == 1) show_next();
  });
  all->addWidget(pages_);
  connect(&Style::instance(), &Style::changed, this, [this] {
    if (isVisible()) fill_kinds();
  });
}

QWidget* NewAircraftPage::make_form() {
  auto* sheet = new QWidget;
  auto* page = new QHBoxLayout(sheet);
  page->setContentsMargins(16, 10, 16, 10);
  page->setSpacing(18);

  // What is told
  auto* told = new QWidget;
  auto* form = new QVBoxLayout(told);
  form->setContentsMargins(0, 0, 4, 0);
  form->setSpacing(4);
  auto* title = wrapping_words(15, true);
  title->setText(u"What are you building?"_s);
  form->addWidget(title);
  auto* how = wrapping_words(9);
  how->setProperty("soft", true);
  how->setText(u"Tell what you know; the rest is guessed and marked so. Everything can be changed later."_s);
  form->addWidget(how);
  auto* grid = new QGridLayout;
  grid->setVerticalSpacing(4);
  grid->setColumnStretch(1, 1);
  name_ = new QLineEdit;
  name_->setObjectName(u"begin_name"_s);
  name_->setAccessibleName(u"Name of the aircraft"_s);
  name_->setPlaceholderText(u"its name"_s);
  add_row(grid, u"&Name"_s, name_);
  span_ = new MeasureEdit(member_of(&Airframe::span_m), "begin_span");
  add_row(grid, u"&Span"_s, span_);
  mass_ = new MeasureEdit(member_of(&Airframe::mass_kg), "begin_mass");
  add_row(grid, u"Flying &mass"_s, mass_);
  form->addLayout(grid);
  measures_box_ = new QWidget;
  measures_box_->setLayout(new QGridLayout);
  form->addWidget(measures_box_);
  controller_ = new QComboBox;
  controller_->setObjectName(u"begin_controller"_s);
  controller_->setAccessibleName(u"Controller class"_s);
  auto* fitted = new QGridLayout;
  fitted->setVerticalSpacing(4);
  fitted->setColumnStretch(1, 1);
  add_row(fitted, u"&Controller"_s, controller_);
  receiver_ = new QComboBox;
  receiver_->setObjectName(u"begin_receiver"_s);
  receiver_->setAccessibleName(u"Receiver"_s);
  add_row(fitted, u"&Receiver"_s, receiver_);
  for (QComboBox* box : {controller_, receiver_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(12);
  }
  form->addLayout(fitted);
  auto* others = new QLabel(u"What &else is on board"_s);
  form->addWidget(others);
  others_ = new QLineEdit;
  others_->setObjectName(u"begin_others"_s);
  others_->setAccessibleName(u"What else is on board, in words"_s);
  others_->setPlaceholderText(u"camera, 200 mW video, satellite with compass"_s);
  others->setBuddy(others_);
  form->addWidget(others_);
  others_words_ = wrapping_words(9);
  others_words_->setObjectName(u"begin_others_words"_s);
  form->addWidget(others_words_);
  auto* drive = new QLabel(u"Motor, propeller, battery, speed controller: &yours in words, or one that suits"_s);
  drive->setWordWrap(true);
  form->addWidget(drive);
  drive_ = new QLineEdit;
  drive_->setObjectName(u"begin_drive"_s);
  drive_->setAccessibleName(u"Motor, propeller, battery and speed controller in words"_s);
  drive_->setPlaceholderText(u"such as: 1000 kV motor, 9 x 6, 3S 2200 mAh, 30 A"_s);
  drive->setBuddy(drive_);
  form->addWidget(drive_);
  drive_read_ = wrapping_words(9);
  drive_read_->setObjectName(u"begin_drive_read"_s);
  form->addWidget(drive_read_);
  // What is read of a line has its room before anything is typed: nothing below moves.
  for (QLabel* read : {others_words_, drive_read_}) {
    read->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    read->setMinimumHeight((read == others_words_ ? 3 : 2) * read->fontMetrics().lineSpacing() + 2);
  }
  drives_ = new QListWidget;
  drives_->setObjectName(u"begin_drives"_s);
  drives_->setAccessibleName(u"Drives that suit"_s);
  drives_->setWordWrap(true);
  drives_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  drives_->setMinimumHeight(132);
  form->addWidget(drives_, 1);
  drive_words_ = caution_words(9);
  drive_words_->setObjectName(u"begin_drive_words"_s);
  form->addWidget(drive_words_);
  auto* area = new SideScroll(400, told);

  // What it looks like
  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  kinds_ = new QListWidget;
  kinds_->setObjectName(u"begin_kinds"_s);
  kinds_->setAccessibleName(u"Kind of airframe"_s);
  kinds_->setViewMode(QListView::IconMode);
  kinds_->setMovement(QListView::Static);
  kinds_->setResizeMode(QListView::Adjust);
  kinds_->setWordWrap(true);
  kinds_->setUniformItemSizes(true);
  kinds_->setTextElideMode(Qt::ElideNone);
  kinds_->setFont(Style::instance().text(8));
  kinds_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOn);  // a narrow window has more rows than are seen
  right->addWidget(kinds_);
  kind_words_ = wrapping_words(9.5);
  right->addWidget(kind_words_);
  choices_ = new MotorChoices(u"begin"_s);
  right->addWidget(choices_);
  auto* views = new QHBoxLayout;
  above_ = new AircraftView(AircraftView::From::above);
  above_->set_caption(u"From above, as told so far"_s);
  side_ = new AircraftView(AircraftView::From::side);
  side_->set_caption(u"From the left"_s);
  views->addWidget(above_, 3);
  views->addWidget(side_, 2);
  right->addLayout(views, 1);
  figures_ = wrapping_words(9.5);
  right->addWidget(figures_);
  problem_ = caution_words(9.5);
  problem_->setObjectName(u"begin_problem"_s);
  right->addWidget(problem_);
  auto* keys = new QHBoxLayout;
  auto* open = hinted_button(u"Open…"_s, "begin_open", u"One that you have saved"_s);
  auto* demo = hinted_button(u"Look at the demo"_s, "begin_demo",
                             u"An aircraft with two hidden faults, on the simulated bench"_s);
  auto* leave = hinted_button(u"Leave it"_s, "begin_leave", u"To the stations, with what is open"_s);
  begin_ = hinted_button(u"Put it on paper"_s, "begin_take",
                         u"Places all parts, feeds them and plans the wiring; one undo takes it back"_s);
  begin_->setProperty("main", true);
  begin_->setMinimumHeight(38);
  connect(open, &QPushButton::clicked, this, &NewAircraftPage::open_asked);
  connect(demo, &QPushButton::clicked, this, &NewAircraftPage::demo_asked);
  connect(leave, &QPushButton::clicked, this, [this] {
    left_open_ = true;
    Q_EMIT left();
  });
  connect(begin_, &QPushButton::clicked, this, &NewAircraftPage::take);
  recent_ = new QComboBox;
  recent_->setObjectName(u"begin_recent"_s);
  recent_->setAccessibleName(u"Rigs that were open before"_s);
  recent_->setPlaceholderText(u"Recent rigs"_s);
  recent_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  recent_->setMinimumContentsLength(6);
  recent_->hide();
  connect(recent_, &QComboBox::activated, this, [this] {
    const QString path = recent_->currentData().toString();
    recent_->setCurrentIndex(-1);
    Q_EMIT recent_asked(path);
  });
  keys->addWidget(open);
  keys->addWidget(recent_);
  keys->addWidget(demo);
  keys->addStretch();
  keys->addWidget(leave);
  keys->addWidget(begin_);
  right->addLayout(keys);
  page->addWidget(area);
  page->addLayout(right, 1);

  connect(kinds_, &QListWidget::currentRowChanged, this, [this] {
    fill_measures();
    Airframe fresh;
    fresh.kind = kind();
    choices_->show_airframe(fresh);
    retell();
  });
  connect(choices_, &MotorChoices::motors_chosen, this, &NewAircraftPage::retell);
  connect(choices_, &MotorChoices::propeller_chosen, this, &NewAircraftPage::retell);
  connect(choices_, &MotorChoices::joined_chosen, this, &NewAircraftPage::retell);
  for (MeasureEdit* m : {span_, mass_}) connect(m, &MeasureEdit::changed, this, &NewAircraftPage::retell);
  connect(controller_, &QComboBox::currentIndexChanged, this, [this] {
    const ControllerClass* c = document_.catalogue().controller(controller_->currentData().toString().toStdString());
    controller_->setToolTip(c ? said_of(c->summary) : u"You describe its sockets at station wiring afterwards."_s);
    show_others();
    if (c)
      receiver_->setCurrentIndex(
          std::max(0, receiver_->findData(said_of(usual_receiver(document_.catalogue(), c->id)))));
  });
  connect(drive_, &QLineEdit::textChanged, this, &NewAircraftPage::propose_drives);
  connect(drives_, &QListWidget::itemActivated, this, [this] { others_->setFocus(); });
  connect(others_, &QLineEdit::textChanged, this, &NewAircraftPage::show_others);
  setTabOrder(name_, span_);
  setTabOrder(span_, mass_);
  return sheet;
}

QWidget* NewAircraftPage::make_next() {
  auto* sheet = new QWidget;
  auto* page = new QVBoxLayout(sheet);
  page->setContentsMargins(48, 32, 48, 24);
  page->setSpacing(14);
  next_title_ = wrapping_words(15, true);
  next_title_->setObjectName(u"next_title"_s);
  page->addWidget(next_title_);
  next_ = new QVBoxLayout;
  next_->setSpacing(12);
  page->addLayout(next_);
  on_paper_ = new AircraftView(AircraftView::From::behind_above);
  page->addWidget(on_paper_, 1);
  return sheet;
}

void NewAircraftPage::begin_anew() {
  // What was told and then left is still there.
  if (left_open_) {
    pages_->setCurrentIndex(0);
    name_->setFocus(Qt::OtherFocusReason);
    return;
  }
  const QSignalBlocker quiet(kinds_);
  for (QLineEdit* l : {name_, drive_, others_}) l->clear();
  span_->set_value({});
  mass_->set_value({});
  controller_->clear();
  for (const ControllerClass& c : document_.catalogue().controllers)
    controller_->addItem(said_of(c.name), said_of(c.id));
  controller_->addItem(u"My own board…"_s, QLatin1String(own_board));
  receiver_->clear();
  receiver_->addItem(u"none yet"_s, QString());
  for (const PartKind& k : document_.catalogue().parts)
    if (k.group == PartGroup::receiver) receiver_->addItem(said_of(k.name), said_of(k.id));
  controller_->setCurrentIndex(controller_->findData(u"full_controller"_s));
  receiver_->setCurrentIndex(
      std::max(0, receiver_->findData(said_of(usual_receiver(document_.catalogue(), "full_controller")))));
  fill_kinds();
  kinds_->setCurrentRow(static_cast<int>(Airframe{}.kind));
  fill_measures();
  choices_->show_airframe(Airframe{});
  show_others();
  retell();
  pages_->setCurrentIndex(0);
  name_->setFocus(Qt::OtherFocusReason);
}

void NewAircraftPage::offer_recent(const QStringList& files) {
  recent_->clear();
  for (const QString& file : files)
    if (QFileInfo(file).isFile()) {
      QString name = QFileInfo(file).fileName();
      if (name.endsWith(u".rig.json"_s)) name.chop(9);
      recent_->addItem(name, file);
      recent_->setItemData(recent_->count() - 1, file, Qt::ToolTipRole);
    }
  recent_->setCurrentIndex(-1);
  recent_->setVisible(recent_->count() > 0);
}

void NewAircraftPage::fill_kinds() {
  const QSignalBlocker quiet(kinds_);
  const int chosen = kinds_->currentRow();
  kinds_->clear();
  // A picture with a name of up to three lines below it; two rows of them are seen.
  const int wide = Style::instance().px(picture_w), names = 3 * kinds_->fontMetrics().lineSpacing() + 6;
  kinds_->setIconSize({wide, picture_h});
  kinds_->setGridSize({wide + 10, picture_h + names});
  kinds_->setFixedHeight(2 * (picture_h + names) + 8);
  AircraftView pen(AircraftView::From::above);
  pen.resize(2 * picture_w, 2 * picture_h);
  for (const auto& [k, name] : Names<AirframeKind>::list) {
    NewAircraft bare;
    bare.kind = k;
    pen.set_panels(aircraft_panels(*airframe_of(bare)));
    auto* item = new QListWidgetItem(QIcon(pen.grab()), said_of(facts_of(k).name), kinds_);
    item->setData(Qt::UserRole, static_cast<int>(k));
    item->setToolTip(said_of(facts_of(k).sentence));
    item->setSizeHint(kinds_->gridSize());
  }
  kinds_->setCurrentRow(chosen);
}

AirframeKind NewAircraftPage::kind() const {
  const QListWidgetItem* item = kinds_->currentItem();
  return item ? static_cast<AirframeKind>(item->data(Qt::UserRole).toInt()) : Airframe{}.kind;
}

void NewAircraftPage::fill_measures() {
  auto* grid = static_cast<QGridLayout*>(measures_box_->layout());
  for (MeasureEdit* m : measures_) m->deleteLater();
  measures_.clear();
  while (QLayoutItem* item = grid->takeAt(0)) {
    if (item->widget()) item->widget()->deleteLater();
    delete item;
  }
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(4);
  for (const int column : {1, 3}) grid->setColumnStretch(column, 1);
  QWidget* before = mass_;
  for (double Airframe::*value : telling(kind())) {
    const Member& member = member_of(value);
    auto* edit = new MeasureEdit(member, "");
    edit->setObjectName(u"begin_"_s + QLatin1String(member.name));
    auto* label = new QLabel(spoken_label(member));
    label->setBuddy(edit);
    edit->setMinimumWidth(70);
    // Two beside each other.
    const int n = static_cast<int>(measures_.size());
    grid->addWidget(label, n / 2, n % 2 * 2);
    grid->addWidget(edit, n / 2, n % 2 * 2 + 1);
    measures_.push_back(edit);
    connect(edit, &MeasureEdit::changed, this, &NewAircraftPage::retell);
    setTabOrder(before, edit);
    before = edit;
  }
  setTabOrder(before, controller_);
}

NewAircraft NewAircraftPage::told() const {
  NewAircraft b;
  b.name = name_->text().trimmed().toStdString();
  b.kind = kind();
  b.motors = choices_->motors();
  b.propeller = choices_->propeller();
  b.ailerons_joined = choices_->joined();
  b.controller = controller_->currentData().toString().toStdString();
  if (b.controller == own_board) b.controller = "full_controller";
  b.span_m = span_->value();
  b.mass_kg = mass_->value();
  for (const MeasureEdit* m : measures_)
    if (m->value()) b.measures.emplace_back(m->member().name, *m->value());
  SaidDrive drive = drive_in_words(document_.catalogue(), drive_->text().toStdString());
  b.drive = drive.kinds;
  if (const int row = drives_->currentRow(); row >= 0 && row < static_cast<int>(proposed_.size()))
    b.drive = proposed_[static_cast<std::size_t>(row)].kinds;
  b.receiver = receiver_->currentData().toString().toStdString();
  b.others = std::move(drive.others);
  for (SaidPart& p : parts_in_words(document_.catalogue(), others_->text().toStdString()))
    b.others.push_back(std::move(p));
  if (const auto airframe = airframe_of(b)) b.servo = usual_servo(*airframe, document_.catalogue());
  return b;
}

void NewAircraftPage::retell() {
  const NewAircraft b = told();
  kind_words_->setText(said_of(facts_of(b.kind).name + ". " + facts_of(b.kind).sentence));
  QStringList problems;
  for (const MeasureEdit* m : {span_, mass_})
    if (!m->problem().isEmpty()) problems << m->accessibleName() + u": "_s + m->problem();
  for (const MeasureEdit* m : measures_)
    if (!m->problem().isEmpty()) problems << m->accessibleName() + u": "_s + m->problem();
  const auto airframe = airframe_of(b);
  if (!airframe) problems << said_of(airframe.error().text());
  problem_->setText(problems.join(QLatin1Char('\n')));
  begin_->setEnabled(problems.isEmpty());
  if (!airframe) return;
  NewAircraft unmeasured = b;
  unmeasured.mass_kg.reset();
  if (const auto guess = airframe_of(unmeasured)) mass_->set_guess(*guess->mass_kg);
  span_->set_guess(airframe->span_m);
  for (MeasureEdit* m : measures_)
    if (!m->value()) m->set_guess(*static_cast<const double*>(m->member().in(&*airframe)));
  Rig rig;
  rig.airframe = *airframe;
  const AirframeReport report = analyze_airframe(rig);
  above_->set_panels(report.panels);
  side_->set_panels(report.panels);
  QStringList figures;
  for (const Figure& f : report.figures()) figures << said_of(f.name) + QLatin1Char(' ') + Units::instance().figure(f);
  figures_->setText(figures.join(u"  ·  "_s));
  propose_drives();
}

void NewAircraftPage::propose_drives() {
  const NewAircraft b = told();
  const auto airframe = airframe_of(b);
  drive_words_->clear();
  if (!airframe) return;
  const SaidDrive said = drive_in_words(document_.catalogue(), drive_->text().toStdString());
  const QSignalBlocker quiet(drives_);
  drives_->clear();
  proposed_ = suggest_drives(*airframe, document_.catalogue(), said.kinds);
  QStringList remarks;
  for (const std::string& r : said.remarks) remarks << said_of(r) + QLatin1Char('.');
  const bool all = !said.kinds.motor.empty() && !said.kinds.propeller.empty() && !said.kinds.battery.empty();
  if (proposed_.empty() && (all || said.kinds != DriveKinds{})) {
    DriveChoice c = judge_drive(*airframe, document_.catalogue(), said.kinds);
    for (const std::string& w : c.wrong) remarks << said_of(capital(w)) + QLatin1Char('.');
    proposed_.push_back(std::move(c));
  }
  for (const DriveChoice& c : proposed_) {
    QStringList names;
    for (const std::string* id : {&c.kinds.motor, &c.kinds.propeller, &c.kinds.battery, &c.kinds.speed_controller})
      if (const PartKind* k = document_.catalogue().part(*id)) names << figures_of(*k);
    new QListWidgetItem(names.join(u" · "_s) + (c.words.empty() ? QString() : QLatin1Char('\n') + said_of(c.words)),
                        drives_);
  }
  auto* none =
      new QListWidgetItem(b.kind == AirframeKind::towed_glider ? u"No motor"_s : u"Not decided yet"_s, drives_);
  none->setToolTip(u"Can be added at station fit"_s);
  drives_->setCurrentRow(0);
  drive_words_->setText(remarks.join(QLatin1Char('\n')));
  drive_read_->setText(read_in_words(said.pieces, nullptr));
}

QString NewAircraftPage::read_in_words(const std::vector<SaidPart>& pieces, const ControllerClass* controller) const {
  QStringList read;
  for (const SaidPart& p : pieces) {
    QString line = u"“%1” → "_s.arg(said_of(p.said)) +
                   (p.kind ? (p.count > 1 ? u"%1 × "_s.arg(p.count) : QString()) + said_of(p.kind->name)
                           : u"not known, left out"_s);
    if (const std::string needed = controller && p.kind ? port_lacking(*controller, *p.kind) : ""; !needed.empty())
      line += u": this controller has no %1 for it"_s.arg(said_of(needed));
    if (!p.remark.empty()) line += u" (%1)"_s.arg(said_of(p.remark));
    read << line;
  }
  return read.join(u"  ·  "_s);
}

void NewAircraftPage::show_others() {
  const ControllerClass* controller =
      document_.catalogue().controller(controller_->currentData().toString().toStdString());
  others_words_->setText(
      read_in_words(parts_in_words(document_.catalogue(), others_->text().toStdString()), controller));
}

void NewAircraftPage::take() {
  auto edit = begin_rig(document_.catalogue(), told());
  if (!edit) {
    problem_->setText(said_of(edit.error().text()));
    return;
  }
  left_open_ = false;
  Q_EMIT begun(*edit);
}

void NewAircraftPage::show_next() {
  const Rig& rig = document_.rig();
  const QString name = document_.title();
  next_title_->setText(rig.parts.empty()
                           ? u"%1 is on paper. What next?"_s.arg(name)
                           : u"%1 is on paper: %2 parts have their place, %3 leads are planned. What next?"_s.arg(name)
                                 .arg(rig.parts.size())
                                 .arg(rig.leads.size()));
  on_paper_->set_panels(document_.review().reports.airframe().panels);
  while (QLayoutItem* item = next_->takeAt(0)) {
    if (item->widget()) item->widget()->deleteLater();
    delete item;
  }
  auto things = what_next(rig, document_.catalogue(), document_.review());
  if (controller_->currentData().toString() == QLatin1String(own_board)) {
    things.insert(things.begin(),
                  {"Describe your own board",
                   "Save the rig before: the board is kept in a file beside it. Until then the wiring is planned on a "
                   "class that is near.",
                   Station::wiring, "own_board", "To the board"});
    things.resize(3);
  }
  for (std::size_t i = 0; i < things.size(); ++i) {
    const NextThing& thing = things[i];
    auto* card = new QFrame;
    card->setProperty("card", true);
    auto* line = new QHBoxLayout(card);
    line->setContentsMargins(16, 12, 16, 12);
    line->setSpacing(16);
    auto* number = new QLabel(QString::number(i + 1));
    number->setFont(Style::instance().figures(20, true));
    line->addWidget(number, 0, Qt::AlignTop);
    auto* words = new QVBoxLayout;
    auto* what = wrapping_words(12, true);
    what->setText(said_of(thing.what));
    auto* why = wrapping_words(9.5);
    why->setProperty("soft", true);
    why->setText(said_of(thing.why));
    words->addWidget(what);
    words->addWidget(why);
    line->addLayout(words, 1);
    auto* go = hinted_button(said_of(thing.button), "", said_of(thing.what));
    go->setObjectName(u"next_%1"_s.arg(i + 1));
    go->setProperty("main", i == 0);
    go->setMinimumHeight(38);
    connect(go, &QPushButton::clicked, this,
            [this, station = thing.station, subject = said_of(thing.subject)] { Q_EMIT wanted(station, subject); });
    line->addWidget(go, 0, Qt::AlignVCenter);
    next_->addWidget(card);
    if (i == 0) go->setFocus(Qt::OtherFocusReason);
  }
  pages_->setCurrentIndex(1);
  if (auto* first = findChild<QPushButton*>(u"next_1"_s)) first->setFocus(Qt::OtherFocusReason);
}

}  // namespace rigging::app
