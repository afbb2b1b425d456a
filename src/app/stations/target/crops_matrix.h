#pragma once
#include "formula_document.h"
#include "solve/many_crops.h"

#include <QWidget>
#include <functional>
#include <vector>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// Crops down, elements across; in a cell a bar from the target up or down to what the crop gets, before its
/// band. Inside the band it is plain, outside amber; the figure below says it in percent.
class CropsMatrix : public QWidget {
  Q_OBJECT
public:
  CropsMatrix(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

  void show(const std::vector<exchange::DocumentCrop>& crops, const core::ManyCropsAnswer* answer);
  /// "pak choi: strength 62 %, K +8 %": for screen readers and tests.
  QString rowText(std::size_t crop) const;
  QPoint removeMark(std::size_t crop) const;

signals:
  void removeAsked(std::size_t crop);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;

private:
  QRectF rowBox(std::size_t crop) const;
  void paintRow(QPainter& painter, std::size_t crop) const;
  static void paintCell(QPainter& painter, const QRectF& room, double off, double tolerance);
  QString headline(std::size_t crop) const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  std::vector<exchange::DocumentCrop> m_crops;
  std::optional<core::ManyCropsAnswer> m_answer;
  std::vector<core::Nutrient> m_columns;
};

} // namespace butte::app
