#include "paint/flow_row.h"

#include <QHBoxLayout>
#include <QStyle>
#include <QWidget>
#include <algorithm>
#include <utility>

namespace butte::app {

namespace {
/// The width that an item asks for: one that may be narrowed at will asks for its least.
int wishOf(const QLayoutItem& item) {
  auto* widget = const_cast<QLayoutItem&>(item).widget();
  if (widget && widget->sizePolicy().horizontalPolicy() == QSizePolicy::Ignored)
    return std::max(widget->minimumWidth(), item.minimumSize().width());
  return std::max(item.sizeHint().width(), item.minimumSize().width());
}
} // namespace

FlowRow::FlowRow(QWidget* parent, int gap) : QLayout(parent) {
  setContentsMargins(0, 0, 0, 0);
  setSpacing(gap);
}

FlowRow::~FlowRow() {
  qDeleteAll(m_items);
}

void FlowRow::addTogether(std::initializer_list<QWidget*> widgets) {
  auto* box = new QWidget;
  box->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Preferred);
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(spacing());
  for (auto* widget : widgets)
    row->addWidget(widget);
  addWidget(box);
}

void FlowRow::addItem(QLayoutItem* item) {
  m_items.append(item);
}

QLayoutItem* FlowRow::takeAt(int index) {
  return index >= 0 && index < m_items.size() ? m_items.takeAt(index) : nullptr;
}

QList<FlowRow::Row> FlowRow::rowsIn(int width) const {
  QList<Row> rows;
  for (int i = 0; i < m_items.size(); ++i) {
    const auto& item = *m_items[i];
    if (item.isEmpty()) continue; // hidden
    const int wide = std::min(wishOf(item), std::max(width, 1));
    if (rows.isEmpty() || rows.last().width + spacing() + wide > width) rows.append(Row{{}, -spacing(), 0});
    auto& row = rows.last();
    row.items.append(i);
    row.width += spacing() + wide;
    const int high = item.hasHeightForWidth() ? item.heightForWidth(wide) : item.sizeHint().height();
    row.height = std::max(row.height, high);
  }
  return rows;
}

int FlowRow::heightForWidth(int width) const {
  const auto edges = contentsMargins();
  int height = edges.top() + edges.bottom() - spacing();
  const auto rows = rowsIn(width - edges.left() - edges.right());
  for (const auto& row : rows)
    height += spacing() + row.height;
  return std::max(height, 0);
}

QSize FlowRow::minimumSize() const {
  QSize out;
  for (const auto* item : m_items)
    if (!item->isEmpty()) out = out.expandedTo(item->minimumSize());
  const auto edges = contentsMargins();
  return out + QSize(edges.left() + edges.right(), edges.top() + edges.bottom());
}

QSize FlowRow::sizeHint() const {
  QSize out(-spacing(), 0);
  for (const auto* item : m_items) {
    if (item->isEmpty()) continue;
    out.rwidth() += spacing() + wishOf(*item);
    out.setHeight(std::max(out.height(), item->sizeHint().height()));
  }
  const auto edges = contentsMargins();
  return out.expandedTo({0, 0}) + QSize(edges.left() + edges.right(), edges.top() + edges.bottom());
}

int FlowRow::growth(const QLayoutItem& item) {
  return item.expandingDirections().testFlag(Qt::Horizontal) ? 1 : 0;
}

void FlowRow::place(const Row& row, const QRect& room) const {
  const int growing = static_cast<int>(
      std::count_if(row.items.begin(), row.items.end(), [&](int i) { return growth(*m_items[i]) > 0; }));
  int spare = std::max(0, room.width() - row.width), left = growing, x = room.left();
  for (const int i : row.items) {
    auto& item = *m_items[i];
    if (growing == 0 && i == m_rightFrom) x += std::exchange(spare, 0);
    int wide = std::min(wishOf(item), room.width());
    if (growth(item) > 0) {
      const int more = spare / left--;
      spare -= more;
      wide += more;
    }
    item.setGeometry(QStyle::visualRect(parentWidget() ? parentWidget()->layoutDirection() : Qt::LeftToRight,
                                        room, QRect(x, room.top(), wide, room.height())));
    x += wide + spacing();
  }
}

void FlowRow::setGeometry(const QRect& whole) {
  QLayout::setGeometry(whole);
  const auto inner = whole.marginsRemoved(contentsMargins());
  int y = inner.top();
  const auto rows = rowsIn(inner.width());
  for (const auto& row : rows) {
    place(row, QRect(inner.left(), y, inner.width(), row.height));
    y += row.height + spacing();
  }
}

} // namespace butte::app
