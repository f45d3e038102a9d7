#pragma once

#include <QDialog>
#include <functional>
#include <optional>

class QDoubleSpinBox;
class QFormLayout;
class QLabel;

namespace rigging::app {

/// A small sheet of numbers that belong together and are typed rarely. Nothing changes until it is accepted.
class NumbersDialog : public QDialog {
  Q_OBJECT
 public:
  NumbersDialog(const QString& title, const QString& words, QWidget* parent);

  struct Number {
    QString label, unit;
    double least = 0, most = 1;
    int decimals = 0;
    double per_si = 1;  ///< shown = value · per_si
  };
  /// A number that must be there.
  void add(const char* id, const Number& number, double& value);
  /// One that may be unknown: shown as words at the least value.
  void add(const char* id, const Number& number, std::optional<double>& value, const QString& unknown);
  void add(const char* id, const QString& label, bool& value);
  void add(const char* id, const QString& label, std::string& value, const QString& hint);
  /// Runs the dialog and, when accepted, puts what was typed into the values. True when accepted.
  bool ask();
  /// Says above the numbers why they can't be taken; then ask again: what was typed is still there.
  void refuse(const QString& why);

 private:
  QDoubleSpinBox* box(const char* id, const Number& number);
  QFormLayout* form_;
  QLabel* refusal_;
  std::vector<std::function<void()>> takes_;
};

}  // namespace rigging::app
