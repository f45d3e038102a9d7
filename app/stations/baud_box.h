#pragma once

#include <QComboBox>
#include <optional>
#include <vector>

namespace rigging::app {

/// A box for a baud: one of the usual ones or any typed number from 1200 to 4 000 000, or `none` where a word stands
/// for no number of one's own.
class BaudBox : public QComboBox {
  Q_OBJECT
 public:
  BaudBox(const QString& id, const QString& name);
  /// `none`: the first entry, words for no number; empty where a number is needed.
  void offer(const QString& none, const std::vector<int>& bauds, double most = 0);
  void show_value(const std::optional<double>& baud);
  /// What stands in it: a number, `none`, or an error with what was expected.
  struct Typed {
    std::optional<double> baud;
    QString error;
  };
  Typed typed() const;

 Q_SIGNALS:
  /// Something that can be taken was chosen or typed.
  void taken(std::optional<double> baud);
  /// It could not; the box shows what it showed before.
  void refused(const QString& error);

 private:
  void finish();
  QString none_;
  std::optional<double> shown_;
};

}  // namespace rigging::app
