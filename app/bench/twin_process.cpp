#include "bench/twin_process.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QTimer>

#include "look/literals.h"
#include "time/clock.h"

namespace rigging::app {
namespace {

constexpr int leaves_within_ms = 1500;

QStringList arguments_of(const TwinProcess::Options& o, const QString& sockets) {
  QStringList arguments{o.rig_file, u"--sockets"_s, sockets, u"--with-parent"_s};
  const auto flag = [&](bool on, const char* name) {
    if (on) arguments << QLatin1String(name);
  };
  for (const QString& fault : o.faults) arguments << u"--fault"_s << fault;
  for (const QString& fault : o.lead_faults) arguments << u"--lead-fault"_s << fault;
  for (const QString& fault : o.troubles.sense_faults) arguments << u"--sense-fault"_s << fault;
  flag(o.troubles.bad_sticks, "--bad-sticks");
  flag(o.troubles.cold_sticks, "--cold-sticks");
  flag(o.troubles.poor_senses, "--poor-senses");
  flag(o.troubles.differs, "--differs");
  flag(o.troubles.crooked, "--crooked");
  if (o.troubles.any() || o.random > 0) arguments << u"--seed"_s << QString::number(o.seed);
  if (o.random > 0) arguments << u"--random"_s << QString::number(o.random);
  flag(o.hidden, "--hidden");
  flag(Clock::instance().by_hand(), "--time-by-hands");
  return arguments;
}

}  // namespace

TwinProcess::TwinProcess(QObject* parent) : QObject(parent) {}

TwinProcess::~TwinProcess() {
  blockSignals(true);
  stop();
  for (const auto& weak : leaving_)
    if (const auto left = weak.lock(); left && !left->process.waitForFinished(leaves_within_ms)) {
      left->process.kill();
      left->process.waitForFinished(500);
    }
}

QString TwinProcess::start(const Options& options) {
  stop();
  running_ = std::make_shared<Running>();
  QProcess& process = running_->process;
  connect(&process, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
    if (error == QProcess::FailedToStart) Q_EMIT problem(u"The simulated bench (rigging-twin) could not be started"_s);
  });
  connect(&process, &QProcess::finished, this, [this, &process](int code) {
    const QString said = QString::fromUtf8(process.readAllStandardError()).trimmed();
    if (code != 0 && !said.isEmpty()) Q_EMIT problem(said);
  });
  QString program = QCoreApplication::applicationDirPath() + u"/rigging-twin"_s;
  if (!QFileInfo::exists(program)) program = u"rigging-twin"_s;
  process.start(program, arguments_of(options, running_->folder.path()));
  return running_->folder.path();
}

void TwinProcess::stop() {
  if (!running_) return;
  QProcess& process = running_->process;
  process.disconnect(this);
  if (process.state() != QProcess::NotRunning) {
    // Its folder goes when it has gone; whoever does not go by asking is made to.
    std::erase_if(leaving_, [](const auto& weak) { return weak.expired(); });
    leaving_.push_back(running_);
    connect(&process, &QProcess::finished, &process, [kept = running_]() mutable {
      QTimer::singleShot(0, QCoreApplication::instance(), [gone = std::move(kept)] {});
    });
    QTimer::singleShot(leaves_within_ms, &process, [&process] { process.kill(); });
    process.terminate();
  }
  running_.reset();
}

}  // namespace rigging::app
