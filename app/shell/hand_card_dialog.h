#pragma once

#include <QDialog>

#include "document/rig_document.h"
#include "sheets/hand_card.h"

class QPrinter;

namespace rigging::app {

/// Hand cards on the screen, to print or to keep as files.
class HandCardDialog : public QDialog {
  Q_OBJECT
 public:
  HandCardDialog(const RigDocument& document, const std::vector<HandCard>& cards, QWidget* parent);

  /// Prints all cards, one a page, into a PDF. Used by the print button's file choice and by tests.
  bool write_pdf(const QString& path) const;

 private:
  void draw_all(QPrinter& printer) const;
  QStringList svgs_;
};

}  // namespace rigging::app
