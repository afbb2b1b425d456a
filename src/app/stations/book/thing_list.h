#pragma once
#include "book/record.h"

#include <QAbstractListModel>
#include <QStyledItemDelegate>
#include <vector>

namespace butte::app {

/// Things of the book by name: one line each, with the crop and when it was last changed.
class ThingModel : public QAbstractListModel {
  Q_OBJECT

public:
  using QAbstractListModel::QAbstractListModel;
  void show(std::vector<book::RecordHead> heads, const book::Ref& inHand);
  const book::RecordHead* head(const QModelIndex& index) const;
  int rowOf(const book::Ref& ref) const;
  bool isInHand(const QModelIndex& index) const;

  int rowCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;

private:
  std::vector<book::RecordHead> m_heads;
  book::Ref m_inHand;
};

class ThingDelegate : public QStyledItemDelegate {
  Q_OBJECT

public:
  ThingDelegate(const ThingModel& model, QObject* parent) : QStyledItemDelegate(parent), m_model(model) {}
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
  QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {400, 32}; }

private:
  const ThingModel& m_model;
};

} // namespace butte::app
