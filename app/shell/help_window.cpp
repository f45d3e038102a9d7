#include "shell/help_window.h"

#include <QFileInfo>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

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
  for (const QString& place :
       {data_folder + QStringLiteral("/manual"), data_folder + QStringLiteral("/../docs/manual")})
    if (QFileInfo(place + QStringLiteral("/README.md")).isFile()) return QFileInfo(place).canonicalFilePath();
  return {};
}

HelpWindow::HelpWindow(const QString& folder, QWidget* parent) : QDialog(parent), folder_(folder) {
  setObjectName(QStringLiteral("help_window"));
  setWindowTitle(tr("Manual"));
  resize(760, 680);
  auto* layout = new QVBoxLayout(this);
  auto* keys = new QHBoxLayout;
  auto* back = hinted_button(tr("Back"), "help_back", tr("To the chapter before"));
  auto* all = hinted_button(tr("All chapters"), "help_all", tr("What the manual has"));
  auto* close = hinted_button(tr("Close"), "help_close", tr("The manual; F1 brings it again"));
  keys->addWidget(back);
  keys->addWidget(all);
  keys->addStretch();
  keys->addWidget(close);
  text_ = new Chapters;
  text_->setObjectName(QStringLiteral("help_text"));
  text_->setOpenExternalLinks(false);
  text_->setAccessibleName(tr("Chapter of the manual"));
  layout->addLayout(keys);
  layout->addWidget(text_, 1);
  connect(back, &QPushButton::clicked, text_, &QTextBrowser::backward);
  connect(all, &QPushButton::clicked, this, [this] { show_chapter(QStringLiteral("README")); });
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  connect(text_, &QTextBrowser::backwardAvailable, back, &QPushButton::setEnabled);
  back->setEnabled(false);
}

void HelpWindow::show_chapter(const QString& name) {
  const QString file = folder_ + QLatin1Char('/') + name + QStringLiteral(".md");
  if (folder_.isEmpty()) {
    text_->setPlainText(tr("The manual was not installed with the program."));
  } else {
    text_->setSource(QUrl::fromLocalFile(QFileInfo(file).isFile() ? file : folder_ + QStringLiteral("/README.md")),
                     QTextDocument::MarkdownResource);
  }
  show();
  raise();
  text_->setFocus(Qt::OtherFocusReason);
}

}  // namespace rigging::app
