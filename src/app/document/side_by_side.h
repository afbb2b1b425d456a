#pragma once
#include "book/changes/comparison.h"
#include "json_fwd.h"

#include <QString>
#include <QStringList>

namespace butte::app {

/// One state of a formula, by what it is called.
struct ComparedSide {
  QString name;
  const exchange::Json* body = nullptr;
};

/// Two states of a formula side by side.
struct SideBySide {
  QString leftName, rightName;
  book::FormulaComparison figures;
  QStringList changes; ///< what a person did between them, a line each
};

SideBySide compared(const ComparedSide& left, const ComparedSide& right);

} // namespace butte::app
