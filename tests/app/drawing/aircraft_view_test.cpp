#include <gtest/gtest.h>

#include <QImage>
#include <cmath>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "drawing/aircraft_view.h"
#include "look/literals.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(AircraftView, DrawsEveryKindFromEverySide) {
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const auto from : {AircraftView::From::side, AircraftView::From::above, AircraftView::From::front,
                            AircraftView::From::behind_above}) {
      AircraftView view(from);
      view.resize(400, 300);
      const QImage empty = picture(view);
      Airframe airframe;
      airframe.kind = kind;
      view.set_panels(aircraft_panels(airframe));
      const double drawn = difference(picture(view), empty);
      EXPECT_GT(drawn, 0.01) << name;
      EXPECT_LT(drawn, 0.9) << name;
    }
}

TEST(AircraftView, ShowsDeflectionPoseArrowsAndSelection) {
  AircraftView view(AircraftView::From::behind_above);
  view.resize(500, 350);
  Airframe airframe;
  view.set_panels(aircraft_panels(airframe));
  const Surface aileron{SurfaceKind::aileron, Side::left};
  QImage last = picture(view);
  const auto changed = [&](const char* what) {
    const QImage now = picture(view);
    EXPECT_GT(difference(now, last), 0.0005) << what;
    last = now;
  };
  view.set_deflections({{aileron, 20}});
  changed("deflection");
  view.set_arrows({{aileron, 1}});
  changed("arrow");
  view.set_arrows({{aileron, -1}});
  changed("arrow the other way");
  view.set_selected({aileron});
  changed("selection");
  view.set_pose(25, 0, 0);
  changed("bank");
  view.set_caption(u"What you should see"_s);
  changed("caption");
}

TEST(AircraftView, SurfacesCanBePointedAt) {
  AircraftView view(AircraftView::From::above);
  view.resize(500, 400);
  view.set_panels(aircraft_panels(Airframe{}));
  view.set_pickable(true);
  view.show();
  std::set<Surface> picked;
  QObject::connect(&view, &AircraftView::picked, [&](Surface s) { picked.insert(s); });
  for (int x = 5; x < 500; x += 7)
    for (int y = 5; y < 400; y += 7) {
      QTest::mouseMove(&view, QPoint(x, y));
      QTest::mouseClick(&view, Qt::LeftButton, {}, QPoint(x, y));
    }
  EXPECT_TRUE(picked.count({SurfaceKind::aileron, Side::left}));
  EXPECT_TRUE(picked.count({SurfaceKind::aileron, Side::right}));
  EXPECT_TRUE(picked.count({SurfaceKind::elevator, Side::single}));
}

TEST(AircraftView, DraggingTurnsItAndLettingGoSetsItDown) {
  AircraftView view(AircraftView::From::behind_above);
  view.resize(400, 300);
  view.set_dragging_turns(true);
  view.show();
  double roll = 0, pitch = 0;
  bool down = false;
  QObject::connect(&view, &AircraftView::turned, [&](double r, double p) { roll = r, pitch = p; });
  QObject::connect(&view, &AircraftView::released, [&] { down = true; });
  QTest::mousePress(&view, Qt::LeftButton, {}, QPoint(200, 150));
  QMouseEvent move(QEvent::MouseMove, QPointF(250, 130), view.mapToGlobal(QPointF(250, 130)), Qt::LeftButton,
                   Qt::LeftButton, {});
  QApplication::sendEvent(&view, &move);
  EXPECT_NEAR(roll, 30, 0.1);
  EXPECT_NEAR(pitch, 12, 0.1);
  QTest::mouseRelease(&view, Qt::LeftButton, {}, QPoint(250, 130));
  EXPECT_TRUE(down);
}

}  // namespace
}  // namespace rigging::app
