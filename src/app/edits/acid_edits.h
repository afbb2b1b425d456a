#pragma once
#include "edits/edits.h"

namespace butte::app {

/// A grower's own drops as they were typed.
struct TypedTitration {
  std::string acidId; ///< which bottle
  std::string seek;   ///< "alkalinity", "strength" or "both"
  exchange::Amount sample;
  std::vector<std::pair<std::string, std::string>> readings; ///< dose so far in mL (or g), pH
  bool used = true;
};

/// Edits of the acid: the bottle in hand and its aim, the recipe's own acid, the grower's drops, acid before
/// use.
class AcidEdits : public Edits {
public:
  using Edits::Edits;

  /// Digits as typed; empty where the usual aim counts.
  std::string aim() const { return figure("/acid/target_ph").digits; }
  void setAim(const QString& digits, const std::string& productId);
  /// The aim alone, whatever the bottle.
  void setPhWanted(const QString& digits);
  /// Another bottle; drops that were counted with the one before go, where none were read yet.
  void setBottle(const std::string& productId, const QString& name);
  /// The one acid that doses the recipe; the others are switched off.
  void setRecipeAcid(const std::string& productId, const QString& name, const QString& usualLeftMeqPerL);

  /// Whether drops were typed at all; titration() then says the usual.
  bool hasTitration() const;
  TypedTitration titration() const;
  void setTitrationUsed(bool used);
  void setTitrationSample(const exchange::Amount& sample);
  void setTitrationSeek(const std::string& seek);
  void setTitrationReadings(const std::vector<std::pair<std::string, std::string>>& readings);

  /// Alkalinity that acid before use leaves, as typed in meq/L.
  std::string acidBeforeUseLeft() const { return figure("/water/acid_first/alkalinity_left").digits; }
  /// An empty id: none.
  void setAcidBeforeUse(const std::string& productId, const QString& name, const QString& leftMeqPerL);

private:
  void writeTitration(const Deed& deed, const TypedTitration& titration);
};

} // namespace butte::app
