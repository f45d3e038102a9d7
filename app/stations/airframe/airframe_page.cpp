#include "stations/airframe/airframe_page.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>

#include "airframe/kinds.h"
#include "look/pieces.h"
#include "look/units.h"

namespace rigging::app {

AirframePage::AirframePage(const PageContext& context) : StationPage(Station::airframe, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(16);

  // Controls
  auto* controls = new QWidget;
  controls->setFixedWidth(278);
  auto* form = new QGridLayout(controls);
  form->setContentsMargins(0, 0, 0, 0);
  form->setHorizontalSpacing(8);
  form->setVerticalSpacing(4);
  form->setColumnStretch(0, 1);
  int row = 0;
  kind_ = new QComboBox;
  kind_->setObjectName(QStringLiteral("airframe_kind"));
  kind_->setAccessibleName(tr("Kind of airframe"));
  for (const auto& [kind, text] : Words<AirframeKind>::list)
    kind_->addItem(QString::fromStdString(facts_of(kind).name), static_cast<int>(kind));
  controller_ = new QComboBox;
  controller_->setObjectName(QStringLiteral("controller_kind"));
  controller_->setAccessibleName(tr("Controller class"));
  kind_words_ = new QLabel;
  controller_words_ = new QLabel;
  for (QLabel* l : {kind_words_, controller_words_}) {
    l->setWordWrap(true);
    l->setProperty("soft", true);
    l->setFont(Look::instance().text(9));
  }
  form->addWidget(kind_, row++, 0, 1, 2);
  form->addWidget(kind_words_, row++, 0, 1, 2);
  form->addWidget(controller_, row++, 0, 1, 2);
  form->addWidget(controller_words_, row++, 0, 1, 2);

  dimensions_ = {{tr("Span"), &Airframe::span_m, 0.1, 20, true, nullptr},
                 {tr("Chord at the root"), &Airframe::root_chord_m, 0.01, 20, true, nullptr},
                 {tr("Chord at the tip"), &Airframe::tip_chord_m, 0.01, 20, true, nullptr},
                 {tr("Leading edge sweep"), &Airframe::sweep_deg, -60, 75, false, nullptr},
                 {tr("Dihedral"), &Airframe::dihedral_deg, -30, 45, false, nullptr},
                 {tr("Length"), &Airframe::length_m, 0.1, 20, true, nullptr},
                 {tr("Nose to wing"), &Airframe::wing_at_m, 0, 20, true, nullptr},
                 {tr("Tail span"), &Airframe::tail_span_m, 0.01, 20, true, nullptr},
                 {tr("Tail chord"), &Airframe::tail_chord_m, 0.01, 20, true, nullptr},
                 {tr("Fin height"), &Airframe::fin_height_m, 0.01, 20, true, nullptr},
                 {tr("V-tail angle"), &Airframe::v_angle_deg, 5, 80, false, nullptr}};
  for (Dimension& d : dimensions_) {
    auto* box = number_box(QStringLiteral("dimension_%1").arg(&d - dimensions_.data()), d.label, 92);
    d.box = box;
    auto* label = new QLabel(d.label);
    label->setBuddy(box);
    form->addWidget(label, row, 0);
    form->addWidget(box, row++, 1);
    connect(box, &QDoubleSpinBox::valueChanged, this, [this, &d](double shown) {
      if (refreshing_) return;
      Rig rig = document_.rig();
      rig.airframe.*d.value = d.length ? Units::instance().length_in(shown) : shown;
      document_.edit(std::move(rig), tr("%1 changed").arg(d.label));
    });
  }
  mass_ = number_box(QStringLiteral("mass"), tr("Flying mass"), 92);
  mass_->setSpecialValueText(tr("not known"));
  form->addWidget(new QLabel(tr("Flying mass")), row, 0);
  form->addWidget(mass_, row++, 1);
  connect(mass_, &QDoubleSpinBox::valueChanged, this, [this](double shown) {
    if (refreshing_) return;
    Rig rig = document_.rig();
    const double kg = Units::instance().mass_in(shown);
    rig.airframe.mass_kg = shown <= mass_->minimum() ? std::nullopt : std::optional(std::max(kg, 0.02));
    document_.edit(std::move(rig), tr("Flying mass changed"));
  });
  form->setRowStretch(row, 1);
  page->addWidget(controls);

  // Drawing
  auto* middle = new QVBoxLayout;
  middle->setSpacing(4);
  auto* chooser = new QHBoxLayout;
  middle->addWidget(heading());
  auto* ask = new QLabel(tr("What answers"));
  ask->setProperty("soft", true);
  chooser->addWidget(ask);
  for (const Axis axis : all_axes) {
    auto* button = new QPushButton(axis == Axis::roll    ? tr("roll right")
                                   : axis == Axis::pitch ? tr("nose up")
                                                         : tr("nose right"));
    button->setCheckable(true);
    button->setObjectName(QStringLiteral("answers_") + QString::fromLatin1(word(axis).data()));
    axes_[static_cast<std::size_t>(index_of(axis))] = button;
    connect(button, &QPushButton::clicked, this, [this, axis](bool on) {
      shown_axis_ = on ? std::optional(axis) : std::nullopt;
      show_answers();
    });
    chooser->addWidget(button);
  }
  answer_words_ = new QLabel;
  answer_words_->setObjectName(QStringLiteral("answer_words"));
  answer_words_->setWordWrap(true);
  answer_words_->setFont(Look::instance().text(9));
  chooser->addWidget(answer_words_, 1);
  middle->addLayout(chooser);
  auto* views = new QGridLayout;
  above_ = new AircraftView(AircraftView::From::above);
  side_ = new AircraftView(AircraftView::From::side);
  front_ = new AircraftView(AircraftView::From::front);
  above_->set_caption(tr("From above · click a surface to set it"));
  side_->set_caption(tr("From the left"));
  front_->set_caption(tr("From the front"));
  for (AircraftView* view : {above_, side_, front_}) {
    view->set_pickable(true);
    connect(view, &AircraftView::picked, this,
            [this](Surface s) { Q_EMIT wanted(Station::surfaces, QString::fromStdString(s.word())); });
  }
  views->addWidget(above_, 0, 0, 1, 2);
  views->addWidget(side_, 1, 0);
  views->addWidget(front_, 1, 1);
  views->setRowStretch(0, 3);
  views->setRowStretch(1, 1);
  middle->addLayout(views, 1);
  figures_ = new QLabel;
  figures_->setObjectName(QStringLiteral("airframe_figures"));
  figures_->setTextFormat(Qt::RichText);
  figures_->setWordWrap(true);
  working_ = new QLabel;
  working_->setWordWrap(true);
  working_->setProperty("soft", true);
  working_->setFont(Look::instance().text(9));
  working_->hide();
  working_button_ = new QPushButton(tr("Show working"));
  working_button_->setCheckable(true);
  working_button_->setObjectName(QStringLiteral("show_working"));
  connect(working_button_, &QPushButton::toggled, this, [this](bool on) {
    working_->setVisible(on);
    working_button_->setText(on ? tr("Hide working") : tr("Show working"));
  });
  auto* foot = new QHBoxLayout;
  foot->addWidget(figures_, 1);
  foot->addWidget(working_button_, 0, Qt::AlignTop);
  middle->addLayout(foot);
  middle->addWidget(working_);
  page->addLayout(middle, 1);

  connect(kind_, &QComboBox::activated, this, [this] {
    const auto kind = static_cast<AirframeKind>(kind_->currentData().toInt());
    if (kind != document_.rig().airframe.kind)
      document_.edit(with_kind(document_.rig(), kind), tr("Airframe is now: %1").arg(kind_->currentText()));
  });
  connect(controller_, &QComboBox::activated, this, [this] {
    Rig rig = document_.rig();
    rig.controller.kind = controller_->currentData().toString().toStdString();
    rig.controller.firmware.clear();
    // Plugs go to sockets that the new class has, in order, where they can stay they stay.
    if (const ControllerClass* c = document_.catalogue().controller(rig.controller.kind)) {
      std::size_t next = 0;
      for (Output& o : rig.outputs) {
        if (c->socket(o.socket)) continue;
        o.socket.clear();
        for (; next < c->outputs.size() && o.socket.empty(); ++next)
          if (std::none_of(rig.outputs.begin(), rig.outputs.end(),
                           [&](const Output& x) { return x.socket == c->outputs[next].id; }))
            o.socket = c->outputs[next].id;
      }
    }
    document_.edit(std::move(rig), tr("Controller is now: %1").arg(controller_->currentText()));
  });
  connect(&Look::instance(), &Look::changed, this, [this] { refresh(); });
  refresh();
}

QWidget* AirframePage::first_focus() { return kind_; }

void AirframePage::go_to(const QString& subject) {
  if (subject == QLatin1String("airframe"))
    mass_->setFocus();
  else
    controller_->setFocus();
}

void AirframePage::show_answers() {
  std::map<Surface, int> arrows;
  QStringList words;
  for (std::size_t i = 0; i < axes_.size(); ++i)
    axes_[i]->setChecked(shown_axis_ && index_of(*shown_axis_) == static_cast<int>(i));
  if (shown_axis_)
    for (const AxisAnswer& a : document_.review().airframe.answers)
      if (a.axis == *shown_axis_) {
        arrows[a.surface] = a.direction;
        words << QString::fromStdString(a.surface.spoken() + " " + spoken_motion(a.surface, a.direction));
      }
  answer_words_->setText(!shown_axis_      ? tr("Choose a command to see which surfaces answer it, and which way.")
                         : words.isEmpty() ? tr("Nothing answers it.")
                                           : capital(words.join(QStringLiteral(", ")).toStdString()).c_str());
  for (AircraftView* view : {above_, side_, front_}) view->set_arrows(arrows);
}

void AirframePage::refresh() {
  refreshing_ = true;
  const Rig& rig = document_.rig();
  const Units& units = Units::instance();
  kind_->setCurrentIndex(kind_->findData(static_cast<int>(rig.airframe.kind)));
  kind_words_->setText(QString::fromStdString(facts_of(rig.airframe.kind).sentence));
  controller_->clear();
  for (const ControllerClass& c : document_.catalogue().controllers)
    controller_->addItem(QString::fromStdString(c.name), QString::fromStdString(c.id));
  controller_->setCurrentIndex(controller_->findData(QString::fromStdString(rig.controller.kind)));
  controller_words_->setText(document_.controller()
                                 ? QString::fromStdString(document_.controller()->summary)
                                 : tr("Not in the catalogue: %1").arg(QString::fromStdString(rig.controller.kind)));
  for (Dimension& d : dimensions_) {
    d.box->setDecimals(d.length ? (units.metric() ? 0 : 2) : 1);
    d.box->setSuffix(d.length ? QStringLiteral(" ") + units.length_unit() : QStringLiteral("°"));
    d.box->setRange(d.length ? units.length_out(d.least) : d.least, d.length ? units.length_out(d.most) : d.most);
    d.box->setValue(d.length ? units.length_out(rig.airframe.*d.value) : rig.airframe.*d.value);
  }
  mass_->setDecimals(units.metric() ? 0 : 1);
  mass_->setSuffix(QStringLiteral(" ") + units.mass_unit());
  mass_->setRange(0, units.mass_out(150));
  mass_->setValue(rig.airframe.mass_kg ? units.mass_out(*rig.airframe.mass_kg) : 0);

  const AirframeReport& report = document_.review().airframe;
  for (AircraftView* view : {above_, side_, front_}) view->set_panels(report.panels);
  QStringList figures, working;
  for (const Figure& f : report.figures()) {
    figures << QStringLiteral("<span style='color:%1'>%2</span>&nbsp;%3")
                   .arg(inks().soft.name(), QString::fromStdString(f.name),
                        units.figure(f)
                            .replace(QLatin1Char(' '), QStringLiteral("&nbsp;"))
                            .replace(QLatin1Char('/'), QStringLiteral("&#8288;/&#8288;")));
    working << QStringLiteral("%1 = %2   (%3)")
                   .arg(QString::fromStdString(f.name), QString::fromStdString(f.formula),
                        QString::fromStdString(f.source));
  }
  figures_->setText(figures.join(QStringLiteral(" &nbsp;·&nbsp; ")));
  working_->setText(working.join(QLatin1Char('\n')));
  show_answers();
  refreshing_ = false;
}

QList<Request> AirframePage::requests() {
  const bool mounted = document_.rig().controller.mounted;
  return {{mounted ? tr("The board lies loose on the bench") : tr("The board is mounted now"), tr("provisional mount"),
           [this] {
             Rig rig = document_.rig();
             rig.controller.mounted = !rig.controller.mounted;
             document_.edit(std::move(rig), rig.controller.mounted ? tr("Board mounted") : tr("Board loose"));
           }}};
}

}  // namespace rigging::app
