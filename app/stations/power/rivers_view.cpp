#include "stations/power/rivers_view.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

constexpr double bar_w = 9, least_w = 1.4, name_room = 178;

QPainterPath stream(QPointF a, QPointF b, double width) {
  const double reach = (b.x() - a.x()) * 0.5;
  QPainterPath path(a + QPointF(0, -width / 2));
  path.cubicTo(a + QPointF(reach, -width / 2), b + QPointF(-reach, -width / 2), b + QPointF(0, -width / 2));
  path.lineTo(b + QPointF(0, width / 2));
  path.cubicTo(b + QPointF(-reach, width / 2), a + QPointF(reach, width / 2), a + QPointF(0, width / 2));
  path.closeSubpath();
  return path;
}

QString amps(double a) {
  return a < 0.095 ? u"%1 mA"_s.arg(1000 * a, 0, 'f', 0) : u"%1 A"_s.arg(a, 0, 'f', a < 9.95 ? 2 : 1);
}

}  // namespace

RiversView::RiversView(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(u"rivers_view"_s);
  setAccessibleName(u"Rails from sources to loads, as wide as the current"_s);
  setMouseTracking(true);
}

void RiversView::show(const PowerReport& report, const Solution& solution) {
  report_ = report;
  solution_ = solution;
  QStringList label;
  for (const SourceReport& s : report_.sources) label << QString::fromStdString(s.name + ": " + s.verdict);
  setAccessibleDescription(label.join(u"; "_s));
  update();
}

void RiversView::mousePressEvent(QMouseEvent* e) {
  for (const auto& [box, part] : targets_)
    if (box.contains(e->position())) Q_EMIT load_clicked(part);
}

void RiversView::mouseMoveEvent(QMouseEvent* e) {
  const bool on =
      std::any_of(targets_.begin(), targets_.end(), [&](const auto& t) { return t.first.contains(e->position()); });
  setCursor(on ? Qt::PointingHandCursor : Qt::ArrowCursor);
}

