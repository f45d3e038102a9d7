#pragma once

#include <QDialog>

#include "base/json.h"
#include "catalogue/catalogue.h"

class QLabel;
class QPushButton;

namespace rigging::app {

class MembersEditor;

/// Everything that is known of a part of the builder's own: sockets, feeds, loads, figures, sizes.
class PartSheet : public QDialog {
  Q_OBJECT
 public:
  PartSheet(const PartKind& begun, QWidget* parent);
  /// As it stands; the error says what does not fit yet.
  Result<PartKind> made() const;

 private:
  void read_back();

  MembersEditor* members_;
  QLabel* complaint_;
  QPushButton* take_;
};

}  // namespace rigging::app
