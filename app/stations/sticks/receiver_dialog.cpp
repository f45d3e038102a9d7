#include "stations/sticks/receiver_dialog.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSerialPortInfo>
#include <QVBoxLayout>

#include "base/number.h"
#include "look/pieces.h"
#include "stations/baud_box.h"
#include "wiring/ports.h"

namespace rigging::app {

ReceiverDialog::ReceiverDialog(const RigDocument& document, BenchLink& bench, QWidget* parent)
    : QDialog(parent), bench_(bench) {
  setObjectName(QStringLiteral("receiver_dialog"));
  setWindowTitle(tr("Listen to a receiver"));
  resize(520, 380);
  auto* layout = new QVBoxLayout(this);
  auto* form = new QFormLayout;
  device_ = new QComboBox;
  device_->setObjectName(QStringLiteral("receiver_device"));
  device_->setEditable(true);
  device_->setInsertPolicy(QComboBox::NoInsert);
  for (const QSerialPortInfo& port : QSerialPortInfo::availablePorts()) device_->addItem(port.systemLocation());
  if (device_->count() == 0) device_->addItem(QStringLiteral("/dev/ttyUSB0"));
  form->addRow(tr("Serial device of the adapter"), device_);
  signal_ = new QComboBox;
  signal_->setObjectName(QStringLiteral("receiver_signal"));
  for (const Signal s : {Signal::inverted_serial, Signal::two_way_serial})
    signal_->addItem(QString::fromStdString(spoken_signal(s)), static_cast<int>(s));
  if (receiver_signal(document.rig(), document.catalogue()) == Signal::two_way_serial) signal_->setCurrentIndex(1);
  form->addRow(tr("What the receiver says"), signal_);
  baud_ = new BaudBox(QStringLiteral("receiver_baud"), tr("Baud"));
  form->addRow(tr("Baud"), baud_);
  layout->addLayout(form);
  how_ = wrapping_words(9.5);
  how_->setObjectName(QStringLiteral("receiver_how"));
  layout->addWidget(how_, 1);
  trouble_ = wrapping_words(9.5);
  trouble_->setObjectName(QStringLiteral("receiver_trouble"));
  trouble_->setProperty("caution", true);
  trouble_->hide();
  layout->addWidget(trouble_);
  auto* bottom = new QHBoxLayout;
  bottom->addStretch();
  auto* stop = hinted_button(tr("Stop listening"), "receiver_stop", tr("The device is closed"));
  stop->setEnabled(bench_.listening());
  connect(stop, &QPushButton::clicked, this, [this] {
    bench_.stop_listening();
    accept();
  });
  bottom->addWidget(stop);
  auto* cancel = new QPushButton(tr("Cancel"));
  connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
  bottom->addWidget(cancel);
  auto* go = new QPushButton(tr("Listen"));
  go->setObjectName(QStringLiteral("receiver_listen"));
  go->setProperty("main", true);
  go->setDefault(true);
  connect(go, &QPushButton::clicked, this, &ReceiverDialog::listen);
  bottom->addWidget(go);
  layout->addLayout(bottom);
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
  QString words = tr(
      "Propeller off, motor and servos unplugged: the receiver alone, on a supply of its own. Its minus to the "
      "adapter's minus, its signal to the adapter's receive line; its plus never to the adapter unless the adapter "
      "gives what the receiver needs. A 3.3 V line is read by most adapters; a 5 V line destroys one made for 3.3 V.");
  words += QLatin1String("<br><br>");
  words += inverted ? tr("This signal rests low: it needs an adapter that inverts its receive line, or one that is set "
                         "to do so. Without that, bytes arrive and no frame is among them.")
                    : tr("This signal rests high: any adapter reads it that can make its baud. Only the receiver's "
                         "transmit line is needed.");
  how_->setText(words);
}

void ReceiverDialog::listen() {
  const BaudBox::Typed baud = baud_->typed();
  const auto say = [this](const QString& words) {
    trouble_->setText(words);
    trouble_->show();
  };
  if (!baud.error.isEmpty()) return say(baud.error);
  if (device_->currentText().trimmed().isEmpty()) return say(tr("Which device? Such as /dev/ttyUSB0."));
  const auto trouble = connect(&bench_, &BenchLink::problem, this, say);
  bench_.listen_to({device_->currentText().trimmed(), signal(), *baud.baud});
  disconnect(trouble);
  if (bench_.listening()) accept();
}

}  // namespace rigging::app
