#pragma once

#include <QDialog>

#include "document/rig_document.h"

namespace rigging::app {

/// What each channel is for, how it is worked, where its positions lie and which mode they choose.
class ChannelsDialog : public QDialog {
  Q_OBJECT
 public:
  ChannelsDialog(RigDocument& document, QWidget* parent);

 private:
  void rebuild();
  RigDocument& document_;
};

}  // namespace rigging::app
