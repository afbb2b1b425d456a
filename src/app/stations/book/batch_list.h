#pragma once
#include "book/store.h"

#include <QAbstractListModel>
#include <QStyledItemDelegate>
#include <vector>

namespace butte::app {

class BookDesk;
class UnitsShown;

/// The batches that a filter leaves, newest first, fetched page by page as the list is scrolled.
class BatchModel : public QAbstractListModel {
  Q_OBJECT

public:
  explicit BatchModel(BookDesk& desk, QObject* parent = nullptr);
  void show(const book::BatchFilter& filter);
  const book::BatchHead* head(const QModelIndex& index) const;
  /// The row of a batch among those fetched so far; -1 when it is not there.
  int rowOf(const std::string& uid) const;

  int rowCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;
  bool canFetchMore(const QModelIndex& parent) const override;
  void fetchMore(const QModelIndex& parent) override;

private:
  BookDesk& m_desk;
  book::BatchFilter m_filter;
  std::vector<book::BatchHead> m_heads;
  bool m_all = true;
};

/// One batch in a line: when, what, for which crop, how much, EC planned and read, how far off plan.
class BatchDelegate : public QStyledItemDelegate {
  Q_OBJECT

public:
  BatchDelegate(const BatchModel& model, const UnitsShown& units, QObject* parent)
      : QStyledItemDelegate(parent), m_model(model), m_units(units) {}
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex&) const override;

private:
  static bool isNarrow(const QStyleOptionViewItem& option);
  QString figures(const book::BatchHead& batch) const;

  const BatchModel& m_model;
  const UnitsShown& m_units;
};

/// Off plan by more than this is worth a look: what scales and hands do well stays below (common practice).
inline constexpr double offPlanPercent = 2;

} // namespace butte::app
