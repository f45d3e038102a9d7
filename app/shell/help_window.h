#pragma once

#include <QDialog>

#include "base/station.h"

class QTextBrowser;

namespace rigging::app {

/// Where the manual lies: beside the data once installed, in the source tree else; empty where it is not found.
QString manual_folder(const QString& data_folder);

/// The manual, a chapter at a time, beside the window. Links lead from chapter to chapter and nowhere else.
class HelpWindow : public QDialog {
  Q_OBJECT
 public:
  HelpWindow(const QString& folder, QWidget* parent);
  void show_chapter(const QString& name);

 private:
  QString folder_;
  QTextBrowser* text_;
};

}  // namespace rigging::app
