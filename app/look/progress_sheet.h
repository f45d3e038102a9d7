#pragma once

#include <QProgressDialog>
#include <QTimer>
#include <functional>
#include <optional>

namespace rigging::app {

/// Stands over the window while something slow is worked out, with how far it is and a way to end it. Shows itself only
/// when that takes longer than half a second.
class ProgressSheet : public QObject {
  Q_OBJECT
 public:
  /// `share` is 0 to 1, or nothing when nothing is worked out; `cancel` ends it.
  ProgressSheet(QWidget* window, std::function<std::optional<double>()> share, std::function<void()> cancel);

  /// Work has begun.
  void follow(const QString& words);

 private:
  void look();

  QWidget* window_;
  std::function<std::optional<double>()> share_;
  std::function<void()> cancel_;
  QTimer timer_;
  QString words_;
  int looks_ = 0;
  QProgressDialog* dialog_ = nullptr;  ///< while it shows
};

}  // namespace rigging::app
