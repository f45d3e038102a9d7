#include "drawing/rig_sheets.h"

#include <QObject>

#include "direction/from_rig.h"
#include "look/literals.h"
#include "sheets/gauge_sheets.h"
#include "sheets/setting_card.h"
#include "sheets/wiring_sheets.h"

namespace rigging::app {
namespace {

/// Pages with a title of their own for the first, and a number for the others.
QList<Sheet> numbered(const std::vector<std::string>& pages, const QString& first, const QString& others) {
  QList<Sheet> sheets;
  for (const std::string& page : pages)
    sheets << Sheet{sheets.isEmpty() ? first : others.arg(sheets.size()), QString::fromStdString(page)};
  return sheets;
}

}  // namespace

QList<Sheet> hand_card_sheets(const RigDocument& document, const std::vector<HandCard>& cards) {
  QList<Sheet> sheets;
  const ControllerClass* controller = document.controller();
  if (!controller) return sheets;
  const auto looks = direction::case_from_rig(document.rig(), *controller);
  for (const HandCard& card : cards)
    sheets << Sheet{QString::fromStdString(card.title),
                    QString::fromStdString(hand_card_svg(card, document.rig(), *controller, looks))};
  return sheets;
}

QList<Sheet> wiring_sheets(const RigDocument& document) {
  const QString drawing = QString::fromStdString(wiring_drawing_svg(document.rig(), document.catalogue()));
  return QList<Sheet>{{u"Wiring drawing"_s, drawing}} +
         numbered(plug_list_svg(document.rig(), document.catalogue()), u"Plug list"_s, u"Plug list, page %1"_s);
}

QList<Sheet> gauge_sheets(const RigDocument& document) {
  return numbered(gauge_sheets_svg({document.rig(), document.catalogue()}), u"Wedge and balance marks"_s,
                  u"Throw gauges %1"_s);
}

QList<Sheet> setting_sheets(const RigDocument& document) {
  return numbered(setting_card_svg(document.rig(), document.catalogue()), u"Settings card"_s,
                  u"Settings card, page %1"_s);
}

}  // namespace rigging::app
