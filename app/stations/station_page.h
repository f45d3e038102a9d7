#pragma once

#include <QWidget>

#include "document/rig_document.h"

namespace rigging::app {

/// One station's sheet. Shows the document; edits go through it.
class StationPage : public QWidget {
  Q_OBJECT
 public:
  StationPage(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {}
  /// The document has changed.
  virtual void refresh() = 0;
  /// Brings the part that a snag is about into view, as far as this station knows it.
  virtual void go_to(const QString& subject) { (void)subject; }
  /// Where the keyboard starts on this sheet.
  virtual QWidget* first_focus() { return this; }

 protected:
  RigDocument& document_;
};

}  // namespace rigging::app
