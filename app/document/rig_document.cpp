#include "document/rig_document.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QUuid>
#include <csignal>

#include "base/json.h"
#include "proof/version_1.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

std::filesystem::path native(const QString& path) { return std::filesystem::path(path.toStdString()); }

/// A copy names the process that writes it, so that a running neighbour's work is not taken for a leftover.
bool still_running(const QString& copy) {
  const auto pid = QFileInfo(copy).fileName().section(QLatin1Char('-'), 0, 0).toLongLong();
  return pid > 0 && (pid == QCoreApplication::applicationPid() || ::kill(static_cast<pid_t>(pid), 0) == 0);
}

}  // namespace

RigDocument::RigDocument(Catalogue catalogue, QString recovery_folder, QObject* parent)
    : QObject(parent),
      shipped_(std::make_shared<const Catalogue>(std::move(catalogue))),
      catalogue_(shipped_),
      recovery_folder_(std::move(recovery_folder)),
      worker_([this](DeferredReview made) {
        deferred_ = std::move(made);
        Q_EMIT deferred_ready();
      }) {
  autosave_.setSingleShot(true);
  autosave_.setInterval(400);
  connect(&autosave_, &QTimer::timeout, this, &RigDocument::write_recovery_copy);
  saved_ = rig();
  update();
}

RigDocument::~RigDocument() { drop_recovery_copy(); }

QString RigDocument::title() const {
  const QString name = QString::fromStdString(rig().name);
  return name.isEmpty() ? tr("Unnamed rig") : name;
}

void RigDocument::update() {
  ++revision_;
  image_.reset();
  review_ = review_all_ ? rigging::review(rig(), *catalogue_) : review_after(rig(), *catalogue_, reviewed_, review_);
  review_all_ = false;
  reviewed_ = rig();
  deferred_.reset();
  worker_.start(
      [rig = rig(), catalogue = catalogue_](Progress& progress) { return deferred_review(rig, *catalogue, progress); });
}

const link::Image& RigDocument::image() const {
  if (!image_) image_ = link::image_of(rig());
  return *image_;
}

void RigDocument::edit(Rig rig, const QString& label) {
  history_.edit(std::move(rig), label.toStdString());
  update();
  autosave_.start();
  Q_EMIT changed();
}

bool RigDocument::apply(Result<Edit> made) {
  if (!made) {
    Q_EMIT refused(QString::fromStdString(made.error().text()));
    return false;
  }
  edit(std::move(made->rig), QString::fromStdString(made->label));
  return true;
}

Result<void> RigDocument::record(const CheckId& check, bool simulated) {
  const CheckStatus* status = find_check(review_.checks, check);
  const QString title = status ? QString::fromStdString(status->title) : QString();
  auto proven = with_proof(rig(), *catalogue_, check,
                           QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString(), simulated);
  if (!proven) return tl::make_unexpected(proven.error());
  edit(std::move(*proven), tr("Proven: %1").arg(title));
  return {};
}

void RigDocument::undo() {
  if (!history_.can_undo()) return;
  history_.undo();
  update();
  autosave_.start();
  Q_EMIT changed();
}

void RigDocument::redo() {
  if (!history_.can_redo()) return;
  history_.redo();
  update();
  autosave_.start();
  Q_EMIT changed();
}

void RigDocument::set_catalogue(std::shared_ptr<const Catalogue> catalogue) {
  catalogue_ = std::move(catalogue);
  review_all_ = true;
}

void RigDocument::say_again() {
  review_all_ = true;
  update();
  Q_EMIT changed();
}

Result<Catalogue> RigDocument::catalogue_for(const QString& path) const {
  Catalogue catalogue = *shipped_;
  const auto own = own_parts_path(native(path));
  if (std::filesystem::exists(own))
    if (auto ok = add_own_parts(catalogue, own); !ok) return tl::make_unexpected(ok.error());
  return catalogue;
}

Result<void> RigDocument::keep_own_part(const PartKind& kind) {
  if (path_.isEmpty())
    return failure("this rig", "has no file yet, so that your own parts have no place beside it", "save the rig first");
  if (shipped_->part(kind.id))
    return failure(kind.id, "is the name of a kind that is there already", "another short name");
  if (auto ok = save_own_part(own_parts_path(native(path_)), kind); !ok) return ok;
  auto catalogue = catalogue_for(path_);
  if (!catalogue) return tl::make_unexpected(catalogue.error());
  set_catalogue(std::make_shared<const Catalogue>(std::move(*catalogue)));
  update();
  Q_EMIT changed();
  return {};
}

Result<void> RigDocument::open(const QString& path) {
  auto catalogue = catalogue_for(path);
  if (!catalogue) return tl::make_unexpected(catalogue.error());
  auto rig = open_rig(native(path), *catalogue);
  if (!rig) return tl::make_unexpected(rig.error());
  drop_recovery_copy();
  set_catalogue(std::make_shared<const Catalogue>(std::move(*catalogue)));
  path_ = path;
  history_.reset(std::move(*rig));
  saved_ = history_.now();
  update();
  Q_EMIT changed();
  return {};
}

void RigDocument::start_new(Rig rig) {
  drop_recovery_copy();
  set_catalogue(shipped_);
  path_.clear();
  saved_ = Rig{};
  history_.reset(std::move(rig));
  update();
  Q_EMIT changed();
}

Result<void> RigDocument::save(const QString& path) {
  if (auto ok = save_rig(rig(), native(path)); !ok) return ok;
  path_ = path;
  saved_ = rig();
  drop_recovery_copy();
  Q_EMIT changed();
  return {};
}

QString RigDocument::recovery_path() const { return recovery_folder_ + QLatin1Char('/') + recovery_name_; }

void RigDocument::write_recovery_copy() {
  if (!modified()) return drop_recovery_copy();
  if (recovery_name_.isEmpty())
    recovery_name_ = QStringLiteral("%1-%2.rig.json")
                         .arg(QCoreApplication::applicationPid())
                         .arg(QUuid::createUuid().toString(QUuid::Id128).left(8));
  QDir().mkpath(recovery_folder_);
  // The file it belongs to travels in the copy itself: one file, one write, nothing to get out of step.
  (void)save_copy({rig(), path_.toStdString()}, native(recovery_path()));
}

void RigDocument::drop_recovery_copy() {
  autosave_.stop();
  if (!recovery_name_.isEmpty()) QFile::remove(recovery_path());
}

QList<RigDocument::Leftover> RigDocument::leftovers() const {
  QList<Leftover> found;
  for (const QFileInfo& info :
       QDir(recovery_folder_).entryInfoList({QStringLiteral("*.rig.json")}, QDir::Files, QDir::Time)) {
    if (still_running(info.filePath())) continue;
    if (const auto copy = load_copy(native(info.filePath())))
      found.append({info.filePath(), QString::fromStdString(copy->of)});
  }
  return found;
}

Result<void> RigDocument::recover(const Leftover& leftover) {
  auto copy = load_copy(native(leftover.copy));
  if (!copy) return tl::make_unexpected(copy.error());
  if (!leftover.of.isEmpty() && QFileInfo::exists(leftover.of)) {
    if (auto ok = open(leftover.of); !ok) return ok;
    edit(with_version_1_proofs(std::move(copy->rig), *catalogue_), tr("Recovered unsaved work"));
  } else {
    start_new(with_version_1_proofs(std::move(copy->rig), *shipped_));
  }
  write_recovery_copy();
  QFile::remove(leftover.copy);
  return {};
}

void RigDocument::discard(const Leftover& leftover) { QFile::remove(leftover.copy); }

}  // namespace rigging::app
