#pragma once
#include <QWidget>
#include <vector>

class QLabel;
class QPushButton;

namespace butte::core {
struct TankContent;
}

namespace butte::app {

class FormulaEditor;
class NumberField;
class UnitsShown;

/// The two stock tanks with their contents in words, their ceiling, and the dilution.
class TankPanel : public QWidget {
  Q_OBJECT

public:
  TankPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  struct TankWidgets {
    QLabel *title = nullptr, *contents = nullptr, *ceiling = nullptr;
    NumberField* volume = nullptr;
    QLabel* volumeUnit = nullptr;
  };

  QWidget* makeTank(int index);
  QWidget* makeDilution();
  NumberField* makeField(const QString& name, const QString& id, double least, double most,
                         const std::string& pointer);
  void refresh();
  void refreshTank(std::size_t index);
  void swapLetters();
  QString limitingName(const core::TankContent& content) const;
  static QString fallenText(const core::TankContent& content);
  QString ceilingText(std::size_t index) const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  std::vector<TankWidgets> m_tanks;
  NumberField *m_factor = nullptr, *m_coldest = nullptr, *m_alkalinity = nullptr;
  QLabel *m_dose = nullptr, *m_apart = nullptr;
};

} // namespace butte::app
