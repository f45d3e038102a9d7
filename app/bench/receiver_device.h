#pragma once

#include <QSerialPort>
#include <functional>
#include <memory>

namespace rigging::app {

/// Opens the device of a receiver by itself, for reading only; `line` sets baud and framing. `take`: bytes are
/// there. `gone`: it went away; told from the event loop, so that the port can be taken down, with words to show. Both
/// only while `owner` lives. Null when it can't be opened; then `trouble` says why.
std::unique_ptr<QSerialPort> open_receiver(const QString& device, const std::function<void(QSerialPort&)>& line,
                                           QObject* owner, std::function<void()> take,
                                           std::function<void(const QString&)> gone, QString* trouble);

}  // namespace rigging::app
