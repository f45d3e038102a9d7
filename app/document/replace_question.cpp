#include "document/replace_question.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QMessageBox>

namespace rigging::app {

bool may_replace(QWidget* parent, const QString& path, const QString& chosen) {
  if (path == chosen || !QFileInfo::exists(path)) return true;
  const auto words = [](const char* text) { return QCoreApplication::translate("replace", text); };
  QMessageBox box(QMessageBox::Question, words("There is such a file"),
                  words("%1 exists already. Replace it?").arg(path), QMessageBox::Yes | QMessageBox::No, parent);
  box.setObjectName(QStringLiteral("replace"));
  box.setDefaultButton(QMessageBox::No);
  return box.exec() == QMessageBox::Yes;
}

}  // namespace rigging::app
