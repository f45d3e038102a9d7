#pragma once

#include <QDialog>
#include <functional>

#include "ask/ask.h"
#include "look/named_action.h"

class QLabel;
class QLineEdit;
class QListWidget;

namespace rigging::app {

/// How well the words fit a request: 0 not at all. Every word that tells something must begin a word of the request;
/// words that fit its text count double.
int fit_of(const QString& words, const NamedAction& request);

/// Type what you want, as you would say it: the answer, what will be done, or where it is done stands below before
/// Enter.
class AskBox : public QDialog {
  Q_OBJECT
 public:
  /// `answer`: what the words may mean on the rig that is open, and what is done with one of these.
  AskBox(QList<NamedAction> actions, std::function<std::vector<Interpretation>(const QString&)> answer,
         std::function<void(const Interpretation&)> take, QWidget* parent);

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void find(const QString& words);
  void act();
  void foretell();

  QList<NamedAction> actions_;
  std::function<std::vector<Interpretation>(const QString&)> answer_;
  std::function<void(const Interpretation&)> take_;
  std::vector<Interpretation> answers_;
  QLineEdit* line_;
  QListWidget* list_;
  QLabel* foretold_;
};

}  // namespace rigging::app
