#pragma once

#include <QObject>
#include <QProcess>
#include <QTemporaryDir>
#include <memory>

namespace rigging::app {

/// The simulated bench, run as a program of its own.
class TwinProcess : public QObject {
  Q_OBJECT
 public:
  /// What of the simulated model needs setting up.
  struct Troubles {
    bool bad_sticks = false;        ///< a badly set transmitter
    bool cold_sticks = false;       ///< gimbals that drift while they warm up
    bool crooked = false;           ///< linkages and servos that are not straight
    bool differs = false;           ///< in the air it is not quite what its rig makes one expect
    bool poor_senses = false;       ///< sensors that are off, and iron near the compass
    QStringList sense_faults = {};  ///< by name (docs/twin.md)
    bool any() const {
      return bad_sticks || cold_sticks || crooked || differs || poor_senses || !sense_faults.isEmpty();
    }
  };
  struct Options {
    QString rig_file;
    QStringList faults, lead_faults;  ///< given by name, for tests
    Troubles troubles;
    int random = 0;
    unsigned seed = 1;
    bool hidden = true;
  };

  explicit TwinProcess(QObject* parent = nullptr);
  /// Waits for what is still about to leave.
  ~TwinProcess() override;
  /// The one before leaves. Returns the folder of the new one's sockets, which it opens when it is ready.
  QString start(const Options& options);
  /// Asks it to leave and does not wait for it.
  void stop();

 Q_SIGNALS:
  /// It could not be started, or ended with a reason.
  void problem(const QString& words);

 private:
  struct Running {
    QTemporaryDir folder;
    QProcess process;
  };
  std::shared_ptr<Running> running_;
  std::vector<std::weak_ptr<Running>> leaving_;
};

}  // namespace rigging::app
