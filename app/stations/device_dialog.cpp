#include "stations/device_dialog.h"

#include <QComboBox>
#include <QFormLayout>
#include <QSerialPortInfo>
#include <QVBoxLayout>

#include "look/literals.h"
#include "look/pieces.h"

namespace rigging::app {

DeviceDialog::DeviceDialog(const QString& id, const QString& title, bool listening, QWidget* parent) : QDialog(parent) {
  setObjectName(id + QLatin1String("_dialog"));
  setWindowTitle(title);
  resize(520, 380);
  auto* layout = new QVBoxLayout(this);
  form_ = new QFormLayout;
  device_ = new QComboBox;
  device_->setObjectName(id + QLatin1String("_device"));
  device_->setEditable(true);
  device_->setInsertPolicy(QComboBox::NoInsert);
  for (const QSerialPortInfo& port : QSerialPortInfo::availablePorts()) device_->addItem(port.systemLocation());
  if (device_->count() == 0) device_->addItem(u"/dev/ttyUSB0"_s);
  form_->addRow(u"Serial device of the adapter"_s, device_);
  layout->addLayout(form_);
  how_ = wrapping_words(9.5);
  how_->setObjectName(id + QLatin1String("_how"));
  layout->addWidget(how_, 1);
  trouble_ = caution_words(9.5);
  trouble_->setObjectName(id + QLatin1String("_trouble"));
  trouble_->hide();
  layout->addWidget(trouble_);
  auto* bottom = new QHBoxLayout;
  bottom->addStretch();
  const auto add = [&](const QString& text, const char* name, const QString& hint) {
    auto* b = hinted_button(text, "", hint);
    b->setObjectName(id + QLatin1String(name));
    bottom->addWidget(b);
    return b;
  };
  QPushButton* stop_listening = add(u"Stop listening"_s, "_stop", u"The device is closed"_s);
  stop_listening->setEnabled(listening);
  connect(stop_listening, &QPushButton::clicked, this, [this] {
    stop();
    accept();
  });
  connect(add(u"Cancel"_s, "_cancel", u"Nothing is changed"_s), &QPushButton::clicked, this, &QDialog::reject);
  QPushButton* go = add(u"Listen"_s, "_listen", u"The device is opened for reading only"_s);
  go->setProperty("main", true);
  go->setDefault(true);
  connect(go, &QPushButton::clicked, this, &DeviceDialog::try_it);
  layout->addLayout(bottom);
}

void DeviceDialog::set_how(const QString& words) { how_->setText(words); }

void DeviceDialog::refuse(const QString& why) {
  trouble_->setText(why);
  trouble_->show();
}

void DeviceDialog::try_it() {
  const QString device = device_->currentText().trimmed();
  if (device.isEmpty()) return refuse(u"Which device? Such as /dev/ttyUSB0."_s);
  if (listen(device)) accept();
}

}  // namespace rigging::app
