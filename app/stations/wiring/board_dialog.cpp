#include "stations/wiring/board_dialog.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpressionValidator>
#include <QVBoxLayout>

#include "base/fields.h"
#include "document/folders.h"
#include "document/replace_question.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/members_editor.h"
#include "stations/wiring/board_view.h"

namespace rigging::app {

BoardDialog::BoardDialog(RigDocument& document, QWidget* parent)
    : QDialog(parent), document_(document), schema_(schema_of_members(Described<ControllerClass>::members())) {
  setObjectName(u"board_dialog"_s);
  setWindowTitle(u"My board"_s);
  resize(1120, 720);
  // Name and short name have lines of their own; what every class can follows by itself.
  for (const char* own : {"id", "name", "remedies"}) schema_["properties"].erase(own);
  for (const char* list : {"outputs", "ports", "pads"})
    schema_["properties"][list]["items"]["properties"]["side"]["enum"] = {"", "nose", "tail", "left", "right"};
  auto* all = new QVBoxLayout(this);
  auto* top = new QHBoxLayout;
  nearest_ = new QComboBox;
  nearest_->setObjectName(u"board_nearest"_s);
  for (const ControllerClass& c : document_.catalogue().controllers)
    nearest_->addItem(QString::fromStdString(c.name), QString::fromStdString(c.id));
  id_ = new QLineEdit;
  id_->setObjectName(u"board_id"_s);
  id_->setValidator(new QRegularExpressionValidator(QRegularExpression(u"[a-z][a-z0-9_]*"_s), id_));
  id_->setPlaceholderText(u"small letters, digits, _"_s);
  name_ = new QLineEdit;
  name_->setObjectName(u"board_name"_s);
  auto* from_file = hinted_button(u"Take one from a file…"_s, "board_take", u"A board that somebody passed on"_s);
  const auto labelled = [&](const QString& label, QWidget* w, int stretch) {
    auto* words = new QLabel(label);
    words->setBuddy(w);
    top->addWidget(words);
    top->addWidget(w, stretch);
  };
  labelled(u"Nearest"_s, nearest_, 3);
  labelled(u"Short name"_s, id_, 2);
  labelled(u"Name"_s, name_, 2);
  top->addWidget(from_file);
  all->addLayout(top);
  auto* middle = new QHBoxLayout;
  view_ = new BoardView;
  middle->addWidget(view_, 5);
  auto* panel = new MembersPanel;
  members_ = &panel->members();
  members_->setAccessibleName(u"Everything that is known of the board"_s);
  middle->addWidget(panel, 5);
  all->addLayout(middle, 1);
  said_ = wrapping_words(9);
  all->addWidget(said_);
  complaint_ = caution_words();
  complaint_->setObjectName(u"board_complaint"_s);
  all->addWidget(complaint_);
  auto* buttons = new QHBoxLayout;
  pass_on_ = hinted_button(u"Pass it on as a file…"_s, "board_pass_on", u"A file that another builder can take"_s);
  auto* leave = new QPushButton(u"Leave"_s);
  leave->setObjectName(u"board_leave"_s);
  keep_ = hinted_button(u"Keep it, and use it"_s, "board_keep", u"Beside the rig; the rig is on this board then"_s);
  keep_->setProperty("main", true);
  keep_->setDefault(true);
  buttons->addWidget(pass_on_);
  buttons->addStretch(1);
  buttons->addWidget(leave);
  buttons->addWidget(keep_);
  all->addLayout(buttons);

  connect(nearest_, &QComboBox::activated, this, [this] {
    if (const auto* c = document_.catalogue().controller(nearest_->currentData().toString().toStdString()))
      begin_as(*c);
  });
  connect(from_file, &QPushButton::clicked, this, &BoardDialog::take_from_file);
  connect(pass_on_, &QPushButton::clicked, this, &BoardDialog::pass_on);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  connect(keep_, &QPushButton::clicked, this, &BoardDialog::keep);
  connect(id_, &QLineEdit::textChanged, this, &BoardDialog::read_back);
  connect(name_, &QLineEdit::textChanged, this, &BoardDialog::read_back);
  connect(members_, &MembersEditor::edited, this, &BoardDialog::read_back);
  connect(members_, &MembersEditor::chosen_changed, view_, &BoardView::choose);
  connect(view_, &BoardView::chosen, members_, &MembersEditor::choose);
  connect(view_, &BoardView::moved, this,
          [this](const QString& pointer, double x_mm, double y_mm, const QString& side) {
            members_->set(pointer + u"/x_mm"_s, x_mm);
            members_->set(pointer + u"/y_mm"_s, y_mm);
            if (!side.isEmpty()) members_->set(pointer + u"/side"_s, side.toStdString());
          });
  connect(panel, &MembersPanel::added, this, &BoardDialog::lay_apart);

  if (const ControllerClass* now = document_.controller())
    begin_as(*now);
  else if (!document_.catalogue().controllers.empty())
    begin_as(document_.catalogue().controllers.front());
}

void BoardDialog::begin_as(const ControllerClass& nearest) {
  nearest_->setCurrentIndex(nearest_->findData(QString::fromStdString(nearest.id)));
  // One's own is edited; a shipped one is the beginning of one's own.
  const bool own = document_.is_own_class(nearest.id);
  id_->setText(QString::fromStdString(own ? nearest.id : "my_" + nearest.id));
  name_->setText(own ? QString::fromStdString(nearest.name) : u"%1, mine"_s.arg(QString::fromStdString(nearest.name)));
  members_->show_value(write_fields(bare(nearest, document_.catalogue().shared)), schema_);
  members_->choose(u"/outputs"_s);
  read_back();
}

Result<ControllerClass> BoardDialog::made() const {
  OrderedJson value = members_->value();
  value["id"] = id_->text().toStdString();
  value["name"] = name_->text().toStdString();
  auto read = read_fields<ControllerClass>(Json::parse(value.dump()), "my board");
  if (!read) return read;
  if (auto ok = consistent(*read, "my board"); !ok) return tl::make_unexpected(ok.error());
  return read;
}

/// A new socket begins as the one before it: it is laid beside it, where there is room.
void BoardDialog::lay_apart(const QString& pointer) {
  const OrderedJson& all = members_->value();
  const OrderedJson::json_pointer place(pointer.toStdString());
  if (!all.contains(place) || !all[place].is_object() || !all[place].contains("x_mm")) return;
  const double width_mm = all.value("width_mm", 30.0), length_mm = all.value("length_mm", 40.0);
  const std::string side = all[place].value("side", "");
  const bool along_x = side != "left" && side != "right";
  double x = all[place].value("x_mm", 0.0), y = all[place].value("y_mm", 0.0);
  constexpr double step_mm = 2.5, clear_mm = 2;
  const auto taken = [&] {
    for (const char* list : {"outputs", "ports", "pads"})
      if (const auto entries = all.find(list); entries != all.end())
        for (std::size_t i = 0; i < entries->size(); ++i)
          if (pointer != u"/%1/%2"_s.arg(QLatin1String(list)).arg(i) &&
              std::hypot((*entries)[i].value("x_mm", 0.0) - x, (*entries)[i].value("y_mm", 0.0) - y) < clear_mm)
            return true;
    return false;
  };
  for (int tries = 0; tries < 400 && taken(); ++tries) {
    double &on = along_x ? x : y, &over = along_x ? y : x;
    const double most = along_x ? width_mm : length_mm, across = along_x ? length_mm : width_mm;
    on += step_mm;
    if (on > most) {
      on = step_mm;
      over = over + step_mm > across ? step_mm : over + step_mm;
    }
  }
  members_->set(pointer + u"/x_mm"_s, x);
  members_->set(pointer + u"/y_mm"_s, y);
}

void BoardDialog::read_back() {
  const auto board = made();
  if (board) view_->show_board(*board);
  keep_->setEnabled(board.has_value());
  pass_on_->setEnabled(board.has_value());
  said_->clear();
  complain(board ? QString() : QString::fromStdString(board.error().text()));
}

void BoardDialog::complain(const QString& words) {
  complaint_->setText(words);
  complaint_->setVisible(!words.isEmpty());
}

void BoardDialog::keep() {
  const auto board = made();
  if (!board) return read_back();
  if (const auto ok = document_.keep_own_class(*board); !ok) return complain(QString::fromStdString(ok.error().text()));
  accept();
}

void BoardDialog::take_from_file() {
  const QString path = QFileDialog::getOpenFileName(this, u"Take a board from a file"_s, remembered_folder(u"board"_s),
                                                    u"Parts and boards (*.parts.json *.json)"_s);
  if (path.isEmpty()) return;
  remember_folder(u"board"_s, path);
  const auto boards = classes_in(path.toStdString());
  if (!boards) return complain(QString::fromStdString(boards.error().text()));
  ControllerClass taken = boards->front();
  const bool known = document_.catalogue().controller(taken.id) && !document_.is_own_class(taken.id);
  begin_as(taken);
  id_->setText(QString::fromStdString(known ? "my_" + taken.id : taken.id));
  name_->setText(QString::fromStdString(taken.name));
}

void BoardDialog::pass_on() {
  const auto board = made();
  if (!board) return read_back();
  QString path = QFileDialog::getSaveFileName(this, u"Pass the board on"_s,
                                              in_remembered_folder(u"board"_s, id_->text() + u".parts.json"_s),
                                              u"Parts and boards (*.parts.json)"_s);
  if (path.isEmpty()) return;
  const QString chosen = path;
  if (!path.endsWith(QLatin1String(".json"))) path += u".parts.json"_s;
  if (!may_replace(this, path, chosen)) return;
  if (const auto ok = save_own_class(path.toStdString(), *board, document_.catalogue().shared); !ok)
    return complain(QString::fromStdString(ok.error().text()));
  remember_folder(u"board"_s, path);
  said_->setText(u"Written: %1"_s.arg(path));
}

}  // namespace rigging::app
