#pragma once
#include "book/record.h"

#include <QWidget>
#include <vector>

namespace butte::app {

class BookDesk;
class FormulaEditor;

/// The crop's own targets of the book as a line in time: each stage from its week on, as high as it is
/// strong. A press takes it into the formula.
class StageLine : public QWidget {
  Q_OBJECT
public:
  StageLine(FormulaEditor& editor, BookDesk& desk, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {800, 62}; }
  /// "plant-up from week 0, flowering from week 4", for screen readers and tests.
  QString text() const;
  /// Where a stage stands, in widget coordinates.
  QPoint stageAt(int index) const;

signals:
  void chosen(const butte::book::Ref& ref);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;

private:
  struct Stage {
    book::Ref ref;
    QString name;
    double fromWeek = 0, milliSiemensPerCm = 0;
    bool inUse = false;
  };
  void lookUp();
  QRectF boxOf(std::size_t index) const;
  static void paintName(QPainter& painter, const QRectF& room, const QString& words);

  FormulaEditor& m_editor;
  BookDesk& m_desk;
  std::vector<Stage> m_stages;
  std::string m_crop;
};

} // namespace butte::app
