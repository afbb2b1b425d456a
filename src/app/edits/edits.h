#pragma once
#include "amount.h"
#include "base/deed.h"
#include "json_fwd.h"

#include <QString>
#include <string>
#include <vector>

namespace butte::app {

class FormulaEditor;

/// What the typed edits of a formula have in common. They alone know how a formula stands in files: a panel
/// says what was done in a grower's terms, and reads figures back as they were typed.
class Edits {
public:
  explicit Edits(FormulaEditor& editor) : m_editor(editor) {}

protected:
  using Deed = core::Deed;
  using DeedCode = core::DeedCode;

  const exchange::Json& json() const;
  /// False when it was refused; why was said.
  bool set(const Deed& deed, const std::string& pointer, const exchange::Json& value, bool merge = false);
  /// The figure as typed at a place; empty where nothing stands there.
  exchange::Amount figure(const std::string& pointer) const;

  FormulaEditor& m_editor;
};

/// Digits from a field and the unit it was typed in.
exchange::Amount typed(const QString& digits, const QString& unit = {});

/// The digits of a figure for a field in a unit: as typed where it was typed in it, else converted, with as
/// many as mean something.
QString shownIn(const exchange::Amount& amount, const QString& unit);

/// The same with as many digits as no scale needs, to be kept.
QString digitsIn(const exchange::Amount& amount, const QString& unit);

} // namespace butte::app
