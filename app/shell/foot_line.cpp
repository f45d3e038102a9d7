#include "shell/foot_line.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>

#include "look/look.h"

namespace rigging::app {

FootLine::FootLine(RigDocument& document, BenchLink& bench, QWidget* parent)
    : QWidget(parent), document_(document), bench_(bench) {
  setFixedHeight(34);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(12, 2, 8, 2);
  layout->setSpacing(16);
  link_ = new QLabel;
  link_->setObjectName(QStringLiteral("foot_link"));
  link_->setProperty("soft", true);
  readiness_ = new QLabel;
  readiness_->setObjectName(QStringLiteral("foot_readiness"));
  readiness_->setFont(Look::instance().text(10, true));
  said_ = new QLabel;
  said_->setObjectName(QStringLiteral("foot_said"));
  edit_ = new QLabel;
  edit_->setProperty("soft", true);
  undo_ = new QPushButton(tr("Undo"));
  undo_->setToolTip(tr("Take the last edit back (Ctrl+Z)"));
  layout->addWidget(readiness_);
  layout->addWidget(said_, 1);
  layout->addWidget(edit_);
  layout->addWidget(undo_);
  layout->addWidget(link_);
  connect(undo_, &QPushButton::clicked, &document_, &RigDocument::undo);
  connect(&document_, &RigDocument::changed, this, [this] {
    if (until_edit_) say({});
  });
  refresh();
}

void FootLine::refresh() {
  readiness_->setText((document_.review().readiness.ready ? QStringLiteral("✓ ") : QString()) +
                      QString::fromStdString(document_.review().readiness.words));
  link_->setText(bench_.state_words());
  const QString last = QString::fromStdString(document_.history().last_edit());
  edit_->setText(last.isEmpty() || said_->toolTip() == last
                     ? QString()
                     : edit_->fontMetrics().elidedText(last, Qt::ElideRight, 200));
  undo_->setVisible(document_.history().can_undo());
}

void FootLine::say_until_edit(const QString& words) {
  say(words);
  until_edit_ = true;
}

void FootLine::say(const QString& words) {
  until_edit_ = false;
  said_->setText(said_->fontMetrics().elidedText(words, Qt::ElideRight, std::max(120, said_->width())));
  said_->setToolTip(words);
  refresh();
}

void FootLine::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setPen(inks().line);
  p.drawLine(0, 0, width(), 0);
}

}  // namespace rigging::app
