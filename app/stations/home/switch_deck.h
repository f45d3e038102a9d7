#pragma once

#include <QWidget>

#include "home/modes.h"

namespace rigging::app {

/// The switches that choose modes, side by side as they lie under the fingers, each with its positions; one way of
/// standing is chosen, and what flies then is said.
class SwitchDeck : public QWidget {
  Q_OBJECT
 public:
  explicit SwitchDeck(QWidget* parent = nullptr);

  void show_deck(ModeDeck deck);
  /// Null without a deck.
  const ModeCase* chosen() const { return deck_.at(at_); }
  /// Moves one switch to a position of it.
  void move_switch(std::size_t which, std::size_t position);

  QSize sizeHint() const override { return {640, 460}; }
  QSize minimumSizeHint() const override { return {380, 260}; }

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QRectF plate(std::size_t which) const;
  QPointF knob(std::size_t which, std::size_t position) const;

  ModeDeck deck_;
  std::vector<std::size_t> at_;
  std::size_t hand_ = 0;  ///< the switch that the keys move
};

}  // namespace rigging::app
