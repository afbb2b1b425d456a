#pragma once
#include "formula_document.h"

#include <QString>
#include <string>
#include <vector>

namespace butte::app {

class FormulaEditor;

/// Edits of a formula's tanks and of how they are dosed, each one step of undo.
class StockEdits {
public:
  explicit StockEdits(FormulaEditor& editor) : m_editor(editor) {}

  /// One place inside `stock`; null takes it away.
  void setStock(const QString& words, const std::string& key, const exchange::Json& value, bool merge = true);
  /// One place of a tank; null takes it away.
  void setTank(std::size_t tank, const QString& words, const std::string& key, const exchange::Json& value,
               bool merge = true);
  /// A tank at the end, with the next free letter. One for acid brings the acid in hand onto the shelf, dosed
  /// to the aimed pH, where none is dosed yet.
  void addTank(core::TankUse use);
  /// What stood in it by hand goes back to the rules.
  void removeTank(std::size_t tank);
  void swapFirstNames();

  /// All of a product (or half of it) from one tank into another, by hand.
  void move(const std::string& product, std::size_t from, std::size_t to, bool half);
  /// Back to where the rules put it.
  void byRules(const std::string& product);
  bool isByHand(const std::string& product) const;

  /// What a tank holds, as a liquid product with label and density, switched off: for an existing stock that
  /// goes on being used beside salts.
  void keepAsProduct(std::size_t tank);

  /// So much alkalinity left that the acid alone brings the water to the aimed pH. False where that can't be
  /// told.
  bool acidToAimedPh();

  /// One place inside `dosing` ("feed_per_day", "reservoir/volume" ...); null takes it away.
  void setDosing(const QString& words, const std::string& path, const exchange::Json& value,
                 bool merge = true);
  /// What stands there; null where nothing does.
  exchange::Json dosing(const std::string& path) const;

private:
  void put(const QString& words, const exchange::Json& stock, const std::string& mergeKey = {});
  exchange::Json shares(const std::string& product) const;
  FormulaEditor& m_editor;
};

} // namespace butte::app
