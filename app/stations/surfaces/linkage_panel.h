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
