#include "shell/help_window.h"

#include <QFileInfo>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "language/manual.h"
#include "look/literals.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

/// Pictures are as wide as the text at most.
class Chapters : public QTextBrowser {
 protected:
  QVariant loadResource(int type, const QUrl& name) override {
    // What is not of the manual is not looked for: no network, no other files.
    if (!name.isRelative() && !name.isLocalFile()) return {};
    QVariant resource = QTextBrowser::loadResource(type, name);
    if (type != QTextDocument::ImageResource) return resource;
    QImage picture = resource.typeId() == QMetaType::QByteArray ? QImage::fromData(resource.toByteArray())
                                                                : resource.value<QImage>();
    constexpr int margin = 40;
    if (picture.width() > viewport()->width() - margin)
      picture = picture.scaledToWidth(std::max(200, viewport()->width() - margin), Qt::SmoothTransformation);
    return picture;
  }
};

}  // namespace

QString manual_folder(const QString& data_folder) {
  const auto folder = manual_beside(data_folder.toStdString());
  return folder.empty() ? QString() : QFileInfo(QString::fromStdString(folder.string())).canonicalFilePath();
}

HelpWindow::HelpWindow(const QString& folder, QWidget* parent) : QDialog(parent), folder_(folder) {
  setObjectName(u"help_window"_s);
  setWindowTitle(u"Manual"_s);
  resize(760, 680);
  auto* layout = new QVBoxLayout(this);
  auto* keys = new QHBoxLayout;
  auto* back = hinted_button(u"Back"_s, "help_back", u"To the chapter before"_s);
  auto* all = hinted_button(u"All chapters"_s, "help_all", u"What the manual has"_s);
  auto* close = hinted_button(u"Close"_s, "help_close", u"The manual; F1 brings it again"_s);
  keys->addWidget(back);
  keys->addWidget(all);
  keys->addStretch();
  keys->addWidget(close);
  text_ = new Chapters;
  text_->setObjectName(u"help_text"_s);
  text_->setOpenExternalLinks(false);
  text_->setAccessibleName(u"Chapter of the manual"_s);
  layout->addLayout(keys);
  layout->addWidget(text_, 1);
  connect(back, &QPushButton::clicked, text_, &QTextBrowser::backward);
  connect(all, &QPushButton::clicked, this, [this] { show_chapter(u"README"_s); });
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  connect(text_, &QTextBrowser::backwardAvailable, back, &QPushButton::setEnabled);
  back->setEnabled(false);
}

void HelpWindow::show_chapter(const QString& name) {
  const QString file = folder_ + QLatin1Char('/') + name + u".md"_s;
  if (folder_.isEmpty()) {
    text_->setPlainText(u"The manual was not installed with the program."_s);
  } else {
    text_->setSource(QUrl::fromLocalFile(QFileInfo(file).isFile() ? file : folder_ + u"/README.md"_s),
                     QTextDocument::MarkdownResource);
  }
  show();
  raise();
  text_->setFocus(Qt::OtherFocusReason);
}

}  // namespace rigging::app
