#pragma once

#include <QLineEdit>
#include <optional>

#include "base/described.h"

namespace rigging::app {

/// One measure, typed as people say it: "1.2 m", "48 in", "1,1 kg". Empty is not told. What is not understood stays in
/// the box and says why; a bare number that can't be millimetres or grams but can be metres or kilograms is taken so.
class MeasureEdit : public QLineEdit {
  Q_OBJECT
 public:
  MeasureEdit(const Member& member, const char* id, QWidget* parent = nullptr);

  /// In the unit of the document; nothing when nothing, or nothing understood, was typed.
  std::optional<double> value() const { return value_; }
  /// Why what stands in the box is no value; empty when it is one, or when nothing is told.
  QString problem() const { return problem_; }
  void set_value(std::optional<double> value);
  /// What is taken while nothing is told.
  void set_guess(double value);
  const Member& member() const { return member_; }

 Q_SIGNALS:
  /// With every key: what it is understood as so far.
  void changed();

 private:
  QString said(double value) const;
  void understand();

  Member member_;
  std::optional<double> value_;
  QString problem_;
};

}  // namespace rigging::app
