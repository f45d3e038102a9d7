#pragma once

#include <QWidget>

#include "document/rig_document.h"

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace rigging::app {

/// Numbers of one linkage, which holes to use, and what the air does to it.
class LinkagePanel : public QWidget {
  Q_OBJECT
 public:
  explicit LinkagePanel(RigDocument& document, QWidget* parent = nullptr);
  void show_surface(Surface surface);
  void refresh();

  /// The linkage of the surface, or one to begin with.
  static Linkage linkage_of(const RigDocument& document, Surface surface);
  /// Hinge to trailing edge: the linkage's own, else from the airframe.
  static double chord_of(const RigDocument& document, Surface surface);
  /// Puts the linkage into the rig in place of the one of its surface.
  static Rig with_linkage(Rig rig, const Linkage& linkage);

 private:
  void measures();
  void holes();
  /// The best four, with a key to use each.
  void rank(const std::vector<HoleChoice>& choices);

  RigDocument& document_;
  Surface surface_;
  QLabel *facts_, *loads_, *effect_, *ranked_title_;
  QVBoxLayout* ranked_;
  QWidget* ranked_table_ = nullptr;
  QPushButton *measures_, *holes_;
};

}  // namespace rigging::app
