#pragma once

#include <QList>
#include <QString>

#include "document/rig_document.h"
#include "sheets/hand_card_sheet.h"

namespace rigging::app {

/// A sheet as core/sheets draws it, with what it is.
struct Sheet {
  QString title;
  QString svg;
};

/// Hand cards drawn for this rig.
QList<Sheet> hand_card_sheets(const RigDocument& document, const std::vector<HandCard>& cards);
/// Wiring drawing and plug list of this rig.
QList<Sheet> wiring_sheets(const RigDocument& document);
/// Wedge, balance marks and throw gauges of this rig, true to scale.
QList<Sheet> gauge_sheets(const RigDocument& document);
/// What to set in the transmitter and on the model.
QList<Sheet> setting_sheets(const RigDocument& document);

}  // namespace rigging::app
