#include <QDialog>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "base/alignment.h"
#include "fit/edits.h"
#include "look/html.h"
#include "look/literals.h"
#include "rig/ranges.h"
#include "stations/fit/fit_page.h"
#include "stations/fit/part_dialog.h"
#include "stations/fit/part_sheet.h"
#include "stations/numbers_dialog.h"

// The sheets that the page opens: a part to add, its figures, bay and place, small angles, what to get.
namespace rigging::app {

void FitPage::ask_for_part() {
  PartDialog dialog(document_, this);
  if (dialog.exec() == QDialog::Accepted && !dialog.chosen().empty()) add_part(dialog.chosen());
}

/// A kind of the builder's own is edited; a shipped one is the beginning of one's own, and the part is of that then.
void FitPage::ask_figures() {
  const std::string id = view_->selected();
  const PartKind* kind = kind_of(document_.rig(), document_.catalogue(), id);
  if (!kind || id == "controller") return;
  PartKind mine = *kind;
  if (!document_.is_own_part(mine.id)) {
    const std::string begun = "my_" + mine.id;
    mine.id = begun;
    for (int n = 2; document_.catalogue().part(mine.id); ++n) mine.id = begun + "_" + std::to_string(n);
    mine.name += ", mine";
    mine.basis = "the builder's own";
  }
  PartSheet sheet(mine, this);
  if (sheet.exec() != QDialog::Accepted) return;
  const auto made = sheet.made();
  if (!made) return;
  if (const auto ok = document_.keep_own_part(*made); !ok) {
    Q_EMIT document_.refused(QString::fromStdString(ok.error().text()));
    return;
  }
  const Part* part = document_.rig().part(id);
  if (part && part->kind != made->id)
    document_.apply(exchange_part(document_.rig(), document_.catalogue(), id, made->id));
}

void FitPage::ask_bay_and_place() {
  Fit fit = document_.rig().fit;
  Bay bay = fit.bay.value_or(Bay{});
  bool has_bay = fit.bay.has_value(), has_second = fit.second_bay.has_value();
  Bay second = fit.second_bay.value_or(Bay{});
  NumbersDialog dialog(u"Bay and place"_s,
                       u"The bay's middle line is the fuselage's. The static margin is the distance from balance to "
                       "neutral point as a share of the mean chord: more is calmer. The earth's field at the place "
                       "decides how near the compass may come to a lead."_s,
                       this);
  dialog.add("has_bay", u"The bay has been measured"_s, has_bay);
  dialog.add("bay_at", bay, &Bay::at_m, u"Front of the bay behind the nose"_s);
  dialog.add("bay_length", bay, &Bay::length_m);
  dialog.add("bay_width", bay, &Bay::width_m);
  dialog.add("bay_height", bay, &Bay::height_m);
  dialog.add("has_second", u"There is a second bay, behind it or under the wing"_s, has_second);
  dialog.add("second_at", second, &Bay::at_m, u"Front of the second bay behind the nose"_s);
  dialog.add("second_length", second, &Bay::length_m, u"Its length"_s);
  dialog.add("second_width", second, &Bay::width_m, u"Its width"_s);
  dialog.add("second_height", second, &Bay::height_m, u"Its height"_s);
  dialog.add("second_below", second, &Bay::below_m, u"Its middle below the fuselage's"_s);
  dialog.add("second_right", second, &Bay::right_m, u"Its middle right of the fuselage's"_s);
  const auto share = [](const QString& label) {
    return NumbersDialog::Number{label, u"%"_s, 100 * range::share.least, 100 * range::share.most, 1, 100};
  };
  dialog.add("static_margin", share(u"Wanted static margin"_s), fit.static_margin);
  dialog.add("first_forward", share(u"Further forward for the first flight"_s), fit.first_flight_forward);
  dialog.add("latitude", fit, &Fit::latitude_deg, u"not given"_s, u"Latitude, north positive"_s, 1);
  dialog.add("longitude", fit, &Fit::longitude_deg, u"not given"_s, u"Longitude, east positive"_s, 1);
  dialog.add("date", u"Date"_s, fit.date, u"year-month-day, or empty for the middle of 2027"_s);
  if (!dialog.ask()) return;
  fit.bay = has_bay ? std::optional(bay) : std::nullopt;
  fit.second_bay = has_second ? std::optional(second) : std::nullopt;
  const auto measured = measure_fit(document_.rig(), fit);
  if (!measured)
    balance_->setText(u"%1. Nothing was changed."_s.arg(QString::fromStdString(measured.error().text())));
  else if (fit != document_.rig().fit)
    document_.apply(measured);
}

void FitPage::ask_small_angles() {
  const Mounting* known = document_.rig().mounting(view_->selected());
  if (!known) return;
  Mounting p = *known;
  const auto m = alignment_matrix(p.turn, p.roll_deg, p.pitch_deg, p.yaw_deg);
  QString rows;
  for (const auto row : m.rowwise())
    rows += u"\n%1 %2 %3"_s.arg(row[0], 9, 'f', 4).arg(row[1], 9, 'f', 4).arg(row[2], 9, 'f', 4);
  rows.replace(QLatin1Char(' '), QChar(0x2007));  // as wide as a figure
  NumbersDialog dialog(
      u"How it sits"_s,
      u"On top of “%1”: right wing down, nose up and nose right are positive. A level calibration takes up a few "
      "degrees of roll and pitch, but none of yaw.\nAlignment now, model = matrix · board:%2"_s.arg(
          QString::fromStdString(p.turn.label()), rows),
      this);
  dialog.add("roll", p, &Mounting::roll_deg);
  dialog.add("pitch", p, &Mounting::pitch_deg);
  dialog.add("yaw", p, &Mounting::yaw_deg);
  if (dialog.ask() && !(p == *document_.rig().mounting(p.part)))
    document_.apply(put_part(document_.rig(), document_.catalogue(), p));
}

void FitPage::show_list_to_get() {
  QDialog dialog(this);
  dialog.setWindowTitle(u"To get before starting"_s);
  dialog.setObjectName(u"to_get_dialog"_s);
  dialog.resize(560, 480);
  auto* layout = new QVBoxLayout(&dialog);
  auto* text = new QTextBrowser;
  text->setObjectName(u"to_get_list"_s);
  Html rows;
  for (const ToGet& t : document_.review().reports.fit().to_get)
    rows += html(u"<tr><td align=right>%1 ×</td><td><b>%2</b></td><td>%3</td></tr>",
                 {std::to_string(t.count), t.what, t.why});
  text->setHtml(html(u"<table cellspacing=4>%1</table>", {rows}).marked());
  layout->addWidget(text);
  auto* close = new QPushButton(u"Close"_s);
  close->setObjectName(u"close"_s);
  connect(close, &QPushButton::clicked, &dialog, &QDialog::accept);
  layout->addWidget(close, 0, Qt::AlignRight);
  dialog.exec();
}

}  // namespace rigging::app
