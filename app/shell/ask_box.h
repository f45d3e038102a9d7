#pragma once

#include <QDialog>
#include <functional>

#include "look/request.h"

class QLineEdit;
class QListWidget;

namespace rigging::app {

/// How well the words fit a request: 0 not at all. Every word must begin a word of the request; words that fit its text
/// count double.
int fit_of(const QString& words, const Request& request);

/// Type what you want, go there or do it.
class AskBox : public QDialog {
  Q_OBJECT
 public:
  AskBox(QList<Request> requests, QWidget* parent);

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void find(const QString& words);
  void act();

  QList<Request> requests_;
  QLineEdit* line_;
  QListWidget* list_;
};

}  // namespace rigging::app
