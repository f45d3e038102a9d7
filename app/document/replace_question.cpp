#include "document/replace_question.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QMessageBox>
#include "look/literals.h"

namespace rigging::app {

bool may_replace(QWidget* parent, const QString& path, const QString& chosen) {
  if (path == chosen || !QFileInfo::exists(path)) return true;
  QMessageBox box(QMessageBox::Question, u"There is such a file"_s, u"%1 exists already. Replace it?"_s.arg(path),
                  QMessageBox::Yes | QMessageBox::No, parent);
  box.setObjectName(u"replace"_s);
  box.setDefaultButton(QMessageBox::No);
  return box.exec() == QMessageBox::Yes;
}

}  // namespace rigging::app
