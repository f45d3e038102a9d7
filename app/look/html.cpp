#include "look/html.h"

namespace rigging::app {

Html& Html::operator+=(const Html& more) {
  marked_ += more.marked_;
  return *this;
}

Html html_of(QStringView marks, std::initializer_list<Html> parts) {
  Html made;
  for (qsizetype i = 0; i < marks.size(); ++i) {
    const int part = marks[i] == u'%' && i + 1 < marks.size() ? marks[i + 1].digitValue() : -1;
    if (part >= 1 && static_cast<std::size_t>(part) <= parts.size()) {
      made.marked_ += (parts.begin() + part - 1)->marked_;
      ++i;
    } else {
      made.marked_ += marks[i];
    }
  }
  return made;
}

Html joined(const QList<Html>& parts, const Html& between) {
  Html all;
  for (const Html& part : parts) {
    if (!all.isEmpty()) all += between;
    all += part;
  }
  return all;
}

void show_html(QLabel* label, const Html& words) {
  label->setTextFormat(Qt::RichText);
  label->setText(words.marked());
}

}  // namespace rigging::app
