#pragma once

#include <QWidget>

#include "document/rig_document.h"

class QVBoxLayout;
class QScrollArea;
class QPushButton;
class QLabel;

namespace rigging::app {

/// What is in the way: for the whole rig or the station in view, worst first.
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
  QWidget* card(const Snag& snag);

  RigDocument& document_;
  Station station_ = Station::airframe;
  QLabel* heading_;
  QPushButton* scope_;
  QScrollArea* area_;
  QList<QWidget*> cards_;
  int at_ = -1;
  std::string shown_;  ///< what stands there; the cards are built anew only when this changes
};

}  // namespace rigging::app
