#include "document/rig_document.h"

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>
#include <QCoreApplication>
#include <QCryptographicHash>
#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QUuid>

#include "base/file.h"
#include "look/literals.h"
#include "proof/version_1.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

std::filesystem::path native(const QString& path) { return std::filesystem::path(path.toStdString()); }

/// Whoever writes a safety copy holds a lock on a file beside it as long as he runs: the number of a process says
/// nothing once another has it.
QString lock_of(const QString& copy) { return copy + u".lock"_s; }

bool still_written(const QString& copy) {
  const int fd = ::open(lock_of(copy).toStdString().c_str(), O_RDWR | O_CLOEXEC);
  if (fd < 0) return false;
  const bool held = ::flock(fd, LOCK_EX | LOCK_NB) != 0;
  ::close(fd);
  return held;
}

QByteArray digest(const std::string& text) {
  return QCryptographicHash::hash(QByteArray::fromStdString(text), QCryptographicHash::Sha256).toHex();
}

QStringList lines_of(const std::vector<Error>& errors) {
  QStringList lines;
  for (const Error& e : errors) lines << QString::fromStdString(e.text());
  return lines;
}

void remove_copy(const QString& copy) {
  QFile::remove(copy);
  QFile::remove(lock_of(copy));
}

}  // namespace

RigDocument::RigDocument(Catalogue catalogue, QString recovery_folder, QObject* parent)
    : QObject(parent),
      shipped_(std::make_shared<const Catalogue>(std::move(catalogue))),
      catalogue_(shipped_),
      recovery_folder_(std::move(recovery_folder)),
      review_(rigging::review(history_.now(), *catalogue_)),
      worker_([this](DeferredReview made) {
        deferred_ = std::move(made);
        deferred_snags_ = deferred_->snags;
        Q_EMIT deferred_ready();
      }) {
  connect(&watcher_, &QFileSystemWatcher::fileChanged, this, &RigDocument::look_at_file);
  autosave_.setSingleShot(true);
  autosave_.setInterval(1500);
  connect(&autosave_, &QTimer::timeout, this, &RigDocument::write_recovery_copy);
  saved_ = rig();
  update();
}

RigDocument::~RigDocument() {
  if (!leaving_) drop_recovery_copy();
  if (lock_ >= 0) ::close(lock_);
}

/// Whoever edits without a pause is copied all the same: the time runs from the first edit that no copy has.
void RigDocument::soon_copied() {
  if (!autosave_.isActive()) autosave_.start();
}

QString RigDocument::title() const {
  const QString name = QString::fromStdString(rig().name);
  return name.isEmpty() ? u"Unnamed rig"_s : name;
}

void RigDocument::update() {
  ++revision_;
  image_.reset();
  review_ = review_all_ ? rigging::review(rig(), *catalogue_) : review_after(rig(), review_);
  review_all_ = false;
  deferred_.reset();
  worker_.start([reports = review_.reports, catalogue = catalogue_](Progress& progress) {
    return deferred_review(reports, progress);
  });
}

std::vector<Snag> RigDocument::snags() const { return with_deferred(review_.snags, deferred_snags_); }

const link::Image& RigDocument::image() const {
  if (!image_) image_ = link::image_of(rig());
  return *image_;
}

bool RigDocument::edit(Rig rig, const QString& label) {
  if (const auto ok = can_be_kept(rig); !ok) {
    Q_EMIT refused(QString::fromStdString(ok.error().text()));
    return false;
  }
  history_.edit(std::move(rig), label.toStdString());
  update();
  soon_copied();
  Q_EMIT changed();
  return true;
}

bool RigDocument::apply(Result<Edit> made) {
  if (!made) {
    Q_EMIT refused(QString::fromStdString(made.error().text()));
    return false;
  }
  return edit(std::move(made->rig), QString::fromStdString(made->label));
}

Result<void> RigDocument::record(const CheckId& check, bool simulated) {
  const CheckStatus* status = find_check(review_.checks, check);
  const QString title = status ? QString::fromStdString(status->title) : QString();
  auto proven = with_proof(rig(), *catalogue_, check,
                           QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString(), simulated);
  if (!proven) return tl::make_unexpected(proven.error());
  if (!edit(std::move(*proven), u"Proven: %1"_s.arg(title)))
    return failure(title.toStdString(), "was not recorded", "a rig that a file can hold");
  return {};
}

void RigDocument::undo() {
  if (!history_.can_undo()) return;
  history_.undo();
  update();
  soon_copied();
  Q_EMIT changed();
}

