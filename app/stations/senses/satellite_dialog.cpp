#include "stations/senses/satellite_dialog.h"

#include <QComboBox>
#include <QFormLayout>
#include <QSerialPortInfo>
#include <QVBoxLayout>

#include "base/number.h"
#include "bench/satellite_line.h"
#include "look/pieces.h"

namespace rigging::app {

SatelliteDialog::SatelliteDialog(SatelliteLine& line, QWidget* parent) : QDialog(parent), line_(line) {
  setObjectName(QStringLiteral("satellite_dialog"));
  setWindowTitle(tr("Listen to a satellite receiver"));
  resize(500, 320);
  auto* layout = new QVBoxLayout(this);
  auto* form = new QFormLayout;
  device_ = new QComboBox;
  device_->setObjectName(QStringLiteral("satellite_device"));
  device_->setEditable(true);
  device_->setInsertPolicy(QComboBox::NoInsert);
  for (const QSerialPortInfo& port : QSerialPortInfo::availablePorts()) device_->addItem(port.systemLocation());
  if (device_->count() == 0) device_->addItem(QStringLiteral("/dev/ttyUSB0"));
  form->addRow(tr("Serial device of the adapter"), device_);
  baud_ = new QComboBox;
  baud_->setObjectName(QStringLiteral("satellite_baud"));
  baud_->setEditable(true);
  baud_->setInsertPolicy(QComboBox::NoInsert);
  baud_->addItem(tr("find it"));
  for (const int b : SatelliteLine::usual_bauds()) baud_->addItem(QString::number(b));
  form->addRow(tr("Baud"), baud_);
  layout->addLayout(form);
  QLabel* how = wrapping_words(9.5);
  how->setText(tr(
      "The receiver alone, on a supply that suits it, outdoors or at a window. Its minus to the adapter's minus, its "
      "transmit line to the adapter's receive line. Nothing arrives: exchange the data pair, or look at its "
      "supply. A 5 V line destroys an adapter made for 3.3 V."));
  layout->addWidget(how, 1);
  trouble_ = caution_words(9.5);
  trouble_->setObjectName(QStringLiteral("satellite_trouble"));
  trouble_->hide();
  layout->addWidget(trouble_);
  auto* bottom = new QHBoxLayout;
  bottom->addStretch();
  auto* stop = hinted_button(tr("Stop listening"), "satellite_stop", tr("The device is closed"));
  stop->setEnabled(line_.is_open());
  connect(stop, &QPushButton::clicked, this, [this] {
    line_.close();
    accept();
  });
  bottom->addWidget(stop);
  auto* cancel = new QPushButton(tr("Cancel"));
  connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
  bottom->addWidget(cancel);
  auto* go = hinted_button(tr("Listen"), "satellite_listen", tr("The device is opened for reading only"));
  go->setProperty("main", true);
  go->setDefault(true);
  connect(go, &QPushButton::clicked, this, &SatelliteDialog::listen);
  bottom->addWidget(go);
  layout->addLayout(bottom);
}

void SatelliteDialog::listen() {
  const auto say = [this](const QString& words) {
    trouble_->setText(words);
    trouble_->show();
  };
  double baud = 0;
  if (baud_->currentText() != baud_->itemText(0)) {
    const auto typed = number_of(baud_->currentText().trimmed().toStdString());
    if (!typed || *typed < 1200 || *typed > 4e6)
      return say(tr("\"%1\" is no baud rate: 1200 to 4 000 000, or \"find it\".").arg(baud_->currentText()));
    baud = *typed;
  }
  if (device_->currentText().trimmed().isEmpty()) return say(tr("Which device? Such as /dev/ttyUSB0."));
  const auto trouble = connect(&line_, &SatelliteLine::problem, this, say);
  line_.open(device_->currentText().trimmed(), baud);
  disconnect(trouble);
  if (line_.is_open()) accept();
}

}  // namespace rigging::app
