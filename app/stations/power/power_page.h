#pragma once

#include "stations/power/rivers_view.h"
#include "stations/station_page.h"

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace rigging::app {

/// Will the five-volt rail hold?
class PowerPage : public StationPage {
  Q_OBJECT
 public:
  explicit PowerPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<NamedAction> named_actions() override;
  const WhatIf& what_if() const { return what_if_; }

 protected:
  void refresh() override;

 private:
  void compute();
  void ask_measured();
  void toggle(std::vector<std::string>& list, const std::string& part);
  void rebuild_pulls();

  RiversView* rivers_;
  std::array<QPushButton*, 3> states_{};
  std::array<QPushButton*, 5> efforts_{};
  QPushButton *one_more_, *as_it_is_, *working_button_;
  QLabel *verdicts_, *figures_, *advice_, *explained_, *working_;
  QVBoxLayout* pulls_;
  std::vector<QPushButton*> pull_buttons_;
  std::string shown_pulls_;
  SupplyState state_ = SupplyState::battery;
  LoadCase effort_ = LoadCase::all_moving;
  WhatIf what_if_;
};

}  // namespace rigging::app
