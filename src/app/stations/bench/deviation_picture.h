#pragma once
#include <QString>
#include <QWidget>
#include <vector>

namespace butte::app {

/// How far each element of a feed came out from its plan: a mark between -10 and +10 %, its +- as a whisker,
/// the band in which nobody looks twice behind it. What lies beyond stands at the edge as an arrow.
class DeviationPicture : public QWidget {
  Q_OBJECT

public:
  struct Row {
    QString name, figures; ///< "K", "243 mg/L, planned 240"
    double percent = 0, plusMinusPercent = 0;
  };

  explicit DeviationPicture(QWidget* parent = nullptr);
  void show(std::vector<Row> rows);
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  int rowHeight() const;
  int nameWidth() const;
  int figuresWidth() const;

  std::vector<Row> m_rows;
};

} // namespace butte::app
