#pragma once

#include <QWidget>

#include "begin/begin.h"
#include "begin/what_next.h"
#include "document/rig_document.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QStackedWidget;
class QVBoxLayout;

namespace rigging::app {

class AircraftView;
class MeasureEdit;
class MotorChoices;

/// From nothing to a rig that is placed, fed and planned: what a builder tells of an aircraft, on one sheet, with the
/// aircraft drawn as it is told. Everything may be left open. Then: what next.
class NewAircraftPage : public QWidget {
  Q_OBJECT
 public:
  explicit NewAircraftPage(RigDocument& document, QWidget* parent = nullptr);

  /// An empty sheet, with the keyboard on the name.
  void begin_anew();
  /// Files that were open before, the latest first.
  void offer_recent(const QStringList& files);
  /// Three things to do next on the rig that is open.
  void show_next();

 Q_SIGNALS:
  /// The rig as begun, to become the open document.
  void begun(const rigging::Edit& edit);
  /// Nothing is begun, or it goes on at a station.
  void left();
  void wanted(rigging::Station station, const QString& subject);
  void open_asked();
  void recent_asked(const QString& path);
  void demo_asked();

 private:
  QWidget* make_form();
  QWidget* make_next();
  void fill_kinds();
  void fill_measures();
  void retell();
  void propose_drives();
  void show_others();
  /// Piece by piece: what was said, and as what it was understood.
  QString read_in_words(const std::vector<SaidPart>& pieces, const ControllerClass* controller) const;
  void take();
  NewAircraft told() const;
  AirframeKind kind() const;

  RigDocument& document_;
  QStackedWidget* pages_;
  QLineEdit *name_, *drive_, *others_;
  MeasureEdit *span_, *mass_;
  std::vector<MeasureEdit*> measures_;
  QWidget* measures_box_;
  QComboBox* recent_;
  MotorChoices* choices_;
  QComboBox *controller_, *receiver_;
  QListWidget *kinds_, *drives_;
  QLabel *kind_words_, *figures_, *drive_words_, *others_words_, *drive_read_, *problem_;
  QPushButton* begin_;
  AircraftView *above_, *side_, *on_paper_;
  std::vector<DriveChoice> proposed_;
  bool left_open_ = false;  ///< the sheet was left with what was told on it
  QVBoxLayout* next_;
  QLabel* next_title_;
};

}  // namespace rigging::app
