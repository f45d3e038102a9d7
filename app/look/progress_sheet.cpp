#include "look/progress_sheet.h"

#include <QProgressBar>

#include "look/literals.h"

namespace rigging::app {
namespace {
constexpr int every_ms = 50, shown_after = 10;
}

ProgressSheet::ProgressSheet(QWidget* window, std::function<std::optional<double>()> share,
                             std::function<void()> cancel)
    : QObject(window), window_(window), share_(std::move(share)), cancel_(std::move(cancel)) {
  timer_.setInterval(every_ms);
  connect(&timer_, &QTimer::timeout, this, &ProgressSheet::look);
}

void ProgressSheet::follow(const QString& words) {
  words_ = words;
  looks_ = 0;
  timer_.start();
}

void ProgressSheet::look() {
  const auto share = share_();
  if (!share) {
    timer_.stop();
    if (dialog_) dialog_->deleteLater();
    dialog_ = nullptr;
    return;
  }
  if (++looks_ < shown_after) return;
  if (!dialog_) {
    dialog_ = new QProgressDialog(words_, u"Stop"_s, 0, 100, window_);
    dialog_->setObjectName(u"progress"_s);
    dialog_->setWindowTitle(u"Rigging"_s);
    dialog_->setWindowModality(Qt::WindowModal);
    dialog_->setMinimumDuration(0);
    dialog_->setAutoClose(false);
    dialog_->setAutoReset(false);
    if (auto* bar = dialog_->findChild<QProgressBar*>()) bar->setTextVisible(false);  // no figure is read on its green
    connect(dialog_, &QProgressDialog::canceled, this, [this] { cancel_(); });
    dialog_->show();
  }
  dialog_->setLabelText(words_);
  dialog_->setValue(static_cast<int>(100 * *share));
}

}  // namespace rigging::app
