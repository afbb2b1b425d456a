#pragma once
#include "chem/nutrient.h"
#include "units/quantity.h"

#include "paint/plain_label.h"

#include <map>
#include <optional>
#include <string>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// What the last edit did to the feed and the weights, in one line: the eye need not hunt for it.
class ChangeLine : public PlainLabel {
  Q_OBJECT
public:
  ChangeLine(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

private:
  struct Seen {
    core::NutrientAmounts feed;
    std::map<std::string, core::Mass> grams;
    std::optional<double> cost;
    double milliSiemensPerCm = 0, litres = 1;
  };
  Seen seen() const;
  void formulaChanged();

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  Seen m_last;
};

} // namespace butte::app
