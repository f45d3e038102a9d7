#include "shell/sheet_dialog.h"

#include <QCheckBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QMessageBox>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QScrollArea>
#include <QSvgRenderer>
#include <QSvgWidget>
#include <QVBoxLayout>

#include "base/file.h"
#include "document/folders.h"
#include "document/replace_question.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "paper.h"
#include "sheets/sketch.h"

namespace rigging::app {

SheetDialog::SheetDialog(const QString& title, QList<Sheet> sheets, QWidget* parent)
    : QDialog(parent), sheets_(std::move(sheets)) {
  setObjectName(u"sheet_dialog"_s);
  setWindowTitle(title);
  resize(760, 620);
  auto* layout = new QVBoxLayout(this);
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  auto* inside = new QWidget;
  auto* list = new QVBoxLayout(inside);
  for (const Sheet& sheet : sheets_) {
    auto* picture = new QSvgWidget;
    picture->load(sheet.svg.toUtf8());
    const QSizeF size = picture->renderer()->viewBoxF().size();
    picture->setFixedSize(700, static_cast<int>(700 * size.height() / std::max(1.0, size.width())));
    picture->setAccessibleName(sheet.title);
    list->addWidget(picture);
  }
  list->addStretch();
  area->setWidget(inside);
  layout->addWidget(area);
  auto* buttons = new QHBoxLayout;
  apart_ = new QCheckBox(u"As SVG each sheet in a file of its own"_s);
  apart_->setObjectName(u"sheets_apart"_s);
  apart_->setVisible(sheets_.size() > 1);
  buttons->addWidget(apart_);
  buttons->addStretch();
  auto* svg = new QPushButton(u"Keep as SVG…"_s);
  auto* pdf = new QPushButton(u"Keep as PDF…"_s);
  auto* on_paper = new QPushButton(u"Print…"_s);
  auto* close = new QPushButton(u"Close"_s);
  close->setObjectName(u"close"_s);
  for (QPushButton* b : {svg, pdf, on_paper, close}) buttons->addWidget(b);
  layout->addLayout(buttons);
  kept_ = wrapping_words(9);
  kept_->setObjectName(u"sheet_kept"_s);
  layout->addWidget(kept_);
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  const auto keep = [this, title](const QString& ending, const QString& filter,
                                  bool (SheetDialog::*write)(const QString&) const) {
    QString path = QFileDialog::getSaveFileName(
        this, title,
        in_remembered_folder(u"sheet"_s, title.toLower().replace(QLatin1Char(' '), QLatin1Char('-')) + ending), filter);
    if (path.isEmpty()) return;
    const QString chosen = path;
    if (!path.endsWith(ending)) path += ending;
    if (!may_replace(this, path, chosen)) return;
    if (!(this->*write)(path)) {
      QMessageBox::warning(this, title, u"%1 could not be written."_s.arg(path));
      return;
    }
    remember_folder(u"sheet"_s, path);
    kept_->setText(u"Kept: %1"_s.arg(path));
  };
  connect(svg, &QPushButton::clicked, this, [keep] { keep(u".svg"_s, u"SVG (*.svg)"_s, &SheetDialog::write_svg); });
  connect(pdf, &QPushButton::clicked, this, [keep] { keep(u".pdf"_s, u"PDF (*.pdf)"_s, &SheetDialog::write_pdf); });
  connect(on_paper, &QPushButton::clicked, this, [this] {
    QPrinter printer(QPrinter::HighResolution);
    if (QPrintDialog(&printer, this).exec() == QDialog::Accepted) print(printer);
  });
}

void SheetDialog::print(QPrinter& printer) const {
  printer.setFullPage(true);
  QPainter painter;
  for (int i = 0; i < sheets_.size(); ++i) {
    const QByteArray svg = sheets_[i].svg.toUtf8();
    const QSizeF mm = sheet_size(svg);
    printer.setPageSize(QPageSize(mm, QPageSize::Millimeter));
    if (i == 0)
      painter.begin(&printer);
    else
      printer.newPage();
    draw_sheet(painter, svg, printer.resolution() / 25.4);
  }
}

bool SheetDialog::write_pdf(const QString& path) const {
  std::vector<std::string> pages;
  for (const Sheet& sheet : sheets_) pages.push_back(sheet.svg.toStdString());
  return rigging::write_pdf(pages, path.toStdString()).has_value();
}

bool SheetDialog::write_svg(const QString& path) const {
  if (sheets_.isEmpty()) return false;
  if (!apart_->isChecked()) {
    std::vector<std::string> pages;
    for (const Sheet& sheet : sheets_) pages.push_back(sheet.svg.toStdString());
    return write_file_atomically(path.toStdString(), sheets_below_each_other(pages)).has_value();
  }
  bool good = true;
  for (int i = 0; i < sheets_.size(); ++i) {
    QString name = path;
    if (sheets_.size() > 1) name.insert(name.size() - 4, u"-%1"_s.arg(i + 1));
    good = good && write_file_atomically(name.toStdString(), sheets_[i].svg.toStdString()).has_value();
  }
  return good;
}

}  // namespace rigging::app
