#pragma once
#include <QWidget>

class QComboBox;

namespace butte::app {

class FormulaEditor;
class NumberField;

/// What a membrane holds back of one ion, where its maker says another figure than the usual one.
class IonRejection : public QWidget {
  Q_OBJECT
public:
  explicit IonRejection(FormulaEditor& editor, QWidget* parent = nullptr);

  /// Shows the membrane of this part of the water; nothing without one.
  void showPart(std::size_t part);

signals:
  void message(const QString& words);

private:
  void refresh();
  void set(const QString& digits);

  FormulaEditor& m_editor;
  std::size_t m_part = 0;
  QComboBox* m_ion;
  NumberField* m_field;
};

} // namespace butte::app
