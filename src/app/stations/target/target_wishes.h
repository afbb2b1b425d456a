#pragma once
#include "chem/nutrient.h"

#include <QWidget>

class QComboBox;
class QVBoxLayout;

namespace butte::app {

class FormulaEditor;
class NumberField;

/// Ratios that are wished for, and what there must be no more of.
class TargetWishes : public QWidget {
  Q_OBJECT
public:
  explicit TargetWishes(FormulaEditor& editor, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  void refresh();
  QLayout* makeEnd();
  void rebuildRatios(std::size_t count);
  void addRatio(int index);

  FormulaEditor& m_editor;
  QVBoxLayout* m_ratios;
  QComboBox* m_add;
  NumberField *m_ph = nullptr, *m_left = nullptr;
  std::vector<QWidget*> m_rows;
  std::vector<std::pair<core::Nutrient, NumberField*>> m_caps;
};

} // namespace butte::app
