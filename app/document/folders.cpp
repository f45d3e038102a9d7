#include "document/folders.h"

#include <QDir>
#include <QFileInfo>
#include <QMap>

#include "look/literals.h"

namespace rigging::app {
namespace {

QMap<QString, QString>& folders() {
  static QMap<QString, QString> all;
  return all;
}

}  // namespace

QString remembered_folder(const QString& kind) {
  const QString own = folders().value(kind, folders().value(u"rig"_s));
  return QFileInfo(own).isDir() ? own : QString();
}

QString in_remembered_folder(const QString& kind, const QString& name) {
  const QString folder = remembered_folder(kind);
  return folder.isEmpty() ? name : QDir(folder).filePath(name);
}

void remember_folder(const QString& kind, const QString& file) {
  if (!file.isEmpty()) folders()[kind] = QFileInfo(file).absolutePath();
}

}  // namespace rigging::app
