#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QTimer>

#include "catalogue/catalogue.h"
#include "document/worker.h"
#include "edit/edit.h"
#include "link/image.h"
#include "review/deferred.h"
#include "review/review.h"
#include "rig/differing.h"
#include "rig/history.h"

namespace rigging::app {

/// The open rig: its value, its history, what follows from it, and its safety copies.
class RigDocument : public QObject {
  Q_OBJECT
 public:
  /// `recovery_folder` keeps a copy of unsaved work; removed when the work is saved or given up.
  RigDocument(Catalogue catalogue, QString recovery_folder, QObject* parent = nullptr);
  ~RigDocument() override;

  const Rig& rig() const { return history_.now(); }
  const Catalogue& catalogue() const { return *catalogue_; }
  /// Those of the review, and those of the second tier as it last stood.
  std::vector<Snag> snags() const;
  /// For jobs, which outlive a change of it.
  std::shared_ptr<const Catalogue> shared_catalogue() const { return catalogue_; }
  /// Null when the rig names a class that the catalogue does not have.
  const ControllerClass* controller() const { return catalogue_->controller(rig().controller.kind); }
  const Review& review() const { return review_; }
  /// The second tier of the review; null while it is being computed.
  const DeferredReview* deferred() const { return deferred_ ? &*deferred_ : nullptr; }
  /// Grows with every change of the rig or of what follows from it.
  unsigned revision() const { return revision_; }
  /// What a controller would hold of it.
  const link::Image& image() const;
  const History& history() const { return history_; }
  const QString& path() const { return path_; }
  QString title() const;
  bool modified() const { return !(rig() == saved_); }
  /// True when something would be lost without a question: work that is in no file, but for a rig as it was begun.
  bool unsaved_work() const { return modified() && !(as_begun_ && rig() == *as_begun_); }
  /// Another program, or another window, has written the file since it was opened or saved here.
  bool changed_on_disk() const;
  /// What the file (first) and what is open say differently; an error when the file can't be read as a rig.
  Result<std::vector<Differing>> differs_from_disk() const;
  /// What the file holds now becomes the open rig, as an edit that can be undone.
  Result<void> take_from_disk();

  /// False, with the reason told by `refused`, for a rig that no file could hold.
  bool edit(Rig rig, const QString& label);
  /// Makes an edit of core; what could not be done is told by `refused`.
  bool apply(Result<Edit> edit);
  /// Records the check as passed now; refused with the reason when it does not pass.
  Result<void> record(const CheckId& check, bool simulated);
  void undo();
  void redo();

  /// The words of the reports follow another choice of units.
  void say_again();

  Result<void> open(const QString& path);
  /// As much as a damaged file, or what an interrupted save left of it, still says: a rig without a file, that nothing
  /// overwrites. What is not as it was written is told.
  Result<QStringList> open_what_can_be_read(const QString& path);
  void start_new(Rig rig);
  Result<void> save(const QString& path);
  /// Writes the kind to the parts file beside the rig and makes it known. The rig must have a file already.
  Result<void> keep_own_part(const PartKind& kind);
  /// Is the class one of the builder's own?
  bool is_own_class(const std::string& id) const {
    return catalogue_->controller(id) != nullptr && shipped_->controller(id) == nullptr;
  }
  bool is_own_part(const std::string& id) const {
    return catalogue_->part(id) != nullptr && shipped_->part(id) == nullptr;
  }
  /// The same for a board; the rig is on it from then on.
  Result<void> keep_own_class(const ControllerClass& own);

  /// Copies that an earlier run left behind.
  struct Leftover {
    QString copy;
    QString of;                 ///< the file it belongs to, absolute; empty for a rig that never had one
    QString problem;            ///< why the copy can't be read; empty when it can
    QStringList left_out = {};  ///< what of it can't be read, when the rest can
  };
  QList<Leftover> leftovers() const;
  Result<void> recover(const Leftover& leftover);
  void discard(const Leftover& leftover);
  void write_recovery_copy();
  /// The program is told to end now: unsaved work is copied at once, and stays for the next run.
  void leave();

 Q_SIGNALS:
  /// An edit could not be made: where, what, and what was expected.
  void refused(const QString& words);
  void changed();
  /// Somebody else has written the file while it is open here.
  void file_changed();
  /// The second tier has arrived.
  void deferred_ready();

 private:
  void update();
  Result<Catalogue> catalogue_for(const QString& path) const;
  /// May something of the builder's own have this id, and is there a file that it can stand beside?
  Result<void> may_keep(const std::string& id, bool shipped) const;
  Result<void> read_own_again();
  QString recovery_path() const;
  void soon_copied();
  void now_on_disk(const std::string& text);
  void look_at_file();
  void drop_recovery_copy();

  void set_catalogue(std::shared_ptr<const Catalogue> catalogue);

  std::shared_ptr<const Catalogue> shipped_, catalogue_;  ///< shared with the jobs that look at them
  QString recovery_folder_, path_, recovery_name_;
  History history_;
  Rig saved_;
  std::optional<Rig> as_begun_;  ///< a new rig as it was begun, which nobody has worked on yet
  QByteArray on_disk_;           ///< digest of what the file held when it was last read or written here
  QFileSystemWatcher watcher_;
  bool copy_failed_ = false;  ///< said once
  bool leaving_ = false;      ///< the safety copy is not dropped any more
  int lock_ = -1;             ///< held on the file that says whose the safety copy is
  Review review_;             ///< of `rig()`
  bool review_all_ = true;    ///< catalogue or units have changed: nothing can be taken over
  std::optional<DeferredReview> deferred_;
  std::vector<Snag> deferred_snags_;  ///< stay until the next ones are there, so that cards do not flicker
  Worker<DeferredReview> worker_;
  unsigned revision_ = 0;
  mutable std::optional<link::Image> image_;
  QTimer autosave_;
};

}  // namespace rigging::app
