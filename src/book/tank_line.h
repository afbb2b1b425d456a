#pragma once
#include "amount.h"
#include "base/result.h"
#include "record.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::book {

/// What was done to a vessel, or seen of it. Codes stand in the file for good.
enum class TankDid {
  Filled,     ///< "filled": up to a mark
  Poured,     ///< "poured": so much
  Salts,      ///< "salts": weighed into it, or acid and base by weight
  Drained,    ///< "drained"
  Emptied,    ///< "emptied": all thrown away
  Rained,     ///< "rained"
  Bleeds,     ///< "bleeds": from now on so much is drained every day; none ends it
  Medium,     ///< "medium": what a growing medium brought, by the litre of it
  Analysed,   ///< "analysed": a laboratory's figures
  Planted,    ///< "planted"
  Calibrated, ///< "calibrated": a pen
  Cups,       ///< "cups": of feed per tray, and what was left
  Noted       ///< "noted": roots, leaves, harvest, a photo's name
};
std::string_view code(TankDid did);
/// Whether a formula has to say what it was.
bool comesFromFormula(TankDid did);

/// What is poured: by a version of a formula, or its water alone.
enum class TankLiquid { Feed, Water };

struct WeighedIn {
  std::string product;     ///< id on the formula's shelf
  exchange::Amount amount; ///< by weight, or of a liquid by volume
};

struct AnalysedFigure {
  std::string element; ///< its key: "N_NO3"
  exchange::Amount amount;
};

/// One line of a vessel's log. The body of a Kind::TankLine record is this as JSON (docs/formats/book.md).
struct TankLine {
  std::string vesselUid;
  Moment at;
  std::string who;
  TankDid did = TankDid::Noted;
  /// The mark of Filled; of Poured, Drained, Rained; given of Cups; a day's of Bleeds; of a Medium itself.
  exchange::Amount volume;
  exchange::Amount left; ///< of Cups
  TankLiquid liquid = TankLiquid::Feed;
  exchange::Amount strengthPercent; ///< of the feed over its water; nothing: full
  std::string formulaUid;           ///< of Filled, Poured, Salts
  int formulaVersion = 0;
  std::string batchUid; ///< of feed that a batch was mixed of: it is as strong as it was weighed
  std::string runUid;   ///< of salts that a run at the bench weighed
  std::vector<WeighedIn> weighed;
  std::vector<AnalysedFigure> figures;
  exchange::Amount slopePercent; ///< of Calibrated
  std::string about; ///< of Noted: roots, leaves, harvest, photo; of Calibrated: ec, ph; of Planted: the crop
  std::string text;
};

/// Reads strictly: a Problem names the key, the value and what would be right.
core::Result<TankLine> tankLineFromJson(const Json& json);
Json toJson(const TankLine& line);

} // namespace butte::book