void RigDocument::redo() {
  if (!history_.can_redo()) return;
  history_.redo();
  update();
  soon_copied();
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
  if (std::error_code unknown; std::filesystem::exists(own, unknown))
    if (auto ok = add_own_parts(catalogue, own); !ok) return tl::make_unexpected(ok.error());
  return catalogue;
}

Result<void> RigDocument::may_keep(const std::string& id, bool shipped) const {
  if (path_.isEmpty())
    return failure("this rig", "has no file yet, so that what is your own has no place beside it",
                   "save the rig first");
  if (shipped) return failure(id, "is the name of a kind that is there already", "another short name");
  return {};
}

Result<void> RigDocument::keep_own_part(const PartKind& kind) {
  if (auto ok = may_keep(kind.id, shipped_->part(kind.id)); !ok) return ok;
  if (auto ok = save_own_part(own_parts_path(native(path_)), kind); !ok) return ok;
  return read_own_again();
}

Result<void> RigDocument::keep_own_class(const ControllerClass& own) {
  if (auto ok = may_keep(own.id, shipped_->controller(own.id)); !ok) return ok;
  if (auto ok = save_own_class(own_parts_path(native(path_)), own, shipped_->shared); !ok) return ok;
  if (auto ok = read_own_again(); !ok) return ok;
  if (rig().controller.kind != own.id) {
    Rig on_it = rig();
    on_it.controller.kind = own.id;
    edit(std::move(on_it), u"Board: %1"_s.arg(QString::fromStdString(own.name)));
  }
  return {};
}

Result<void> RigDocument::read_own_again() {
  auto catalogue = catalogue_for(path_);
  if (!catalogue) return tl::make_unexpected(catalogue.error());
  set_catalogue(std::make_shared<const Catalogue>(std::move(*catalogue)));
  update();
  Q_EMIT changed();
  return {};
}

Result<void> RigDocument::open(const QString& given) {
  const QString path = QFileInfo(given).absoluteFilePath();
  auto catalogue = catalogue_for(path);
  if (!catalogue) return tl::make_unexpected(catalogue.error());
  auto read = open_rig(native(path), *catalogue);
  if (!read) return tl::make_unexpected(read.error());
  drop_recovery_copy();
  set_catalogue(std::make_shared<const Catalogue>(std::move(*catalogue)));
  path_ = path;
  now_on_disk(read->text);
  as_begun_.reset();
  history_.reset(std::move(read->rig));
  saved_ = history_.now();
  update();
  Q_EMIT changed();
  return {};
}

Result<QStringList> RigDocument::open_what_can_be_read(const QString& path) {
  const auto text = read_file(native(path));
  if (!text) return tl::make_unexpected(text.error());
  auto part = rig_as_far_as_it_goes(*text, QFileInfo(path).fileName().toStdString());
  if (!part) return tl::make_unexpected(part.error());
  start_new(with_version_1_proofs(std::move(part->rig), *shipped_));
  as_begun_.reset();
  write_recovery_copy();
  return lines_of(part->left_out);
}

void RigDocument::start_new(Rig rig) {
  drop_recovery_copy();
  set_catalogue(shipped_);
  path_.clear();
  on_disk_.clear();
  if (!watcher_.files().isEmpty()) watcher_.removePaths(watcher_.files());
  saved_ = Rig{};
  as_begun_ = rig;
  history_.reset(std::move(rig));
  update();
  Q_EMIT changed();
}

Result<void> RigDocument::save(const QString& given) {
  const QString path = QFileInfo(given).absoluteFilePath();
  if (auto ok = can_be_kept(rig()); !ok) return ok;
  // What is the builder's own stands beside the rig, and goes with it to another place.
  if (!path_.isEmpty() && path != path_)
    if (auto ok = carry_own_parts(own_parts_path(native(path_)), own_parts_path(native(path))); !ok) return ok;
  if (auto ok = save_rig(rig(), native(path)); !ok) return ok;
  path_ = path;
  now_on_disk(rig_text(rig()));
  saved_ = rig();
  drop_recovery_copy();
  Q_EMIT changed();
  return {};
}

bool RigDocument::changed_on_disk() const {
  if (path_.isEmpty() || !QFileInfo::exists(path_)) return false;
  const auto now = read_file(native(path_));
  return !now || digest(*now) != on_disk_;
}

void RigDocument::now_on_disk(const std::string& text) {
  on_disk_ = digest(text);
  if (!watcher_.files().isEmpty()) watcher_.removePaths(watcher_.files());
  watcher_.addPath(path_);
}

