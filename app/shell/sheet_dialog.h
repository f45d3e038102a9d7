#pragma once

#include <QDialog>
#include <QPageSize>

#include "drawing/rig_sheets.h"

class QCheckBox;
class QLabel;
class QPrinter;

namespace rigging::app {

/// Sheets on the screen, to print or to keep as PDF or SVG: hand cards, plug list, wiring drawing.
class SheetDialog : public QDialog {
  Q_OBJECT
 public:
  SheetDialog(const QString& title, QList<Sheet> sheets, QWidget* parent);

  /// One page each. Used by the button's file choice and by tests.
  bool write_pdf(const QString& path) const;
  /// One file, the sheets below each other; where that is ticked NAME-1.svg and so on.
  bool write_svg(const QString& path) const;
  /// On paper, true to scale whatever margins the printer keeps: sheets are drawn from the corner of the paper and
  /// leave 15 mm themselves.
  void print(QPrinter& printer) const;

 private:
  QList<Sheet> sheets_;
  QCheckBox* apart_;
  QLabel* kept_;
};

}  // namespace rigging::app
