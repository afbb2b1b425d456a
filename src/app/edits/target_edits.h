#pragma once
#include "book/record.h"
#include "edits/edits.h"
#include "target/ratio.h"
#include "target/target.h"

#include <optional>
#include <utility>

namespace butte::app {

class BookDesk;

/// One row of a target as it was typed.
struct TypedTargetRow {
  core::Nutrient nutrient{};
  exchange::Amount figure; ///< mg/L, mmol/L or meq/L
  std::string tolerancePercent;
};

/// A wished ratio as it was typed.
struct TypedRatio {
  std::string value, tolerancePercent;
};

/// Edits of a formula's target, and of the crops that share its tanks.
class TargetEdits : public Edits {
public:
  using Edits::Edits;

  void setName(const QString& name);
  /// A published target; the formula's crop follows where it has none yet.
  void take(const core::CatalogueTarget& target, bool withCrop = true);
  /// One of sampleTargets().
  void takeSample(std::size_t index);

  std::vector<TypedTargetRow> rows() const;
  std::optional<TypedTargetRow> row(core::Nutrient nutrient) const;
  /// No digits leave the element free.
  void setFigure(core::Nutrient nutrient, const exchange::Amount& figure);
  /// A target dragged to a place, written in its own unit with three figures: nobody drags finer than that.
  void moveTo(core::Nutrient nutrient, double milligramsPerLitre);
  /// The figure turned into another unit: the target stays what it was.
  void setUnit(core::Nutrient nutrient, const std::string& unit);
  void setTolerance(core::Nutrient nutrient, const QString& percent);
  /// Written as nitrate and ammonium: what plants tell apart. Digits of the whole (mg/L) and of ammonium's
  /// share (%).
  void setNitrogen(const QString& total, const QString& ammoniumPercent);
  /// New values in mg/L, each written in its row's own unit with so many digits.
  void scale(const Deed& deed, const std::vector<core::TargetRow>& rows);
  /// The rows as they would stand then.
  exchange::Json scaledRows(const std::vector<core::TargetRow>& rows) const;
  /// The rows take their figures from a feed that was found elsewhere; what it has none of stays.
  void takeFeed(const core::NutrientAmounts& milligramsPerLitre, const QString& name);
  void balance(const std::vector<std::pair<core::Nutrient, double>>& milligramsPerLitre);

  std::vector<TypedRatio> ratios() const;
  void addRatio(const core::RatioWish& wish, const std::string& name);
  void removeRatio(std::size_t index);
  void setRatioValue(std::size_t index, const QString& digits);
  void setRatioTolerance(std::size_t index, const QString& percent);

  /// Digits in mg/L; empty where there is no cap.
  std::string cap(core::Nutrient nutrient) const;
  void setCap(core::Nutrient nutrient, const QString& digits);

  /// Crops that share the tanks: the formula's own target, one of the book, a published one. False where it
  /// asks for nothing yet.
  bool addOwnAsCrop();
  bool addCrop(BookDesk& desk, const std::string& targetUid);
  bool addCrop(const core::CatalogueTarget& target);
  void removeCrop(std::size_t index);

private:
  void setRows(const Deed& deed, const exchange::Json& rows, bool merge = false);
  int indexOf(core::Nutrient nutrient) const;
  bool addCropTarget(exchange::Json target);
};

/// A made-up target that ships, to try things with.
struct SampleTarget {
  QString name;
  std::vector<core::TargetRow> rows;
};
const std::vector<SampleTarget>& sampleTargets();

/// A target of the book as a stage of its crop.
struct CropStage {
  book::Ref ref;
  QString name;
  double fromWeek = 0;
  std::vector<core::TargetRow> rows;
};
/// The stages of a crop, by the week they begin in.
std::vector<CropStage> stagesOf(BookDesk& desk, const std::string& crop);

/// The rows of a target in the book; none where it is gone.
std::vector<core::TargetRow> targetInBook(BookDesk& desk, const std::string& uid);

} // namespace butte::app
