#pragma once

#include <QWidget>
#include <optional>
#include <vector>

namespace rigging::app {

/// The sphere of directions, unrolled as paper gores: what the compass was turned through, and where it points now.
class GoreMap : public QWidget {
  Q_OBJECT
 public:
  explicit GoreMap(QWidget* parent = nullptr);
  /// By `gore_cell`; `now` is the cell that the compass reads at this moment.
  void show_cells(const std::vector<bool>& seen, const std::optional<std::size_t>& now);
  QSize sizeHint() const override { return {560, 260}; }
  QSize minimumSizeHint() const override { return {240, 120}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<bool> seen_;
  std::optional<std::size_t> now_;
};

}  // namespace rigging::app
