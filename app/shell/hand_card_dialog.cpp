#include "shell/hand_card_dialog.h"

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

#include "direction/from_rig.h"

namespace rigging::app {

HandCardDialog::HandCardDialog(const RigDocument& document, const std::vector<HandCard>& cards, QWidget* parent) : QDialog(parent) {
  setObjectName(QStringLiteral("hand_card_dialog"));
  setWindowTitle(tr("Hand cards"));
  resize(760, 620);
  auto* layout = new QVBoxLayout(this);
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  auto* inside = new QWidget;
  auto* list = new QVBoxLayout(inside);
  const ControllerClass* controller = document.controller();
  for (const HandCard& card : cards) {
    if (!controller) break;
    const auto c = direction::case_from_rig(document.rig(), *controller);
    svgs_ << QString::fromStdString(hand_card_svg(card, document.rig(), *controller, c));
    auto* picture = new QSvgWidget;
    picture->load(svgs_.back().toUtf8());
    picture->setFixedSize(700, 497);
    picture->setAccessibleName(QString::fromStdString(card.title));
    list->addWidget(picture);
  }
  list->addStretch();
  area->setWidget(inside);
  layout->addWidget(area);
  auto* buttons = new QHBoxLayout;
  buttons->addStretch();
  auto* pdf = new QPushButton(tr("Save as PDF…"));
  auto* print = new QPushButton(tr("Print…"));
  auto* close = new QPushButton(tr("Close"));
  close->setObjectName(QStringLiteral("close"));
  for (QPushButton* b : {pdf, print, close}) buttons->addWidget(b);
  layout->addLayout(buttons);
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  connect(pdf, &QPushButton::clicked, this, [this] {
    const QString path = QFileDialog::getSaveFileName(this, tr("Save hand cards"), QStringLiteral("hand-cards.pdf"), tr("PDF (*.pdf)"));
    if (!path.isEmpty() && !write_pdf(path)) QMessageBox::warning(this, tr("Hand cards"), tr("%1 could not be written.").arg(path));
  });
  connect(print, &QPushButton::clicked, this, [this] {
    QPrinter printer(QPrinter::HighResolution);
    if (QPrintDialog(&printer, this).exec() == QDialog::Accepted) draw_all(printer);
  });
}

void HandCardDialog::draw_all(QPrinter& printer) const {
  printer.setPageSize(QPageSize(QPageSize::A6));
  printer.setPageOrientation(QPageLayout::Landscape);
  printer.setPageMargins(QMarginsF(0, 0, 0, 0));
  QPainter painter(&printer);
  for (int i = 0; i < svgs_.size(); ++i) {
    if (i > 0) printer.newPage();
    QSvgRenderer renderer(svgs_[i].toUtf8());
    renderer.render(&painter, QRectF(0, 0, painter.viewport().width(), painter.viewport().width() * 105.0 / 148.0));
  }
}

bool HandCardDialog::write_pdf(const QString& path) const {
  QFile probe(path);
  if (!probe.open(QIODevice::WriteOnly)) return false;
  probe.close();
  QPrinter printer(QPrinter::HighResolution);
  printer.setOutputFormat(QPrinter::PdfFormat);
  printer.setOutputFileName(path);
  draw_all(printer);
  return QFileInfo(path).size() > 0;
}

}  // namespace rigging::app
