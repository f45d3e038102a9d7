#include <gtest/gtest.h>

#include "base/json.h"
#include "bench_builder.h"
#include "look/literals.h"
#include "look/look.h"
#include "stations/surfaces/linkage_view.h"

namespace rigging::app {
namespace {

TEST(LinkageView, ShowsAndDragsBothHoles) {
  LinkageView view;
  view.resize(560, 320);
  view.show();
  Linkage l;
  l.surface = *surface_from_name("elevator");
  Output o;
  o.surfaces = {l.surface};
  o.mix.pitch = 1;
  view.set_linkage(l, o, 0.05, 1500, u"as measured"_s);
  EXPECT_GT(pixels(view, inks().ink), 200);
  double arm = 0, horn = 0;
  int let_go = 0;
  QObject::connect(&view, &LinkageView::dragged, &view, [&](double a, double h) {
    arm = a;
    horn = h;
    Linkage other = l;
    other.arm_m = a;
    other.horn_m = h;
    view.set_linkage(other, o, 0.05, 1500, u"as measured"_s);
  });
  QObject::connect(&view, &LinkageView::let_go, &view, [&] { ++let_go; });
  const QPoint at = view.grip(LinkageView::Grip::horn).toPoint();
  QTest::mousePress(&view, Qt::LeftButton, {}, at);
  QMouseEvent move(QEvent::MouseMove, QPointF(at + QPoint(0, 14)), view.mapToGlobal(QPointF(at + QPoint(0, 14))),
                   Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(&view, &move);
  QTest::mouseRelease(&view, Qt::LeftButton, {}, at + QPoint(0, 14));
  EXPECT_GT(horn, l.horn_m) << "pulled away from the hinge";
  EXPECT_EQ(arm, l.arm_m);
  EXPECT_EQ(let_go, 1);
  l.rod_m = 0.002;
  l.drop_m = 0.05;
  view.set_linkage(l, o, 0.05, 1500, u"as measured"_s);
  EXPECT_GT(pixels(view, inks().soft), 20) << "what can't be built is said in words";
}

}  // namespace
}  // namespace rigging::app
