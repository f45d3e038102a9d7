#pragma once

#include <QFrame>

#include "document/rig_document.h"
#include "flight/control_effect.h"

class QLabel;

namespace rigging::app {

/// One output: where it is plugged, its weights, its reversal, and what it is sent. Built anew when the output changes.
class OutputRow : public QFrame {
  Q_OBJECT
 public:
  /// `effects`: how strongly each surface answers.
  OutputRow(RigDocument& document, const Output& output, const std::vector<Effect>& effects);
  void show_state(const OutputState& state);

 Q_SIGNALS:
  /// Why what was typed can't be.
  void refused(const QString& why);

 private:
  QWidget* degrees(const SurfaceAnswer& answer, MixCommand command, const QString& name);

  RigDocument& document_;
  QLabel* pulse_;
};

}  // namespace rigging::app
