#pragma once

#include "stations/station_page.h"
#include "stations/wiring/wiring_view.h"

class QLabel;
class QPushButton;
class QTableWidget;

namespace rigging::app {

/// What plugs in where?
class WiringPage : public StationPage {
  Q_OBJECT
 public:
  WiringPage(RigDocument& document, QWidget* parent);
  void refresh() override;
  void go_to(const QString& subject) override;
  QWidget* first_focus() override { return view_; }
  void plan();

 Q_SIGNALS:
  void sheets_asked();

 private:
  void choose(const std::string& lead);
  void edit_chosen(const QString& label, const std::function<void(Lead&)>& change);
  void fill_table();

  WiringView* view_;
  QTableWidget* table_;
  QLabel *chosen_, *plan_words_, *free_;
  QPushButton *plan_, *red_, *fixed_, *turned_, *pair_, *sheets_;
  std::string shown_;
  bool refreshing_ = false;
};

}  // namespace rigging::app
