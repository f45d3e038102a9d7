#pragma once

#include <QWidget>
#include <algorithm>

#include "checks/checks.h"

namespace rigging::app {

/// The proofs as a chain, the state of each by shape. Families with many checks (leads) are one link.
class ProofChain : public QWidget {
  Q_OBJECT
 public:
  explicit ProofChain(QWidget* parent = nullptr);
  void set_checks(const std::vector<CheckStatus>& checks);
  void set_current(const std::string& id);
  QSize sizeHint() const override { return {196, static_cast<int>(links_.size()) * 46 + 8}; }

 Q_SIGNALS:
  void chosen(const QString& id);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

 private:
  int pitch() const;  ///< from link to link: two lines where there is room
  struct Link {
    std::string id;  ///< of the check that it leads to
    QString name;
    ProofState state;  ///< the worst of a family
    QString words;
    std::vector<std::string> checks;  ///< all of them

    bool holds(const std::string& check) const {
      return std::find(checks.begin(), checks.end(), check) != checks.end();
    }
  };
  std::vector<Link> links_;
  std::string current_;
};

}  // namespace rigging::app