void RiversView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  targets_.clear();
  const Network& net = report_.network;
  if (net.draws.empty()) {
    p.setPen(inks().soft);
    p.drawText(rect(), Qt::AlignCenter, u"Nothing draws current yet."_s);
    return;
  }
  const std::size_t count = net.rails.size();
  std::vector<double> in_a(count, 0);
  for (std::size_t r = 0; r < count; ++r) in_a[r] = solution_.rails[r].amps;
  // How far each rail is from its source.
  std::vector<int> depth(count, 0);
  for (std::size_t pass = 0; pass < count; ++pass)
    for (std::size_t r = 0; r < count; ++r) {
      const RailState& s = solution_.rails[r];
      if (s.source < 0) continue;
      const Source& source = net.rails[r].sources[static_cast<std::size_t>(s.source)];
      if (!source.ideal && source.rail_before >= 0)
        depth[r] = std::min(8, depth[static_cast<std::size_t>(source.rail_before)] + 1);
    }
  // Rails that matter: those with a load or something fed onward.
  std::vector<bool> shown(count, false);
  for (const Draw& d : net.draws) shown[static_cast<std::size_t>(net.rail_of[static_cast<std::size_t>(d.node)])] = true;
  for (std::size_t r = 0; r < count; ++r)
    if (solution_.rails[r].source >= 0) {
      const Source& s = net.rails[r].sources[static_cast<std::size_t>(solution_.rails[r].source)];
      if (s.ideal && in_a[r] > 0) shown[r] = true;
      if (!s.ideal && shown[r]) shown[static_cast<std::size_t>(s.rail_before)] = true;
    }
  int deepest = 0;
  for (std::size_t r = 0; r < count; ++r)
    if (shown[r]) deepest = std::max(deepest, depth[r]);
  const double left = 96, right = width() - name_room;
  const double column = (right - left) / (deepest + 1.25);

  // The loads' rows decide everything else: one row each, in the order of their rails. Motors count as one load of the
  // battery.
  struct Row {
    int rail;
    std::string part, name;
    double amps;
    bool servo, stalled, dark;
  };
  std::vector<Row> rows;
  std::vector<std::size_t> order;
  for (std::size_t r = 0; r < count; ++r)
    if (shown[r]) order.push_back(r);
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return depth[a] > depth[b]; });
  for (const std::size_t r : order) {
    for (std::size_t i = 0; i < net.draws.size(); ++i) {
      const Draw& d = net.draws[i];
      if (net.rail_of[static_cast<std::size_t>(d.node)] != static_cast<int>(r)) continue;
      rows.push_back({static_cast<int>(r), d.part, part_name(document_.rig(), document_.catalogue(), d.part),
                      solution_.draw_a[i], d.servo,
                      d.servo && solution_.draw_a[i] >= d.load.most_a && d.load.most_a > 0, !solution_.rails[r].live});
    }
    const RailState& s = solution_.rails[r];
    if (s.drive_a > 0.05)
      rows.push_back({static_cast<int>(r), "", u"motor"_s.toStdString(), s.drive_a, false, false, false});
  }
  const double row_h = std::min(34.0, (height() - 44.0) / static_cast<double>(std::max<std::size_t>(1, rows.size())));
  double most = 0.05;
  for (const Row& r : rows)
    if (!r.part.empty()) most = std::max(most, r.amps);
  // The motor's river would drown the rest: drawn at the width of the largest other and marked as cut.
  const double per_amp = std::max(0.5, row_h * 0.78) / most;
  const auto wide = [&](double a) { return std::max(least_w, std::min(a, 2.2 * most) * per_amp); };

  // Rail bars stand at the middle of their rows.
  std::vector<double> middle(count, -1), total(count, 0);
  const double top = 26;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    const auto r = static_cast<std::size_t>(rows[i].rail);
    const double y = top + (static_cast<double>(i) + 0.5) * row_h;
    middle[r] = middle[r] < 0 ? y : middle[r] + y;
    total[r] += 1;
  }
  for (std::size_t r = 0; r < count; ++r)
    if (total[r] > 0) middle[r] /= total[r];
  // A rail that only feeds others stands between them.
  for (std::size_t pass = 0; pass < count; ++pass)
    for (std::size_t r = 0; r < count; ++r)
      if (shown[r] && middle[r] < 0) {
        double sum = 0;
        int n = 0;
        for (std::size_t q = 0; q < count; ++q)
          if (shown[q] && solution_.rails[q].source >= 0 && middle[q] >= 0 &&
              net.rails[q].sources[static_cast<std::size_t>(solution_.rails[q].source)].rail_before ==
                  static_cast<int>(r)) {
            sum += middle[q];
            ++n;
          }
        if (n > 0) middle[r] = sum / n;
      }
  const auto bar_x = [&](std::size_t r) { return left + column * depth[r]; };

  // Streams: rail to rail, then rail to load.
  for (std::size_t q = 0; q < count; ++q) {
    const RailState& t = solution_.rails[q];
    if (!shown[q] || t.source < 0) continue;
    const Source& s = net.rails[q].sources[static_cast<std::size_t>(t.source)];
    QColor ink = inks().slate;
    const auto from = static_cast<std::size_t>(std::max(0, s.rail_before));
    const QPointF a = s.ideal ? QPointF(left - 46, middle[q])
                              : QPointF(bar_x(from) + bar_w,
                                        middle[from] + std::clamp((middle[q] - middle[from]) * 0.12, -20.0, 20.0)),
                  b(bar_x(q), middle[q]);
    const SourceReport* report = nullptr;
    for (const SourceReport& sr : report_.sources)
      if (sr.part == s.part && sr.rail == net.rails[q].name) report = &sr;
    const bool over = report && report->rating_a > 0 && t.amps > report->rating_a;
    if (over) ink = inks().rust;
    ink.setAlphaF(0.55f);
    p.setPen(Qt::NoPen);
    p.setBrush(ink);
    p.drawPath(stream(a, b, wide(t.amps)));
    p.setPen(over ? inks().rust : inks().ink);
    p.setFont(Style::instance().text(8.5, over));
    const QString name = QString::fromStdString(capital(part_name(document_.rig(), document_.catalogue(), s.part)));
    const QString load =
        report && report->rating_a > 0 ? u"%1 of %2"_s.arg(amps(t.amps), amps(report->rating_a)) : amps(t.amps);
    const double above = std::max(wide(t.amps) / 2, 3.0) + 5;
    if (s.ideal) {
      p.drawText(QRectF(2, middle[q] - above - 34, 110, 16), Qt::AlignLeft | Qt::AlignBottom, name);
      p.setFont(Style::instance().figures(8.5));
      p.drawText(QRectF(2, middle[q] - above - 19, 110, 16), Qt::AlignLeft | Qt::AlignBottom,
                 u"%1 V"_s.arg(t.volts, 0, 'f', 2));
    } else {
      const double x = bar_x(q) - 118;
      p.drawText(QRectF(x, middle[q] - above - 30, 114, 15), Qt::AlignRight | Qt::AlignBottom, name);
      p.setFont(Style::instance().figures(8, over));
      p.drawText(QRectF(x, middle[q] - above - 16, 114, 15), Qt::AlignRight | Qt::AlignBottom, load);
    }
  }
  std::vector<double> leaving(count, 0);
  for (std::size_t i = 0; i < rows.size(); ++i) leaving[static_cast<std::size_t>(rows[i].rail)] += wide(rows[i].amps);
  std::vector<double> at(count, 0);
  for (std::size_t r = 0; r < count; ++r) at[r] = middle[r] - leaving[r] / 2;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    const Row& row = rows[i];
    const auto r = static_cast<std::size_t>(row.rail);
    const double w = wide(row.amps), y = top + (static_cast<double>(i) + 0.5) * row_h;
    QColor ink = row.stalled ? inks().rust : inks().teal;
    ink.setAlphaF(row.stalled ? 0.75f : 0.5f);
    if (row.dark) {
      p.setPen(QPen(inks().soft, 1, Qt::DotLine));
      p.setBrush(Qt::NoBrush);
      p.drawLine(QPointF(right - 40, y), QPointF(right, y));
    } else {
      p.setPen(Qt::NoPen);
      p.setBrush(ink);
      p.drawPath(stream({bar_x(r) + bar_w, at[r] + w / 2}, {right, y}, w));
      if (row.part.empty()) {
        p.setPen(QPen(inks().sheet, 2));
        p.drawLine(QPointF(right - 16, y - w / 2 - 2), QPointF(right - 22, y + w / 2 + 2));
        p.drawLine(QPointF(right - 12, y - w / 2 - 2), QPointF(right - 18, y + w / 2 + 2));
      }
    }
    at[r] += w;
    const QRectF label(right + 5, y - row_h / 2, name_room - 6, row_h);
    p.setPen(row.dark ? inks().soft : row.stalled ? inks().rust : inks().ink);
    p.setFont(Style::instance().text(8.5, row.stalled));
    const QString name = QString::fromStdString(capital(row.name));
    p.drawText(label.adjusted(0, 0, -54, 0), Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetrics(p.font()).elidedText(name, Qt::ElideMiddle, static_cast<int>(label.width()) - 56));
    p.setFont(Style::instance().figures(8.5, row.stalled));
    p.drawText(label, Qt::AlignRight | Qt::AlignVCenter, row.dark ? u"dark"_s : amps(row.amps));
    if (row.servo) targets_.emplace_back(label.adjusted(-60, 0, 0, 0), row.part);
  }
  for (const std::size_t r : order) {
    const double h = std::max({14.0, leaving[r] + 6, wide(in_a[r])});
    const bool live = solution_.rails[r].live;
    p.setPen(QPen(live ? inks().ink : inks().soft, 1.2, live ? Qt::SolidLine : Qt::DashLine));
    p.setBrush(live ? inks().ink : inks().paper);
    p.drawRect(QRectF(bar_x(r), middle[r] - h / 2, bar_w, h));
    p.setPen(live ? inks().ink : inks().soft);
    p.setFont(Style::instance().text(8.5, true));
    const QString name = QString::fromStdString(net.rails[r].name) +
                         (live ? u"  %1 V"_s.arg(solution_.rails[r].volts, 0, 'f', 2) : u"  dark"_s);
    const bool first = depth[r] == 0;
    if (!(first && net.rails[r].name == "battery"))
      p.drawText(QRectF(bar_x(r) - 60, middle[r] + h / 2 + 1, 190, 15), Qt::AlignLeft | Qt::AlignTop, name);
  }
}

}  // namespace rigging::app
