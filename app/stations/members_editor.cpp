#include "stations/members_editor.h"

#include <QComboBox>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>
#include <QSet>
#include <QStyledItemDelegate>
#include <QVBoxLayout>
#include <cmath>

#include "base/number.h"
#include "look/literals.h"
#include "look/number_box.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

constexpr int pointer_role = Qt::UserRole;

OrderedJson::json_pointer at(const QString& pointer) { return OrderedJson::json_pointer(pointer.toStdString()); }

QString text_of(const OrderedJson& value) {
  if (value.is_string()) return QString::fromStdString(value.get<std::string>());
  if (value.is_boolean()) return value.get<bool>() ? u"yes"_s : u"no"_s;
  if (value.is_number()) return QString::fromStdString(number_text(value.get<double>(), 6));
  return {};
}

/// Words of a choice as they are spoken, everything else as it is.
QString shown_text(const OrderedJson& value, const OrderedJson& schema) {
  return schema.contains("enum") && value.is_string() ? QString::fromStdString(label_of(value.get<std::string>()))
                                                      : text_of(value);
}

/// What a member is called: its words, and the unit that its name ends with.
QString field_label(const std::string& name) {
  static const QMap<QString, QString> units{
      {u"mm"_s, u"mm"_s}, {u"m"_s, u"m"_s},         {u"v"_s, u"V"_s},    {u"a"_s, u"A"_s},   {u"w"_s, u"W"_s},
      {u"kg"_s, u"kg"_s}, {u"c"_s, u"°C"_s},        {u"us"_s, u"µs"_s},  {u"s"_s, u"s"_s},   {u"nm"_s, u"N m"_s},
      {u"hz"_s, u"Hz"_s}, {u"milliohm"_s, u"mΩ"_s}, {u"ah"_s, u"A h"_s}, {u"deg"_s, u"°"_s}, {u"percent"_s, u"%"_s}};
  const QString words = QString::fromStdString(label_of(name));
  const qsizetype last = words.lastIndexOf(QLatin1Char(' '));
  const auto unit = units.find(words.mid(last + 1));
  return last < 0 || unit == units.end() ? words : words.left(last) + u", "_s + *unit;
}

/// What an entry of a list calls itself.
QString entry_name(const OrderedJson& entry, std::size_t number) {
  if (!entry.is_object()) return QString::number(number + 1);
  for (const char* name : {"label", "id", "what", "mode", "sign", "net", "remedy"})
    if (const auto it = entry.find(name); it != entry.end() && it->is_string())
      return QString::fromStdString(label_of(it->get<std::string>()));
  if (const auto from = entry.find("from"); from != entry.end() && entry.contains("to"))
    return text_of(*from) + u" → "_s + text_of(entry["to"]);
  return QString::number(number + 1);
}

bool is_single(const OrderedJson& schema) {
  const auto type = schema.find("type");
  return schema.contains("enum") || type == schema.end() || (*type != "object" && *type != "array");
}

/// The plainest value that fits: what a new entry begins as.
OrderedJson plainest(const OrderedJson& schema) {
  if (const auto it = schema.find("default"); it != schema.end()) return *it;
  if (const auto it = schema.find("enum"); it != schema.end()) return it->front();
  const std::string type = schema.value("type", "string");
  if (type == "boolean") return false;
  if (type == "number" || type == "integer") return schema.value("minimum", 0.0);
  if (type == "array") return OrderedJson::array();
  if (type != "object") return "";
  OrderedJson value = OrderedJson::object();
  if (const auto needed = schema.find("required"); needed != schema.end())
    for (const auto& name : *needed)
      value[name.get<std::string>()] = plainest(schema["properties"][name.get<std::string>()]);
  return value;
}

class ValueDelegate : public QStyledItemDelegate {
 public:
  explicit ValueDelegate(MembersEditor& editor) : QStyledItemDelegate(&editor), editor_(editor) {}

  QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem&, const QModelIndex& index) const override {
    if (index.column() != 1) return nullptr;
    const OrderedJson schema = editor_.schema_at(pointer(index));
    if (schema.is_null() || !is_single(schema)) return nullptr;
    const std::string type = schema.value("type", "string");
    if (schema.contains("enum") || type == "boolean") {
      auto* box = new QComboBox(parent);
      if (type == "boolean")
        box->addItems({u"yes"_s, u"no"_s});
      else
        for (const auto& word : schema["enum"])
          box->addItem(QString::fromStdString(label_of(word.get<std::string>())),
                       QString::fromStdString(word.get<std::string>()));
      return named(box);
    }
    if (type == "number" || type == "integer") {
      auto* box = number_box(u"member_value"_s, {});
      box->setParent(parent);
      box->setDecimals(type == "integer" ? 0 : 4);
      box->setRange(schema.value("minimum", -1e6), schema.value("maximum", 1e6));
      return named(box);
    }
    return named(new QLineEdit(parent));
  }

  void setEditorData(QWidget* widget, const QModelIndex& index) const override {
    const QString text = index.data().toString();
    if (auto* box = qobject_cast<QComboBox*>(widget))
      box->setCurrentText(text);
    else if (auto* number = qobject_cast<QDoubleSpinBox*>(widget))
      number->setValue(text.toDouble());
    else if (auto* line = qobject_cast<QLineEdit*>(widget))
      line->setText(text);
  }

  void setModelData(QWidget* widget, QAbstractItemModel*, const QModelIndex& index) const override {
    const QString place = pointer(index);
    if (auto* box = qobject_cast<QComboBox*>(widget)) {
      const QVariant word = box->currentData();
      editor_.set(place, word.isValid() ? OrderedJson(word.toString().toStdString())
                                        : OrderedJson(box->currentText() == u"yes"_s));
    } else if (auto* number = qobject_cast<QDoubleSpinBox*>(widget)) {
      number->interpretText();
      // Half a millimetre is finer than any ruler; six places keep what was in the file.
      const double value = std::round(number->value() * 1e6) / 1e6;
      editor_.set(place, number->decimals() == 0 ? OrderedJson(static_cast<int>(value)) : OrderedJson(value));
    } else if (auto* line = qobject_cast<QLineEdit*>(widget)) {
      editor_.set(place, line->text().toStdString());
    }
  }

 private:
  static QString pointer(const QModelIndex& index) {
    return index.sibling(index.row(), 0).data(pointer_role).toString();
  }
  static QWidget* named(QWidget* editor) {
    editor->setObjectName(u"member_value"_s);
    return editor;
  }
  MembersEditor& editor_;
};

}  // namespace

MembersEditor::MembersEditor(QWidget* parent) : QTreeWidget(parent) {
  setObjectName(u"members"_s);
  setColumnCount(2);
  setHeaderHidden(true);
  setUniformRowHeights(true);
  setEditTriggers(SelectedClicked);
  setItemDelegate(new ValueDelegate(*this));
  header()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  connect(this, &QTreeWidget::itemDoubleClicked, this, [this](QTreeWidgetItem* row) { editItem(row, 1); });
  connect(this, &QTreeWidget::currentItemChanged, this, [this] {
    if (!filling_) Q_EMIT chosen_changed(chosen());
  });
}

void MembersEditor::keyPressEvent(QKeyEvent* event) {
  const int key = event->key();
  // Enter edits the row, and is not the sheet's default button.
  if (key != Qt::Key_Return && key != Qt::Key_Enter && key != Qt::Key_F2) return QTreeWidget::keyPressEvent(event);
  // The Enter that ends an edit comes by here as well.
  if (QTreeWidgetItem* row = currentItem(); row && state() != EditingState) {
    if (row->childCount() > 0)
      row->setExpanded(!row->isExpanded());
    else
      editItem(row, 1);
  }
  event->accept();
}

