#pragma once

#include <QWidget>

#include "proof/checks.h"

namespace rigging::app {

/// The proofs as a chain: one link per check, its state by shape.
class ProofChain : public QWidget {
  Q_OBJECT
 public:
  explicit ProofChain(QWidget* parent = nullptr);
  void set_checks(const std::vector<CheckStatus>& checks);
  void set_current(const std::string& id);
  QSize sizeHint() const override { return {196, static_cast<int>(checks_.size()) * 46 + 8}; }

 Q_SIGNALS:
  void chosen(const QString& id);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

 private:
  std::vector<CheckStatus> checks_;
  std::string current_;
};

}  // namespace rigging::app
