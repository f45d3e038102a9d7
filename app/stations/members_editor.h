#pragma once

#include <QPushButton>
#include <QTreeWidget>

#include "base/json.h"

namespace rigging::app {

/// A described value as a tree of names and values that can be edited in place: numbers within their ranges, words of a
/// choice, texts, lists that grow and shrink. What is edited is JSON; whoever shows it reads it back.
class MembersEditor : public QTreeWidget {
  Q_OBJECT
 public:
  explicit MembersEditor(QWidget* parent = nullptr);

  /// `schema`: as of `schema_of_members`. What was open stays open, what was chosen stays chosen.
  void show_value(const OrderedJson& value, const OrderedJson& schema);
  const OrderedJson& value() const { return value_; }
  /// JSON pointer of the row that is chosen; empty for none.
  QString chosen() const;
  void choose(const QString& pointer);

  /// A new entry in the list that is chosen, or that the chosen row stands in, as the last one is; null without one.
  bool can_add() const { return !list_of(chosen()).isEmpty(); }
  void add_entry();
  bool can_remove() const;
  void remove_entry();
  /// Puts a value where a row is; as by its editor.
  void set(const QString& pointer, const OrderedJson& value);

  /// What the schema says of the place; null where there is none.
  OrderedJson schema_at(const QString& pointer) const;

 Q_SIGNALS:
  void edited();
  void chosen_changed(const QString& pointer);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void fill(QTreeWidgetItem* row, const OrderedJson& value, const OrderedJson& schema, const QString& pointer);
  QString list_of(const QString& pointer) const;
  QTreeWidgetItem* row_of(const QString& pointer) const;
  void rebuild();

  OrderedJson value_, schema_;
  bool filling_ = false;
};

/// The tree with what its lists need: another entry, an entry less.
class MembersPanel : public QWidget {
  Q_OBJECT
 public:
  explicit MembersPanel(QWidget* parent = nullptr);
  MembersEditor& members() { return *members_; }
 Q_SIGNALS:
  void added(const QString& pointer);

 private:
  void enable_buttons();

  MembersEditor* members_;
  QPushButton *add_, *remove_;
};

}  // namespace rigging::app
