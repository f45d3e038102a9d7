#pragma once

#include <QLabel>
#include <QString>
#include <initializer_list>
#include <string>

namespace rigging::app {

/// Words with marks for a label. Whatever text becomes one is shown as it is: names come from files, links and hands.
/// Marks are written in the program's own texts alone (`html`), so that none can come in by a name.
class Html {
 public:
  Html() = default;
  Html(const QString& plain) : marked_(plain.toHtmlEscaped()) {}           // NOLINT(google-explicit-*)
  Html(const std::string& plain) : Html(QString::fromStdString(plain)) {}  // NOLINT(google-explicit-*)

  bool isEmpty() const { return marked_.isEmpty(); }
  Html& operator+=(const Html& more);
  const QString& marked() const { return marked_; }

 private:
  friend Html html_of(QStringView marks, std::initializer_list<Html> parts);
  QString marked_;
};

/// A text of the program with marks; the parts stand where it has %1 to %9.
template <std::size_t size>
Html html(const char16_t (&marks)[size], std::initializer_list<Html> parts = {}) {
  return html_of(QStringView(marks, size - 1), parts);
}
Html html_of(QStringView marks, std::initializer_list<Html> parts);
/// One behind the other.
Html joined(const QList<Html>& parts, const Html& between);

/// The only way in which a label gets marks.
void show_html(QLabel* label, const Html& words);

}  // namespace rigging::app
