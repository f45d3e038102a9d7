#pragma once

#include <QWidget>

#include "document/rig_document.h"
#include "surfaces/surfaces.h"

class QDoubleSpinBox;
class QLabel;
class QScrollArea;

namespace rigging::app {

class OutputRow;

/// What each output gives for each command: a card for each, the roll of tail halves, and why what was typed can't be.
class MixPanel : public QWidget {
  Q_OBJECT
 public:
  explicit MixPanel(RigDocument& document, QWidget* parent = nullptr);
  void refresh();
  /// How strongly each surface answers, as soon as it is known.
  void show_effects();
  /// What each output is sent for a command.
  void show_pulses(const Command& command);
  /// Brings an output's card into view; false without it.
  bool show_row(const std::string& output);

 Q_SIGNALS:
  /// A weight is being pulled: the rig as it would be, and the full command of it.
  void trying(const rigging::Rig& rig, const rigging::Command& full);
  /// It was let go and stands where it stood.
  void given_up();

 private:
  void rebuild_rows();
  void try_share(const std::string& output, MixCommand command, double share);
  void show_weights(const Rig& rig);
  void refuse(const QString& why);

  RigDocument& document_;
  QLabel *explained_, *refusal_;
  QWidget* tail_row_;
  QDoubleSpinBox* tail_mix_;
  QScrollArea* area_;
  std::map<std::string, OutputRow*> rows_;
  std::string shape_;  ///< which rows stand there; they are rebuilt only when this changes
  bool refreshing_ = false;
};

}  // namespace rigging::app
