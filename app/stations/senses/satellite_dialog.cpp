#include "stations/senses/satellite_dialog.h"

#include <QFormLayout>

#include "bench/satellite_line.h"
#include "look/literals.h"
#include "stations/baud_box.h"

namespace rigging::app {

SatelliteDialog::SatelliteDialog(SatelliteLine& line, QWidget* parent)
    : DeviceDialog(u"satellite"_s, u"Listen to a satellite receiver"_s, line.is_open(), parent), line_(line) {
  baud_ = new BaudBox(u"satellite_baud"_s, u"Baud"_s);
  baud_->offer(u"find it"_s, SatelliteLine::usual_bauds());
  form()->addRow(u"Baud"_s, baud_);
  set_how(
      u"The receiver alone, on a supply that suits it, outdoors or at a window; the bench is left for it. Its minus to "
      "the adapter's minus, its transmit line to the adapter's receive line. Nothing arrives: exchange the data pair, "
      "or look at its supply. A 5 V line destroys an adapter made for 3.3 V."_s);
}

bool SatelliteDialog::listen(const QString& device) {
  const BaudBox::Typed baud = baud_->typed();
  if (!baud.error.isEmpty()) {
    refuse(baud.error);
    return false;
  }
  const auto trouble = connect(&line_, &SatelliteLine::problem, this, &SatelliteDialog::refuse);
  line_.open(device, baud.baud.value_or(0));
  disconnect(trouble);
  return line_.is_open();
}

void SatelliteDialog::stop() { line_.close(); }

}  // namespace rigging::app
