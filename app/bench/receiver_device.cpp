#include "bench/receiver_device.h"

#include <QCoreApplication>
#include <QTimer>
#include "look/literals.h"

namespace rigging::app {

std::unique_ptr<QSerialPort> open_receiver(const QString& device, const std::function<void(QSerialPort&)>& line,
                                           QObject* owner, std::function<void()> take,
                                           std::function<void(const QString&)> gone, QString* trouble) {
  auto port = std::make_unique<QSerialPort>(device);
  line(*port);
  if (!port->open(QIODevice::ReadOnly)) {
    *trouble = u"%1 could not be opened: %2. Is the adapter plugged in, and may you use it?"_s.arg(device,
                                                                                                   port->errorString());
    return nullptr;
  }
  QObject::connect(port.get(), &QSerialPort::readyRead, owner, std::move(take));
  QObject::connect(port.get(), &QSerialPort::errorOccurred, owner,
                   [owner, gone = std::move(gone)](QSerialPort::SerialPortError error) {
                     // A line that hangs up reads as nothing, which Qt calls a read error.
                     if (error != QSerialPort::ResourceError && error != QSerialPort::DeviceNotFoundError &&
                         error != QSerialPort::ReadError)
                       return;
                     QTimer::singleShot(0, owner, [gone] {
                       gone(u"The receiver's device is gone: plug the adapter in again, then listen once more."_s);
                     });
                   });
  return port;
}

}  // namespace rigging::app