void RigDocument::look_at_file() {
  // Whoever writes a new file in its place takes the old one from the watcher.
  if (watcher_.files().isEmpty() && QFileInfo::exists(path_)) watcher_.addPath(path_);
  if (changed_on_disk()) Q_EMIT file_changed();
}

Result<std::vector<Differing>> RigDocument::differs_from_disk() const {
  const auto theirs = open_rig(native(path_), *catalogue_);
  if (!theirs) return tl::make_unexpected(theirs.error());
  return differing_words(theirs->rig, rig());
}

Result<void> RigDocument::take_from_disk() {
  auto theirs = open_rig(native(path_), *catalogue_);
  if (!theirs) return tl::make_unexpected(theirs.error());
  now_on_disk(theirs->text);
  saved_ = theirs->rig;
  edit(std::move(theirs->rig), u"Taken over from the file"_s);
  return {};
}

QString RigDocument::recovery_path() const { return recovery_folder_ + QLatin1Char('/') + recovery_name_; }

void RigDocument::write_recovery_copy() {
  if (!modified()) return drop_recovery_copy();
  QDir().mkpath(recovery_folder_);
  if (recovery_name_.isEmpty()) {
    recovery_name_ = u"%1.rig.json"_s.arg(QUuid::createUuid().toString(QUuid::Id128).left(12));
    lock_ = ::open(lock_of(recovery_path()).toStdString().c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0600);
    if (lock_ >= 0) (void)::flock(lock_, LOCK_EX | LOCK_NB);
  }
  // The file it belongs to travels in the copy itself: one file, one write, nothing to get out of step.
  const auto ok = save_copy({rig(), path_.toStdString(), on_disk_.toStdString()}, native(recovery_path()));
  if (!ok && !copy_failed_)
    Q_EMIT refused(u"No safety copy of unsaved work: %1"_s.arg(QString::fromStdString(ok.error().text())));
  copy_failed_ = !ok.has_value();
}

void RigDocument::drop_recovery_copy() {
  autosave_.stop();
  if (recovery_name_.isEmpty()) return;
  remove_copy(recovery_path());
  if (lock_ >= 0) ::close(lock_);
  lock_ = -1;
  recovery_name_.clear();
}

QList<RigDocument::Leftover> RigDocument::leftovers() const {
  QList<Leftover> found;
  for (const QFileInfo& info : QDir(recovery_folder_).entryInfoList({u"*.rig.json"_s}, QDir::Files, QDir::Time)) {
    if (still_written(info.filePath())) continue;
    const auto copy = load_copy(native(info.filePath()));
    // A name that does not say which folder it is in could be anybody's.
    const QString of = copy ? QString::fromStdString(copy->of) : QString();
    found.append({info.filePath(), QDir::isAbsolutePath(of) ? of : QString(),
                  copy ? QString() : QString::fromStdString(copy.error().text()),
                  copy ? lines_of(copy->left_out) : QStringList()});
  }
  return found;
}

Result<void> RigDocument::recover(const Leftover& leftover) {
  auto copy = load_copy(native(leftover.copy));
  if (!copy) return tl::make_unexpected(copy.error());
  // Where the file itself is broken or gone the copy is all there is, and stands without a file.
  const bool has_file = !leftover.of.isEmpty() && QFileInfo::exists(leftover.of);
  if (has_file && open(leftover.of)) {
    edit(with_version_1_proofs(std::move(copy->rig), *catalogue_), u"Recovered unsaved work"_s);
    // What was written into the file since then was not seen by whoever did this work: saving asks.
    if (!copy->before.empty() && copy->before != on_disk_.toStdString()) {
      on_disk_ = QByteArray::fromStdString(copy->before);
      Q_EMIT file_changed();
    }
  } else {
    start_new(with_version_1_proofs(std::move(copy->rig), *shipped_));
    as_begun_.reset();
    if (has_file)
      Q_EMIT refused(u"%1 can't be read: what was recovered is open without a file. Save it under another name."_s.arg(
          leftover.of));
  }
  write_recovery_copy();
  // What could not be read of it may be read by somebody else.
  if (copy->left_out.empty())
    remove_copy(leftover.copy);
  else if (QFile::rename(leftover.copy, leftover.copy + u".damaged"_s))
    QFile::remove(lock_of(leftover.copy));
  return {};
}

void RigDocument::leave() {
  if (unsaved_work()) write_recovery_copy();
  leaving_ = true;
}

void RigDocument::discard(const Leftover& leftover) { remove_copy(leftover.copy); }

}  // namespace rigging::app
