#pragma once

#include <QColor>
#include <QFont>
#include <QObject>

#include "base/station.h"

class QPainter;

namespace rigging::app {

/// The inks of one theme. Meaning is never by ink alone: see `draw_severity` and `draw_station_mark`.
struct Inks {
  QColor paper, sheet, line, ink, soft, teal, rust, ochre, slate, moss, wash;
};

enum class Theme { paper, field, dark };

/// Type, inks and style of the whole application; tells when they change.
class Style : public QObject {
  Q_OBJECT
 public:
  static Style& instance();

  /// Lays the style sheet on what there is, and on what comes from now on. A window is made before: laid on every
  /// widget again each time that it or something above it got a parent, the sheet took two thirds of the time of its
  /// making (docs/performance.md). Later calls change nothing.
  void dress();
  void set_theme(Theme theme);
  Theme theme() const { return theme_; }
  /// How large text is, 0.8 to 2 of its usual size.
  void set_text_scale(double scale);
  double text_scale() const { return text_scale_; }
  /// Pixels at the usual size of text, for what holds text: more than half of what the text grows, it grows.
  int px(double pixels) const;
  const Inks& inks() const;
  QFont text(double points = 0, bool bold = false) const;
  /// Numbers: the text face, whose figures all have one width and whose point is narrow.
  QFont figures(double points = 0, bool bold = false) const;
  /// The face in which every letter has one width, for columns that are made with spaces.
  QFont columns(double points = 0) const;

  /// Marks by shape: grounds a solid square, fix first a half-filled one, worth knowing an open ring.
  void draw_severity(QPainter& painter, QRectF box, Severity severity) const;
  /// Nothing known: a dot; snags: half-filled square; planned: open ring; proven: tick in a ring; stale: broken ring.
  void draw_station_mark(QPainter& painter, QRectF box, StationState state) const;

 Q_SIGNALS:
  void changed();

 private:
  Style();
  void apply();
  void grow(double before);
  double base_points() const { return (theme_ == Theme::field ? 12 : 10) * text_scale_; }

  Theme theme_ = Theme::paper;
  double text_scale_ = 1;
  bool dressed_ = false;
};

inline const Inks& inks() { return Style::instance().inks(); }

}  // namespace rigging::app
