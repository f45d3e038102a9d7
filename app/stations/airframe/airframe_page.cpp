#include "stations/airframe/airframe_page.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QEvent>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>

#include "airframe/airframe.h"
#include "airframe/edits.h"
#include "airframe/kinds.h"
#include "drawing/motor_choices.h"
#include "edit/edit.h"
#include "look/html.h"
#include "look/literals.h"
#include "look/member_box.h"
#include "look/pieces.h"
#include "look/side_scroll.h"
#include "look/units.h"
#include "rig/path.h"
#include "stations/airframe/class_dialog.h"

namespace rigging::app {

AirframePage::AirframePage(const PageContext& context) : StationPage(Station::airframe, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(16);

  page->addWidget(new SideScroll(284, make_controls()));  // on a small screen the sizes scroll
  auto* middle = new QVBoxLayout;
  middle->setSpacing(4);
  middle->addWidget(heading());
  middle->addLayout(make_answer_keys());
  middle->addLayout(make_views(), 1);
  middle->addLayout(make_foot());
  middle->addWidget(working_);
  page->addLayout(middle, 1);
  connect(&Style::instance(), &Style::changed, this, [this] { refresh(); });
  refresh();
}

QWidget* AirframePage::make_controls() {
  auto* controls = new QWidget;
  auto* form = new QGridLayout(controls);
  form->setContentsMargins(0, 0, 0, 0);
  form->setHorizontalSpacing(8);
  form->setVerticalSpacing(4);
  form->setColumnStretch(0, 1);
  make_choices(*form);
  describe_dimensions();
  make_sizes(*form);
  form->setRowStretch(form->rowCount(), 1);
  for (auto* child : controls->findChildren<QWidget*>())
    if (qobject_cast<QAbstractSpinBox*>(child) || qobject_cast<QComboBox*>(child)) {
      child->setFocusPolicy(Qt::StrongFocus);
      child->installEventFilter(this);
    }
  return controls;
}

void AirframePage::make_choices(QGridLayout& form) {
  int row = 0;
  kind_ = new QComboBox;
  kind_->setObjectName(u"airframe_kind"_s);
  kind_->setAccessibleName(u"Kind of airframe"_s);
  for (const auto& [kind, text] : Names<AirframeKind>::list)
    kind_->addItem(QString::fromStdString(facts_of(kind).name), static_cast<int>(kind));
  choices_ = new MotorChoices(u"airframe"_s);
  controller_ = new QComboBox;
  controller_->setObjectName(u"controller_kind"_s);
  controller_->setAccessibleName(u"Controller class"_s);
  for (QComboBox* box : {kind_, controller_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(12);
  }
  kind_words_ = new QLabel;
  controller_words_ = new QLabel;
  for (QLabel* l : {kind_words_, controller_words_}) {
    l->setWordWrap(true);
    l->setProperty("soft", true);
    l->setFont(Style::instance().text(9));
  }
  form.addWidget(kind_, row++, 0, 1, 2);
  form.addWidget(kind_words_, row++, 0, 1, 2);
  form.addWidget(choices_, row++, 0, 1, 2);
  form.addWidget(controller_, row++, 0, 1, 2);
  form.addWidget(controller_words_, row++, 0, 1, 2);
  auto* compare = hinted_button(u"Classes side by side…"_s, "compare_classes",
                                u"For this aircraft: room, sensors, what is lost, what it costs in the work"_s);
  form.addWidget(compare, row++, 0, 1, 2);
  connect(compare, &QPushButton::clicked, this, &AirframePage::compare_classes);
  connect(choices_, &MotorChoices::motors_chosen, this, [this](Motors motors) {
    if (motors != document_.rig().airframe.motors)
      document_.apply(change_motors(document_.rig(), document_.catalogue(), motors));
  });
  connect(choices_, &MotorChoices::propeller_chosen, this, [this](PropellerSide side) {
    if (side != document_.rig().airframe.propeller) document_.apply(turn_propeller(document_.rig(), side));
  });
  connect(choices_, &MotorChoices::joined_chosen, this,
          [this](bool on) { document_.apply(join_ailerons(document_.rig(), document_.catalogue(), on)); });
  connect(kind_, &QComboBox::activated, this, [this] {
    const auto kind = static_cast<AirframeKind>(kind_->currentData().toInt());
    if (kind != document_.rig().airframe.kind)
      document_.apply(change_kind(document_.rig(), document_.catalogue(), kind));
  });
  connect(controller_, &QComboBox::activated, this, [this] {
    document_.apply(
        change_class(document_.rig(), document_.catalogue(), controller_->currentData().toString().toStdString()));
  });
}

void AirframePage::compare_classes() {
  ClassDialog dialog(class_choices(document_.rig(), document_.catalogue()), this);
  if (dialog.exec() != QDialog::Accepted) return;
  document_.apply(change_class(document_.rig(), document_.catalogue(), dialog.chosen()));
}

void AirframePage::describe_dimensions() {
  const auto plain = [&](double Airframe::*value, bool (*of)(AirframeKind) = nullptr) {
    dimensions_.push_back({member_of(value), [value](const Airframe& f, const Planform&) { return f.*value; }, of});
  };
  const auto usual = [&](std::optional<double> Airframe::*value, auto guess, bool (*of)(AirframeKind)) {
    dimensions_.push_back(
        {member_of(value),
         [value, guess](const Airframe& f, const Planform& p) { return (f.*value).value_or(guess(p)); }, of});
  };
  const auto tail_or_foreplane = [](AirframeKind k) { return has_tail(k) || has_foreplane(k); };
  const auto upright_fin = [](AirframeKind k) { return !has_v(k); };
  for (double Airframe::*value :
       {&Airframe::span_m, &Airframe::root_chord_m, &Airframe::tip_chord_m, &Airframe::sweep_deg,
        &Airframe::dihedral_deg, &Airframe::length_m, &Airframe::wing_at_m})
    plain(value);
  plain(&Airframe::tail_span_m, tail_or_foreplane);
  plain(&Airframe::tail_chord_m, tail_or_foreplane);
  usual(
      &Airframe::tail_tip_chord_m, [](const Planform& p) { return p.tail ? p.tail->tip_chord_m : 0; }, has_tail);
  usual(
      &Airframe::tail_at_m, [](const Planform& p) { return p.tail ? -p.tail->root.x() : 0; }, has_tail);
  const auto fore = [](auto size) {
    return [size](const Planform& p) { return p.foreplane ? size(*p.foreplane) : 0; };
  };
  usual(&Airframe::foreplane_span_m, fore([](const HalfSurface& h) { return h.span_m(); }), has_foreplane);
  usual(&Airframe::foreplane_chord_m, fore([](const HalfSurface& h) { return h.root_chord_m; }), has_foreplane);
  usual(&Airframe::foreplane_tip_chord_m, fore([](const HalfSurface& h) { return h.tip_chord_m; }), has_foreplane);
  usual(&Airframe::foreplane_at_m, fore([](const HalfSurface& h) { return -h.root.x(); }), has_foreplane);
  plain(&Airframe::fin_height_m, upright_fin);
  plain(&Airframe::v_angle_deg, has_v);
}

void AirframePage::make_sizes(QGridLayout& form) {
  int row = form.rowCount();
  for (Dimension& d : dimensions_) {
    const QString name = spoken_label(d.member);
    d.box = number_box(u"dimension_"_s + QLatin1String(d.member.name), name, 92);
    d.label = new QLabel(name);
    d.label->setBuddy(d.box);
    form.addWidget(d.label, row, 0);
    form.addWidget(d.box, row++, 1);
    connect(d.box, &QDoubleSpinBox::valueChanged, this, [this, &d](double shown) {
      if (refreshing_) return;
      document_.apply(measure(document_.rig(), d.member.name, stored_value(d.member, shown)));
    });
    finish(d.box, d.member.name);
  }
  v_span_ = new QComboBox;
  v_span_->setObjectName(u"v_span"_s);
  v_span_->addItem(u"from above"_s, u"from_above"_s);
  v_span_->addItem(u"along the panels"_s, u"along_panels"_s);
  v_span_label_ = new QLabel(u"V span measured"_s);
  v_span_label_->setBuddy(v_span_);
  form.addWidget(v_span_label_, row, 0);
  form.addWidget(v_span_, row++, 1);
  connect(v_span_, &QComboBox::activated, this, [this] {
    document_.apply(set_value(document_.rig(), "airframe/v_span", v_span_->currentData().toString().toStdString()));
  });
  mass_ = number_box(u"mass"_s, u"Flying mass"_s, 92);
  mass_->setSpecialValueText(u"not known"_s);
  form.addWidget(new QLabel(u"Flying mass"_s), row, 0);
  form.addWidget(mass_, row++, 1);
  connect(mass_, &QDoubleSpinBox::valueChanged, this, [this](double shown) {
    if (refreshing_) return;
    std::optional<double> kg;
    if (shown > mass_->minimum())
      kg = std::max(Units::instance().mass_in(shown), member_of(&Airframe::mass_kg).span.least);
    document_.apply(measure(document_.rig(), "mass_kg", kg));
  });
  finish(mass_, "mass_kg");
}

QLayout* AirframePage::make_answer_keys() {
  auto* chooser = new QHBoxLayout;
  auto* ask = new QLabel(u"What answers"_s);
  ask->setProperty("soft", true);
  chooser->addWidget(ask);
  for (const Axis axis : all_axes) {
    auto* button = new QPushButton(axis == Axis::roll    ? u"roll right"_s
                                   : axis == Axis::pitch ? u"nose up"_s
                                                         : u"nose right"_s);
    button->setCheckable(true);
    button->setObjectName(u"answers_"_s + QString::fromLatin1(name_of(axis).data()));
    axes_[static_cast<std::size_t>(index_of(axis))] = button;
    connect(button, &QPushButton::clicked, this, [this, axis](bool on) {
      shown_axis_ = on ? std::optional(axis) : std::nullopt;
      show_answers();
    });
    chooser->addWidget(button);
  }
  answer_words_ = new QLabel;
  answer_words_->setObjectName(u"answer_words"_s);
  answer_words_->setWordWrap(true);
  answer_words_->setFont(Style::instance().text(9));
  chooser->addWidget(answer_words_, 1);
  return chooser;
}

QLayout* AirframePage::make_views() {
  auto* views = new QGridLayout;
  above_ = new AircraftView(AircraftView::From::above);
  side_ = new AircraftView(AircraftView::From::side);
  front_ = new AircraftView(AircraftView::From::front);
  above_->set_caption(u"From above · drag a ring to change a size, click a surface to set it"_s);
  side_->set_caption(u"From the left"_s);
  front_->set_caption(u"From the front"_s);
  for (AircraftView* view : {above_, side_, front_}) {
    view->set_pickable(true);
    connect(view, &AircraftView::picked, this,
            [this](Surface s) { Q_EMIT wanted(Station::surfaces, QString::fromStdString(s.name())); });
  }
  connect(above_, &AircraftView::handle_dragged, this, &AirframePage::drag_outline);
  connect(above_, &AircraftView::handle_let_go, this, [this] {
    if (const auto done = std::exchange(dragged_, std::nullopt))
      document_.apply(measure(document_.rig(), done->first, done->second));
    else
      refresh();
  });
  views->addWidget(above_, 0, 0, 1, 2);
  views->addWidget(side_, 1, 0);
  views->addWidget(front_, 1, 1);
  views->setRowStretch(0, 3);
  views->setRowStretch(1, 1);
  return views;
}

QLayout* AirframePage::make_foot() {
  figures_ = new QLabel;
  figures_->setObjectName(u"airframe_figures"_s);
  figures_->setWordWrap(true);
  working_ = new QLabel;
  working_->setWordWrap(true);
  working_->setProperty("soft", true);
  working_->setFont(Style::instance().text(9));
  working_->hide();
  working_button_ = new QPushButton(u"Show working"_s);
  working_button_->setCheckable(true);
  working_button_->setObjectName(u"show_working"_s);
  connect(working_button_, &QPushButton::toggled, this, [this](bool on) {
    working_->setVisible(on);
    working_button_->setText(on ? u"Hide working"_s : u"Show working"_s);
  });
  auto* foot = new QHBoxLayout;
  foot->addWidget(figures_, 1);
  foot->addWidget(working_button_, 0, Qt::AlignTop);
  return foot;
}

void AirframePage::finish(NumberBox* box, const char* member) {
  connect(box, &QDoubleSpinBox::editingFinished, this, [this, box, member] {
    // A guess that is typed as it stands is measured, too.
    const auto& guessed = document_.rig().airframe.guessed;
    if (box->take_typed() && std::find(guessed.begin(), guessed.end(), member) != guessed.end())
      document_.apply(
          measure(document_.rig(), member, std::get<double>(value_at(document_.rig(), path_of({"airframe", member})))));
  });
}

bool AirframePage::eventFilter(QObject* watched, QEvent* event) {
  const auto* widget = qobject_cast<QWidget*>(watched);
  if (event->type() != QEvent::Wheel || !widget || widget->hasFocus()) return StationPage::eventFilter(watched, event);
  event->ignore();
  return true;
}

/// Shows what the measure would be, and the aircraft with it; nothing is changed before the hand lets go.
void AirframePage::drag_outline(int handle, double forward_m, double right_m) {
  const OutlineHandle& h = handles_[static_cast<std::size_t>(handle)];
  const auto d = std::find_if(dimensions_.begin(), dimensions_.end(),
                              [&](const Dimension& x) { return h.member == x.member.name; });
  if (d == dimensions_.end()) return;
  const Airframe& airframe = document_.rig().airframe;
  const bool angle = h.member == "sweep_deg";
  const double step = angle ? 0.1 : 0.001;
  const double value =
      std::clamp(std::round(h.dragged(d->value(airframe, planform_of(airframe)), {forward_m, right_m}) / step) * step,
                 d->member.span.least, d->member.span.most);
  const auto changed = measure(document_.rig(), h.member, value);
  if (!changed) return;
  dragged_ = {h.member, value};
  refreshing_ = true;
  show_member(*d->box, d->member, value);
  refreshing_ = false;
  above_->set_held_words(d->label->text() + QLatin1Char(' ') + d->box->text());
  const std::vector<Panel> panels = aircraft_panels(changed->rig.airframe);
  for (AircraftView* view : {above_, side_, front_}) view->set_panels(panels);
  show_handles(changed->rig.airframe);
}

void AirframePage::show_handles(const Airframe& airframe) {
  // Held, the handles keep their order: what they are is settled before the drag, where they are follows it.
  const std::vector<OutlineHandle> now = outline_handles(airframe);
  if (!dragged_) handles_ = now;
  std::vector<AircraftView::Handle> shown;
  for (const OutlineHandle& h : handles_) {
    const auto at = std::find_if(now.begin(), now.end(), [&](const OutlineHandle& x) { return x.member == h.member; });
    const auto d = std::find_if(dimensions_.begin(), dimensions_.end(),
                                [&](const Dimension& x) { return h.member == x.member.name; });
    shown.push_back({d == dimensions_.end() ? QString() : d->label->text() + QLatin1Char(' ') + d->box->text(),
                     at == now.end() ? h.at : at->at});
  }
  above_->set_handles(std::move(shown));
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
    for (const AxisAnswer& a : document_.review().reports.airframe().answers)
      if (a.axis == *shown_axis_) {
        arrows[a.surface] = a.direction;
        words << QString::fromStdString(a.surface.label() + " " + motion_label(a.surface, a.direction));
      }
  answer_words_->setText(!shown_axis_      ? u"Choose a command to see which surfaces answer it, and which way."_s
                         : words.isEmpty() ? u"Nothing answers it."_s
                                           : capital(words.join(u", "_s).toStdString()).c_str());
  for (AircraftView* view : {above_, side_, front_}) view->set_arrows(arrows);
}

void AirframePage::refresh() {
  refreshing_ = true;
  const Rig& rig = document_.rig();
  const Units& units = Units::instance();
  kind_->setCurrentIndex(kind_->findData(static_cast<int>(rig.airframe.kind)));
  kind_words_->setText(QString::fromStdString(facts_of(rig.airframe.kind).sentence));
  choices_->show_airframe(rig.airframe);
  controller_->clear();
  for (const ControllerClass& c : document_.catalogue().controllers)
    controller_->addItem(QString::fromStdString(c.name), QString::fromStdString(c.id));
  controller_->setCurrentIndex(controller_->findData(QString::fromStdString(rig.controller.kind)));
  controller_->setToolTip(controller_->currentText());
  controller_words_->setText(document_.controller()
                                 ? QString::fromStdString(document_.controller()->summary)
                                 : u"Not in the catalogue: %1"_s.arg(QString::fromStdString(rig.controller.kind)));
  const Planform planform = planform_of(rig.airframe);
  const auto guessed = [&](const std::string& name) {
    const auto& own = rig.airframe.guessed;
    return std::find(planform.guessed.begin(), planform.guessed.end(), name) != planform.guessed.end() ||
           std::find(own.begin(), own.end(), name) != own.end();
  };
  const auto show_guess = [](QDoubleSpinBox& box, bool guess) {
    box.setPrefix(guess ? u"≈ "_s : QString());
    box.setToolTip(guess ? u"Follows from the other sizes by usual proportions until you measure it"_s : QString());
  };
  for (Dimension& d : dimensions_) {
    const bool has = !d.of || d.of(rig.airframe.kind);
    d.box->setVisible(has);
    d.label->setVisible(has);
    if (!has) continue;
    show_member(*d.box, d.member, d.value(rig.airframe, planform));
    show_guess(*d.box, guessed(d.member.name));
  }
  show_guess(*mass_, guessed("mass_kg"));
  v_span_->setVisible(has_v(rig.airframe.kind));
  v_span_label_->setVisible(has_v(rig.airframe.kind));
  v_span_->setCurrentIndex(v_span_->findData(QString::fromLatin1(name_of(rig.airframe.v_span).data())));
  show_member_or_unknown(*mass_, member_of(&Airframe::mass_kg), rig.airframe.mass_kg);

  const AirframeReport& report = document_.review().reports.airframe();
  for (AircraftView* view : {above_, side_, front_}) view->set_panels(report.panels);
  dragged_.reset();
  show_handles(rig.airframe);
  QList<Html> figures;
  QStringList working;
  const auto add = [&figures](const std::string& name, QString value) {
    // A value is not broken.
    value.replace(QLatin1Char(' '), QChar::Nbsp).replace(QLatin1Char('/'), u"\u2060/\u2060"_s);
    figures << html(u"<span style='color:%1'>%2</span>\u00a0%3", {inks().soft.name(), name, value});
  };
  for (const Figure& f : report.figures()) {
    add(f.name, units.figure(f));
    working << u"%1 = %2   (%3)"_s.arg(QString::fromStdString(f.name), QString::fromStdString(f.formula),
                                       QString::fromStdString(f.source));
  }
  for (const SurfaceSize& size : report.surfaces) {
    if (size.name != "wing") add(capital(size.name) + " area", units.figure({"", size.area_m2, "m²", {}, {}, "", ""}));
    working << u"%1: span %2, chord %3 to %4, leading edge at the root %5 behind the nose, %6 % of the lift%7"_s
                   .arg(QString::fromStdString(capital(size.name)), QString::fromStdString(length_text(size.span_m)),
                        QString::fromStdString(length_text(size.root_chord_m)),
                        QString::fromStdString(length_text(size.tip_chord_m)),
                        QString::fromStdString(length_text(size.at_m)))
                   .arg(100 * size.lift_share, 0, 'f', 0)
                   .arg(size.guessed ? u" (partly by usual proportions)"_s : QString());
  }
  show_html(figures_, joined(figures, u" \u00a0·\u00a0 "_s));
  working_->setText(working.join(QLatin1Char('\n')));
  show_answers();
  refreshing_ = false;
}

QList<NamedAction> AirframePage::named_actions() {
  const bool mounted = document_.rig().controller.mounted;
  return {{mounted ? u"The board lies loose on the bench"_s : u"The board is mounted now"_s, u"provisional mount"_s,
           [this] { document_.apply(mount_board(document_.rig(), !document_.rig().controller.mounted)); },
           NamedAction::Does::changes_rig, u"mounted mount loose lies provisional"_s},
          {u"Classes side by side"_s, u"compare classes which suits"_s, [this] {
             come_here();
             compare_classes();
           }}};
}

}  // namespace rigging::app
