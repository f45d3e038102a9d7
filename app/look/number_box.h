#pragma once

#include <QDoubleSpinBox>
#include <optional>

namespace rigging::app {

class NumberBox;

/// What stands around number boxes and hears of one whose number does not fit.
class HearsRefusals {
 public:
  virtual void hear_refusal(NumberBox& box) = 0;

 protected:
  ~HearsRefusals() = default;
};

/// Takes a comma for the decimal point, in every locale: "1,5" is never 15.
class NumberBox : public QDoubleSpinBox {
 public:
  NumberBox();
  /// Where less than `least` can only be "not known", which stands at the lower end of the box.
  void set_least_known(double least) { least_known_ = least; }
  /// Was something typed since it was last asked? A number that is typed again as it stood changes nothing, and is
  /// said.
  bool take_typed();
  QValidator::State validate(QString& text, int& at) const override;
  /// "1.2 m" where millimetres are asked is 1200. What was typed and does not fit is kept to be told of, once.
  void fixup(QString& text) const override;
  /// A sentence about what was typed and does not fit; empty where all does, or where it was taken already.
  QString refusal() const;
  /// The same, said once; what was typed then counts as not typed.
  QString take_refusal();

 private:
  /// The words for "not known" stand below the range: one step, where nothing else is said.
  double least() const;

  std::optional<double> least_known_;
  mutable QString refused_;
  bool typed_ = false;
};

/// A box for one number: typed, not stepped, with its figures at the right. A change counts when it is finished.
NumberBox* number_box(const QString& id, const QString& name, int width = 0);

}  // namespace rigging::app
