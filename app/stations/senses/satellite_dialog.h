#pragma once

#include "stations/device_dialog.h"

namespace rigging::app {

class BaudBox;
class SatelliteLine;

/// A satellite receiver by itself: how fast it speaks, and how to wire it.
class SatelliteDialog : public DeviceDialog {
  Q_OBJECT
 public:
  SatelliteDialog(SatelliteLine& line, QWidget* parent);

 private:
  bool listen(const QString& device) override;
  void stop() override;
  SatelliteLine& line_;
  BaudBox* baud_;
};

}  // namespace rigging::app
