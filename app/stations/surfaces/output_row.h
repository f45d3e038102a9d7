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
  OutputRow(RigDocument& document, const Output& output);
  void show_state(const OutputState& state);
  /// How strongly each surface answers, as soon as it is known.
  void show_effects(const std::vector<Effect>& effects);

 Q_SIGNALS:
  /// Why what was typed can't be.
  void refused(const QString& why);

 private:
  QWidget* degrees(const SurfaceAnswer& answer, MixCommand command, const QString& name);

  RigDocument& document_;
  QLabel* pulse_;
  std::vector<SurfaceName> surfaces_;
  std::vector<std::pair<Axis, QLabel*>> captions_;
};

}  // namespace rigging::app
