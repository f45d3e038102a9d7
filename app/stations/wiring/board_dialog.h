#pragma once

#include <QDialog>

#include "base/json.h"
#include "document/rig_document.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace rigging::app {

class BoardView;
class MembersEditor;

/// A class of the builder's own: begun as the nearest one, then sockets, pads, feeds, lamps, steps and sizes as they
/// really are. Kept in the parts file beside the rig, and passed on as a file of its own.
class BoardDialog : public QDialog {
  Q_OBJECT
 public:
  BoardDialog(RigDocument& document, QWidget* parent);

 private:
  void begin_as(const ControllerClass& nearest);
  void read_back();
  void lay_apart(const QString& pointer);
  void keep();
  void take_from_file();
  void pass_on();
  void complain(const QString& words);
  /// As it would be kept; the error says what does not fit yet.
  Result<ControllerClass> made() const;

  RigDocument& document_;
  QComboBox* nearest_;
  QLineEdit *id_, *name_;
  BoardView* view_;
  MembersEditor* members_;
  QLabel *complaint_, *said_;
  QPushButton *keep_, *pass_on_;
  OrderedJson schema_;
};

}  // namespace rigging::app
