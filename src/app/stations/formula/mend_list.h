#pragma once
#include <QWidget>
#include <vector>

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace butte::app {

class MendFinder;

/// What would help, each a press away: the first press shows the result over the lanes, the second takes it.
class MendList : public QWidget {
  Q_OBJECT
public:
  explicit MendList(MendFinder& finder, QWidget* parent = nullptr);

protected:
  void resizeEvent(QResizeEvent* event) override;

private:
  struct Row {
    QWidget* box;
    QPushButton* look;
    QLabel* effect;
    QPushButton* take;
  };
  void addRow();
  void refresh();

  MendFinder& m_finder;
  QVBoxLayout* m_column;
  std::vector<Row> m_rows; ///< kept from search to search: a pressed button must outlive what it does
  QLabel* m_wait;
};

} // namespace butte::app