void MembersEditor::show_value(const OrderedJson& value, const OrderedJson& schema) {
  value_ = value;
  schema_ = schema;
  rebuild();
}

void MembersEditor::rebuild() {
  QSet<QString> open;
  for (QTreeWidgetItemIterator it(this); *it; ++it)
    if ((*it)->isExpanded()) open.insert((*it)->data(0, pointer_role).toString());
  const QString at_now = chosen();
  filling_ = true;
  clear();
  fill(invisibleRootItem(), value_, schema_, {});
  for (QTreeWidgetItemIterator it(this); *it; ++it)
    (*it)->setExpanded(open.contains((*it)->data(0, pointer_role).toString()));
  if (auto* row = row_of(at_now)) setCurrentItem(row);
  filling_ = false;
}

void MembersEditor::fill(QTreeWidgetItem* row, const OrderedJson& value, const OrderedJson& schema,
                         const QString& pointer) {
  const auto add = [&](const QString& name, const QString& place, const OrderedJson& v, const OrderedJson& s) {
    auto* child = new QTreeWidgetItem(row);
    child->setText(0, name);
    child->setData(0, pointer_role, place);
    if (is_single(s)) {
      child->setText(1, shown_text(v, s));
      child->setFlags(child->flags() | Qt::ItemIsEditable);
    } else {
      if (v.is_array()) child->setText(1, v.empty() ? u"none"_s : QString::number(v.size()));
      fill(child, v, s, place);
    }
    child->setToolTip(1, child->text(1));
  };
  if (schema.value("type", "") == "array") {
    for (std::size_t i = 0; value.is_array() && i < value.size(); ++i)
      add(entry_name(value[i], i), pointer + QLatin1Char('/') + QString::number(i), value[i], schema["items"]);
    return;
  }
  const auto properties = schema.find("properties");
  if (properties == schema.end()) return;
  for (const auto& [name, s] : properties->items()) {
    const auto it = value.is_object() ? value.find(name) : value.end();
    const bool there = value.is_object() && it != value.end();
    add(field_label(name), pointer + QLatin1Char('/') + QString::fromStdString(name),
        there ? *it : s.value("default", OrderedJson()), s);
  }
}

QTreeWidgetItem* MembersEditor::row_of(const QString& pointer) const {
  if (pointer.isEmpty()) return nullptr;
  for (QTreeWidgetItemIterator it(const_cast<MembersEditor*>(this)); *it; ++it)
    if ((*it)->data(0, pointer_role).toString() == pointer) return *it;
  return nullptr;
}

QString MembersEditor::chosen() const {
  return currentItem() ? currentItem()->data(0, pointer_role).toString() : QString();
}

void MembersEditor::choose(const QString& pointer) {
  QTreeWidgetItem* row = row_of(pointer);
  if (!row) return;
  filling_ = true;
  for (QTreeWidgetItem* up = row->parent(); up; up = up->parent()) up->setExpanded(true);
  row->setExpanded(true);
  setCurrentItem(row);
  scrollToItem(row, PositionAtTop);
  filling_ = false;
  Q_EMIT chosen_changed(pointer);
}

OrderedJson MembersEditor::schema_at(const QString& pointer) const {
  const OrderedJson* s = &schema_;
  for (const QString& step : pointer.split(QLatin1Char('/'), Qt::SkipEmptyParts)) {
    if (s->value("type", "") == "array") {
      s = &(*s)["items"];
    } else {
      const auto properties = s->find("properties");
      if (properties == s->end() || !properties->contains(step.toStdString())) return {};
      s = &(*properties)[step.toStdString()];
    }
  }
  return *s;
}

