#include "shell/glossary.h"

#include <QFile>
#include <QHelpEvent>
#include <QLabel>
#include <QTextDocumentFragment>
#include <algorithm>

#include "look/literals.h"
#include "look/plain_text.h"

namespace rigging::app {

Glossary::Glossary(const QString& manual_folder, QObject* parent) : QObject(parent) {
  QFile file(manual_folder + u"/glossary.md"_s);
  if (!file.open(QIODevice::ReadOnly)) return;
  chapter_ = terms_of(file.readAll().toStdString());
  for (const rigging::Term& t : chapter_)
    for (const std::string& word : t.words)
      terms_.push_back({QString::fromStdString(word), QString::fromStdString(t.meaning)});
  QStringList words;
  for (const Term& t : terms_) words << QRegularExpression::escape(t.word);
  std::stable_sort(words.begin(), words.end(), [](const QString& a, const QString& b) { return a.size() > b.size(); });
  // Plurals, too.
  any_ = QRegularExpression(u"(?<![\\w-])(%1)(?=(?:s|es)?(?![\\w-]))"_s.arg(words.join(QLatin1Char('|'))),
                            QRegularExpression::CaseInsensitiveOption | QRegularExpression::UseUnicodePropertiesOption);
}

std::vector<Glossary::Term> Glossary::terms_in(const QString& sentence) const {
  constexpr std::size_t most = 3;
  std::vector<Term> found;
  if (terms_.empty()) return found;
  for (auto it = any_.globalMatch(sentence); it.hasNext() && found.size() < most;) {
    const QString word = it.next().captured(1);
    const auto same = [&](const Term& t) { return t.word.compare(word, Qt::CaseInsensitive) == 0; };
    const auto term = std::find_if(terms_.begin(), terms_.end(), same);
    if (term != terms_.end() && std::none_of(found.begin(), found.end(), same)) found.push_back(*term);
  }
  return found;
}

bool Glossary::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QObject::eventFilter(watched, event);
  auto* label = qobject_cast<QLabel*>(watched);
  if (!label || !label->toolTip().isEmpty()) return QObject::eventFilter(watched, event);
  const QString sentence = label->textFormat() == Qt::RichText
                               ? QTextDocumentFragment::fromHtml(label->text()).toPlainText()
                               : label->text();
  QStringList words;
  for (const Term& t : terms_in(sentence)) words << hint_lines(t.word + u": "_s + t.meaning);
  if (words.isEmpty()) return QObject::eventFilter(watched, event);
  show_hint(static_cast<QHelpEvent*>(event)->globalPos(), words.join(u"\n\n"_s), label);
  return true;
}

}  // namespace rigging::app
