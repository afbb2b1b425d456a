#pragma once
#include "chem/nutrient.h"
#include "target/target.h"

#include <QWidget>
#include <map>
#include <vector>

class QComboBox;

namespace butte::app {

class FormulaEditor;
class NumberField;

/// Each element with its figure (in the unit it was typed in), its band, and a bar that another target may
/// stand beside.
class TargetTable : public QWidget {
  Q_OBJECT
public:
  explicit TargetTable(FormulaEditor& editor, QWidget* parent = nullptr);

  /// Another target to compare with; empty: none.
  void compareWith(std::vector<core::TargetRow> other);

signals:
  void message(const QString& words);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  /// What a bar shows, mg/L.
  struct Bar {
    double wanted = 0, given = 0, other = 0, bandLow = 0, bandHigh = 0;
    bool operator==(const Bar&) const = default;
  };
  struct Row {
    core::Nutrient nutrient{};
    NumberField *amount = nullptr, *band = nullptr;
    QComboBox* unit = nullptr;
    QWidget* room = nullptr; ///< where the bar is painted
    Bar bar;
  };
  void addRow(core::Nutrient nutrient, int line);
  void refresh();
  void amountTyped(core::Nutrient nutrient, const QString& digits);
  void unitChosen(core::Nutrient nutrient, const QString& unit);
  void bandTyped(core::Nutrient nutrient, const QString& digits);
  Bar barOf(core::Nutrient nutrient) const;
  void paintBar(QPainter& painter, const Row& row) const;

  FormulaEditor& m_editor;
  std::vector<Row> m_rows;
  std::vector<core::TargetRow> m_other;
  std::map<core::Nutrient, std::string> m_emptyUnit; ///< chosen for a row that has no figure yet
};

} // namespace butte::app
