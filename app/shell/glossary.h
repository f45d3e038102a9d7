#pragma once

#include <QObject>
#include <QRegularExpression>
#include <vector>

#include "language/glossary.h"

namespace rigging::app {

/// Explains terms of the trade where they stand: a pointer that rests on a sentence brings up what its terms mean. They
/// come from the manual's chapter.
class Glossary : public QObject {
  Q_OBJECT
 public:
  /// Reads `glossary.md` of the manual; without it nothing is explained.
  explicit Glossary(const QString& manual_folder, QObject* parent = nullptr);

  struct Term {
    QString word, meaning;
  };
  const std::vector<Term>& terms() const { return terms_; }
  /// As the chapter has them, each with all of its words.
  const std::vector<rigging::Term>& chapter() const { return chapter_; }
  /// The first few terms that a sentence has, in its order; a longer term goes before one inside of it.
  std::vector<Term> terms_in(const QString& sentence) const;

  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  std::vector<rigging::Term> chapter_;
  std::vector<Term> terms_;
  QRegularExpression any_;
};

}  // namespace rigging::app
