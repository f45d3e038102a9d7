#include "style_later.h"

#include <QApplication>

namespace rigging::app {

StyleLater::StyleLater() : sheet_(qApp->styleSheet()) { qApp->setStyleSheet({}); }

StyleLater::~StyleLater() { qApp->setStyleSheet(sheet_); }

}  // namespace rigging::app
