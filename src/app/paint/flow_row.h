#pragma once
#include <QLayout>
#include <QList>

namespace butte::app {

/// Widgets side by side as long as there is room, the rest in further rows below. What can grow (a size
/// policy that expands) takes what is left of its row. Widgets that belong together (a name and its field)
/// are put into it as one.
class FlowRow : public QLayout {
public:
  explicit FlowRow(QWidget* parent = nullptr, int gap = 6);
  ~FlowRow() override;

  /// Widgets that must not be parted, in one box.
  void addTogether(std::initializer_list<QWidget*> widgets);
  /// All that follows stands at the right end of its row.
  void addStretch() { m_rightFrom = static_cast<int>(m_items.size()); }

  void addItem(QLayoutItem* item) override;
  int count() const override { return static_cast<int>(m_items.size()); }
  QLayoutItem* itemAt(int index) const override { return m_items.value(index); }
  QLayoutItem* takeAt(int index) override;
  Qt::Orientations expandingDirections() const override { return Qt::Horizontal; }
  bool hasHeightForWidth() const override { return true; }
  int heightForWidth(int width) const override;
  QSize minimumSize() const override;
  QSize sizeHint() const override;
  void setGeometry(const QRect& room) override;

private:
  struct Row {
    QList<int> items;
    int width = 0, height = 0;
  };
  QList<Row> rowsIn(int width) const;
  static int growth(const QLayoutItem& item);
  void place(const Row& row, const QRect& room) const;

  QList<QLayoutItem*> m_items;
  int m_rightFrom = -1;
};

} // namespace butte::app
