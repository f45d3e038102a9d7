#pragma once

#include <QString>

namespace rigging::app {

/// The folder from which files of a kind ("rig", "log", "sheet") were last taken or to which they were kept, in this
/// run; else where rigs are; else where the program was started.
QString remembered_folder(const QString& kind);
/// A name in it, for a question that suggests one.
QString in_remembered_folder(const QString& kind, const QString& name);
/// Remembers the folder of this file.
void remember_folder(const QString& kind, const QString& file);

}  // namespace rigging::app
