#pragma once
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
  void setRatio(std::size_t index, const char* key, const QString& digits, const QString& words);
  void capTyped(const std::string& nutrient, const QString& name, const QString& digits);

  FormulaEditor& m_editor;
  QVBoxLayout* m_ratios;
  QComboBox* m_add;
  NumberField *m_ph = nullptr, *m_left = nullptr;
  std::vector<QWidget*> m_rows;
  std::vector<std::pair<std::string, NumberField*>> m_caps;
};

} // namespace butte::app
