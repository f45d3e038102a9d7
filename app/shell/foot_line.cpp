#include "shell/foot_line.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>

#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {

FootLine::FootLine(RigDocument& document, BenchLink& bench, QWidget* parent)
    : QWidget(parent), document_(document), bench_(bench) {
  const auto high = [this] { setFixedHeight(Style::instance().px(34)); };
  high();
  connect(&Style::instance(), &Style::changed, this, high);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(12, 2, 8, 2);
  layout->setSpacing(16);
  link_ = new QLabel;
  link_->setObjectName(u"foot_link"_s);
  link_->setProperty("soft", true);
  readiness_ = new QLabel;
  readiness_->setObjectName(u"foot_readiness"_s);
  readiness_->setFont(Style::instance().text(10, true));
  said_ = new QLabel;
  said_->setObjectName(u"foot_said"_s);
  edit_ = new QLabel;
  edit_->setProperty("soft", true);
  undo_ = new QPushButton(u"Undo"_s);
  undo_->setToolTip(u"Take the last edit back (Ctrl+Z)"_s);
  layout->addWidget(readiness_);
  layout->addWidget(said_, 1);
  layout->addWidget(edit_);
  layout->addWidget(undo_);
  layout->addWidget(link_);
  connect(undo_, &QPushButton::clicked, &document_, &RigDocument::undo);
  connect(&document_, &RigDocument::changed, this, [this] {
    if (until_ != Until::replaced) say({});
  });
  connect(&bench_, &BenchLink::state_changed, this, [this] {
    if (until_ == Until::link_gone && !bench_.controller_answers()) say({});
  });
  refresh();
}

void FootLine::refresh() {
  undo_->setVisible(document_.history().can_undo());
  fit();
}

/// Readiness and link are read whole as long as there is room; what was said and edited gives way first.
void FootLine::fit() {
  const auto show = [](QLabel* label, const QString& words, int room) {
    label->setToolTip(words);
    label->setText(label->fontMetrics().elidedText(words, Qt::ElideRight, std::max(0, room)));
    return words.isEmpty() ? 0 : label->fontMetrics().horizontalAdvance(label->text()) + 20;
  };
  int room = width() - 30 - (undo_->isVisibleTo(this) ? undo_->sizeHint().width() + 16 : 0);
  room -= show(readiness_,
               (document_.review().readiness.ready ? u"✓ "_s : QString()) +
                   QString::fromStdString(document_.review().readiness.words),
               room / 2);
  room -= show(link_, bench_.state_words(), std::min(room, width() / 2));
  room -= show(said_, words_, room);
  const QString last = QString::fromStdString(document_.history().last_edit());
  show(edit_, last == words_ || room < 60 ? QString() : last, room);
}

void FootLine::resizeEvent(QResizeEvent*) { fit(); }

void FootLine::say_until(Until until, const QString& words) {
  until_ = until;
  words_ = words;
  refresh();
}

void FootLine::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setPen(inks().line);
  p.drawLine(0, 0, width(), 0);
}

}  // namespace rigging::app