void MembersEditor::set(const QString& pointer, const OrderedJson& value) {
  OrderedJson now = value_;
  now[at(pointer)] = value;
  if (now == value_) return;
  value_ = std::move(now);
  // The row stays: it may be under its editor. What its entry calls itself may be what was edited.
  if (QTreeWidgetItem* row = row_of(pointer)) {
    row->setText(1, shown_text(value, schema_at(pointer)));
    row->setToolTip(1, row->text(1));
    const QString entry = pointer.left(pointer.lastIndexOf(QLatin1Char('/'))), list = list_of(pointer);
    if (QTreeWidgetItem* up = row->parent(); up && !list.isEmpty() && entry.size() > list.size())
      up->setText(0, entry_name(value_[at(entry)], entry.mid(list.size() + 1).toULong()));
  }
  Q_EMIT edited();
}

QString MembersEditor::list_of(const QString& pointer) const {
  for (QString up = pointer; !up.isEmpty(); up = up.left(up.lastIndexOf(QLatin1Char('/'))))
    if (const OrderedJson s = schema_at(up); s.is_object() && s.value("type", "") == "array") return up;
  return {};
}

void MembersEditor::add_entry() {
  const QString list = list_of(chosen());
  if (list.isEmpty()) return;
  OrderedJson& entries = value_[at(list)];
  if (!entries.is_array()) entries = OrderedJson::array();
  OrderedJson fresh = entries.empty() ? plainest(schema_at(list)["items"]) : entries.back();
  if (fresh.is_object() && fresh.contains("id")) {
    // Ids are counted on until one is free.
    const auto taken = [&](const std::string& id) {
      return std::any_of(entries.begin(), entries.end(), [&](const OrderedJson& e) { return e.value("id", "") == id; });
    };
    std::string stem = fresh.value("id", "new");
    while (!stem.empty() && std::isdigit(static_cast<unsigned char>(stem.back()))) stem.pop_back();
    if (stem.empty()) stem = "new_";
    int n = static_cast<int>(entries.size()) + 1;
    while (taken(stem + std::to_string(n))) ++n;
    fresh["id"] = stem + std::to_string(n);
    if (fresh.contains("label")) fresh["label"] = fresh["id"];
  }
  entries.push_back(std::move(fresh));
  const QString last = list + QLatin1Char('/') + QString::number(entries.size() - 1);
  rebuild();
  choose(last);
  Q_EMIT edited();
}

bool MembersEditor::can_remove() const {
  const QString list = list_of(chosen());
  return !list.isEmpty() && chosen().size() > list.size();
}

void MembersEditor::remove_entry() {
  const QString list = list_of(chosen());
  if (!can_remove()) return;
  const std::size_t number = chosen().mid(list.size() + 1).section(QLatin1Char('/'), 0, 0).toULong();
  OrderedJson& entries = value_[at(list)];
  if (!entries.is_array() || number >= entries.size()) return;
  entries.erase(number);
  rebuild();
  choose(list);
  Q_EMIT edited();
}

MembersPanel::MembersPanel(QWidget* parent) : QWidget(parent), members_(new MembersEditor) {
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->addWidget(members_, 1);
  auto* lists = new QHBoxLayout;
  add_ = hinted_button(u"Another one"_s, "member_add", u"One more entry of the list that is chosen, as the last is"_s);
  remove_ = hinted_button(u"Take it out"_s, "member_remove", u"The chosen entry leaves its list"_s);
  lists->addWidget(add_);
  lists->addWidget(remove_);
  lists->addStretch(1);
  all->addLayout(lists);
  connect(add_, &QPushButton::clicked, this, [this] {
    members_->add_entry();
    Q_EMIT added(members_->chosen());
  });
  connect(remove_, &QPushButton::clicked, members_, &MembersEditor::remove_entry);
  connect(members_, &MembersEditor::chosen_changed, this, &MembersPanel::enable_buttons);
  enable_buttons();
}

void MembersPanel::enable_buttons() {
  add_->setEnabled(members_->can_add());
  remove_->setEnabled(members_->can_remove());
}

}  // namespace rigging::app
