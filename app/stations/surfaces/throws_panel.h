#pragma once

#include <QElapsedTimer>
#include <QWidget>

#include "bench/bench_link.h"
#include "document/rig_document.h"
#include "surfaces/surface_checks.h"
#include "surfaces/surfaces.h"

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QPushButton;

namespace rigging::app {

/// Reads a surface with a gauge at five places of its output, says what hands and settings have to change, and records
/// what then holds.
class ThrowsPanel : public QWidget {
  Q_OBJECT
 public:
  ThrowsPanel(RigDocument& document, BenchLink& bench, QWidget* parent = nullptr);
  void show_surface(Surface surface);
  void refresh();

  enum class State { idle, reading, answered };
  State state() const { return state_; }
  /// What the centring says, once read.
  const std::optional<Centring>& answer() const { return answer_; }
  double pulse_us() const;

 Q_SIGNALS:
  void moved();
  void gauges_asked();

 private:
  void begin();
  void take(double up_deg);
  void finish();
  void by_hand();
  void set();
  void record(const CheckId& check);
  void drive_there();
  void hold_sticks(const Command& command);
  void let_go();
  bool driven() const;
  /// Eyes wait until the surface stands still.
  void watch();
  double level() const;
  double typed_deg() const;

  RigDocument& document_;
  BenchLink& bench_;
  Surface surface_;
  QLabel *todo_, *remark_, *answer_words_, *proofs_, *caution_;
  QDoubleSpinBox* value_;
  QComboBox* unit_;
  QPushButton *begin_, *take_, *eyes_, *hands_, *set_, *write_, *record_centred_, *record_throws_, *supply_;
  QWidget* entry_;
  State state_ = State::idle;
  std::size_t at_ = 0;
  std::vector<ThrowReading> readings_;
  std::optional<Centring> answer_;
  QString problem_;
  bool drove_ = false;
  QElapsedTimer still_since_;
  double still_deg_ = 0;
  int looks_ = 0;
};

}  // namespace rigging::app
