#pragma once

#include <QDialog>

class QComboBox;
class QFormLayout;
class QLabel;

namespace rigging::app {

/// A receiver by itself at a serial device: which, how it is set and wired. What it is stands in those that derive.
class DeviceDialog : public QDialog {
  Q_OBJECT
 public:
  /// `id`: begins the names of its boxes and buttons ("receiver": "receiver_device", "receiver_listen").
  /// `listening`: there is something to stop.
  DeviceDialog(const QString& id, const QString& title, bool listening, QWidget* parent);

 protected:
  QFormLayout* form() { return form_; }
  void set_how(const QString& words);
  /// Says why not, and stays open.
  void refuse(const QString& why);
  /// Opens the device; true when it listens. What does not go is said with `refuse`.
  virtual bool listen(const QString& device) = 0;
  virtual void stop() = 0;

 private:
  void try_it();
  QComboBox* device_;
  QFormLayout* form_;
  QLabel *how_, *trouble_;
};

}  // namespace rigging::app
