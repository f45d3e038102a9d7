#include "stations/sticks/receiver_dialog.h"

#include <QComboBox>
#include <QFormLayout>

#include "look/literals.h"
#include "stations/baud_box.h"
#include "wiring/ports.h"

namespace rigging::app {

ReceiverDialog::ReceiverDialog(const RigDocument& document, BenchLink& bench, QWidget* parent)
    : DeviceDialog(u"receiver"_s, u"Listen to a receiver"_s, bench.listening(), parent), bench_(bench) {
  signal_ = new QComboBox;
  signal_->setObjectName(u"receiver_signal"_s);
  for (const Signal s : {Signal::inverted_serial, Signal::two_way_serial})
    signal_->addItem(QString::fromStdString(signal_label(s)), static_cast<int>(s));
  if (receiver_signal(document.rig(), document.catalogue()) == Signal::two_way_serial) signal_->setCurrentIndex(1);
  form()->addRow(u"What the receiver says"_s, signal_);
  baud_ = new BaudBox(u"receiver_baud"_s, u"Baud"_s);
  form()->addRow(u"Baud"_s, baud_);
  connect(signal_, &QComboBox::currentIndexChanged, this, &ReceiverDialog::describe);
  describe();
}

Signal ReceiverDialog::signal() const { return static_cast<Signal>(signal_->currentData().toInt()); }

void ReceiverDialog::describe() {
  const bool inverted = signal() == Signal::inverted_serial;
  if (inverted)
    baud_->offer({}, {100000, 200000});
  else
    baud_->offer({}, {420000, 115200, 400000, 921600});
  QString words =
      u"Propeller off, motor and servos unplugged: the receiver alone, on a supply of its own. Its minus to the "
      "adapter's minus, its signal to the adapter's receive line; its plus never to the adapter unless the adapter "
      "gives what the receiver needs. A 3.3 V line is read by most adapters; a 5 V line destroys one made for 3.3 V."_s;
  words += QLatin1String("\n\n");
  words += inverted ? u"This signal rests low: it needs an adapter that inverts its receive line, or one that is set "
                      "to do so. Without that, bytes arrive and no frame is among them."_s
                    : u"This signal rests high: any adapter reads it that can make its baud. Only the receiver's "
                      "transmit line is needed."_s;
  set_how(words);
}

bool ReceiverDialog::listen(const QString& device) {
  const BaudBox::Typed baud = baud_->typed();
  if (!baud.error.isEmpty()) {
    refuse(baud.error);
    return false;
  }
  const auto trouble = connect(&bench_, &BenchLink::problem, this, &ReceiverDialog::refuse);
  bench_.listen_to({device, signal(), *baud.baud});
  disconnect(trouble);
  return bench_.listening();
}

}  // namespace rigging::app
