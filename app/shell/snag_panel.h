#pragma once

#include <QWidget>

#include <set>

#include "document/rig_document.h"
#include "review/grouped.h"

class QVBoxLayout;
class QScrollArea;
class QPushButton;
class QLabel;

namespace rigging::app {

/// What is in the way: for the whole rig or the station in view, worst first, one card for one cause.
class SnagPanel : public QWidget {
  Q_OBJECT
 public:
  explicit SnagPanel(RigDocument& document, QWidget* parent = nullptr);
  void set_station(Station station);
  void refresh();
  /// Puts the keyboard on the next snag and says where it belongs.
  void next();

 Q_SIGNALS:
  void take_me_there(rigging::Station station, const QString& subject);

 private:
  QWidget* card(const SnagGroup& group);
  /// The button, and room below it for what else it would do.
  void add_fix(QVBoxLayout& to, const Snag& snag);
  void mend(const Fix& fix, QPushButton& button, QLabel& with_it);
  static void tell(QPushButton& button, QLabel& with_it, const QString& words);
  QWidget* way_there(const Snag& snag);

  std::string told_label_;  ///< the fix of which was said what comes with it, and of which rig
  QString told_;
  std::optional<Rig> told_of_;
  RigDocument& document_;
  Station station_ = Station::airframe;
  QLabel* heading_;
  QPushButton* scope_;
  QScrollArea* area_;
  QList<QWidget*> cards_;
  int at_ = -1;
  std::set<std::string> unfolded_;  ///< codes of the cards that show all that is like the first
  std::string shown_;               ///< what stands there; the cards are built anew only when this changes
};

}  // namespace rigging::app
