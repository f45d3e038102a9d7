#pragma once

#include <QFrame>

#include "document/rig_document.h"
#include "flight/control_effect.h"

class QDoubleSpinBox;
class QLabel;

namespace rigging::app {

class ShareBar;

/// One output: where it is plugged, its weights, its reversal, and what it is sent. Built anew when the output changes.
class OutputRow : public QFrame {
  Q_OBJECT
 public:
  OutputRow(RigDocument& document, const Output& output);
  void show_state(const OutputState& state);
  /// How strongly each surface answers, as soon as it is known.
  void show_effects(const std::vector<Effect>& effects);
  /// The weights of a rig that is being tried, while a bar is pulled.
  void show_weights(const Rig& rig);

 Q_SIGNALS:
  /// Why what was typed can't be.
  void refused(const QString& why);
  /// A bar is being pulled: nothing is changed yet.
  void trying(const std::string& output, MixCommand command, double share);
  /// It was let go and stands where it stood.
  void given_up();

 private:
  struct Share {
    MixCommand command;
    QDoubleSpinBox* percent;
    QDoubleSpinBox* degrees;  ///< null where the linkage is not known
    ShareBar* bar;
  };

  QDoubleSpinBox* degrees(const SurfaceAnswer& answer, MixCommand command, const QString& name);
  ShareBar* bar(const std::string& output, MixCommand command, double weight);

  RigDocument& document_;
  QLabel* pulse_;
  std::string output_;
  std::vector<Share> shares_;
  std::vector<SurfaceName> surfaces_;
  std::vector<std::pair<Axis, QLabel*>> captions_;
};

}  // namespace rigging::app
