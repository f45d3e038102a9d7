#pragma once

#include <QDialog>
#include <functional>

class QLineEdit;
class QListWidget;

namespace rigging::app {

/// Something that can be asked for in words.
struct Deed {
  QString text;
  QString also;  ///< further words under which it is found
  std::function<void()> act;
};

/// How well the words fit a deed: 0 not at all. Every word must begin a word of the deed; words that fit its text count
/// double.
int fit_of(const QString& words, const Deed& deed);

/// Type what you want, go there or do it.
class AskBox : public QDialog {
  Q_OBJECT
 public:
  AskBox(QList<Deed> deeds, QWidget* parent);

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void find(const QString& words);
  void act();

  QList<Deed> deeds_;
  QLineEdit* line_;
  QListWidget* list_;
};

}  // namespace rigging::app
