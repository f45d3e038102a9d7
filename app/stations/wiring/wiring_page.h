#pragma once

#include "bench/bench_link.h"
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
  explicit WiringPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override { return view_; }
  QList<NamedAction> named_actions() override;
  void plan();

 protected:
  void refresh() override;

 private:
  void show_sheets();
  void describe_board();
  void set_ports();
  void choose(const std::string& lead);
  void mark_chosen(const char* flag, bool on);
  void say(const QString& words);
  void offer_actions(const std::string& lead, const QPoint& at);
  void fill_table();
  void show_check();
  /// On to a lead that is still to be looked at.
  void choose_next();
  void seen_of(const std::string& lead, const Json& seen);

  WiringView* view_;
  QTableWidget* table_;
  QLabel *chosen_, *plan_words_, *free_, *check_words_;
  QPushButton *plan_, *red_, *fixed_, *turned_, *pair_, *sheets_, *inspect_, *mend_, *right_, *battery_;
  std::string inspected_;  ///< the lead of which `seen_words_` tells
  QString seen_words_;
  std::string shown_;
  bool refreshing_ = false;
};

}  // namespace rigging::app
