#pragma once
#include "formula_document.h"

#include <QString>
#include <optional>
#include <string>
#include <vector>

namespace butte::app {

class FormulaEditor;

/// Edits of a formula's water, source by source. A water of one source keeps its figures at the top; one of
/// several keeps them in `parts`. These functions hide the difference.
class WaterEdits {
public:
  explicit WaterEdits(FormulaEditor& editor) : m_editor(editor) {}

  std::size_t count() const;
  /// The source's own object, wherever it stands.
  const exchange::Json& part(std::size_t index) const;
  /// One place inside a source; null takes it away.
  void set(std::size_t index, const QString& words, const std::string& key, const exchange::Json& value,
           bool merge = true);
  /// One figure of its report; empty digits: not measured. A leading "<" is a limit of detection.
  void setRow(std::size_t index, const std::string& key, const QString& digits, const std::string& unit,
              bool merge = true);
  /// The whole report, read otherwise.
  void setRows(std::size_t index, const QString& words, const std::vector<core::ReportRow>& rows);
  void setShares(const std::vector<double>& percent, bool merge);
  void add(const exchange::Json& source, const QString& words);
  void remove(std::size_t index);
  /// Another water in this source's place; its share and treatment stay. False when it was refused.
  bool replace(std::size_t index, const exchange::Json& source, const QString& words);

private:
  std::string pointer(std::size_t index) const;
  bool put(const QString& words, const exchange::Json& water);
  FormulaEditor& m_editor;
};

/// Position of a key in a report's rows; -1 when it is not there.
int rowIndex(const exchange::Json& part, const std::string& key);

} // namespace butte::app
