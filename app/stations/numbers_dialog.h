#pragma once

#include <QDialog>
#include <functional>
#include <optional>

#include "base/described.h"
#include "document/rig_document.h"
#include "look/number_box.h"

class QDoubleSpinBox;
class QFormLayout;
class QLabel;

namespace rigging::app {

/// A small sheet of numbers that belong together and are typed rarely. Nothing changes until it is accepted.
class NumbersDialog : public QDialog, public HearsRefusals {
  Q_OBJECT
 public:
  NumbersDialog(const QString& title, const QString& words, QWidget* parent);

  struct Number {
    QString label, unit;
    double least = 0, most = 1;
    int decimals = 0;
    double per_si = 1;  ///< shown = value · per_si
  };
  /// Range, unit and decimals from the member's description, decimals so many `finer`; its spoken label when none is
  /// given.
  static Number described(const Member& member, int finer = 0, const QString& label = {});
  /// A described member of an object: a number, or one that may be unknown.
  template <class T>
  void add(const char* id, T& object, double T::*member, const QString& label = {}, int finer = 0) {
    add(id, described(member_of(member), finer, label), object.*member);
  }
  template <class T>
  void add(const char* id, T& object, std::optional<double> T::*member, const QString& unknown,
           const QString& label = {}, int finer = 0) {
    add(id, with_unknown(described(member_of(member), finer, label)), object.*member, unknown);
  }

  /// A number that must be there.
  void add(const char* id, const Number& number, double& value);
  /// One that may be unknown: shown as words at the least value.
  void add(const char* id, const Number& number, std::optional<double>& value, const QString& unknown);
  void add(const char* id, const QString& label, bool& value);
  void add(const char* id, const QString& label, std::string& value, const QString& hint);
  /// One of several.
  void add(const char* id, const QString& label, std::size_t& at, const QStringList& choices);
  /// Runs the dialog and, when accepted, puts what was typed into the values. True when accepted.
  bool ask();
  /// Runs it until the edit made of what was typed is taken, or it is left; what does not go is said above the numbers.
  /// Nothing is recorded when nothing was changed.
  void ask(RigDocument& document, const std::function<Result<Edit>()>& made);
  /// Says above the numbers why they can't be taken; then ask again: what was typed is still there.
  void refuse(const QString& why);
  void hear_refusal(NumberBox& box) override { refuse(box.refusal()); }

  /// Room for "unknown" one step below the range.
  static Number with_unknown(Number number);

 private:
  QDoubleSpinBox* box(const char* id, const Number& number);
  /// Takes the sheet when every number fits; else says which does not, and stays.
  void take();
  QFormLayout* form_;
  QLabel* refusal_;
  std::vector<std::function<void()>> takes_;
};

}  // namespace rigging::app
