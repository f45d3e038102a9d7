#pragma once

#include "bench/bench_link.h"
#include "document/rig_document.h"
#include "stations/device_dialog.h"

namespace rigging::app {

class BaudBox;

/// A stick receiver by itself: what it says, and how to wire it.
class ReceiverDialog : public DeviceDialog {
  Q_OBJECT
 public:
  ReceiverDialog(const RigDocument& document, BenchLink& bench, QWidget* parent);

 private:
  void describe();
  bool listen(const QString& device) override;
  void stop() override { bench_.stop_listening(); }
  Signal signal() const;

  BenchLink& bench_;
  QComboBox* signal_;
  BaudBox* baud_;
};

}  // namespace rigging::app
