#pragma once
#include "dose/ratio.h"
#include "edits/edits.h"
#include "formula_document.h"

namespace butte::app {

/// A tank's vessel as it was typed, in cm.
struct TypedVessel {
  std::string across, along, height;
};

/// Edits of a formula's tanks and of how they are dosed, each one step of undo.
class StockEdits : public Edits {
public:
  using Edits::Edits;

  /// How the strength is stated, and its figure.
  core::RatioForm form() const;
  std::string strength() const { return figure("/stock/factor").digits; }
  void setStrength(const QString& digits);
  /// Another way of stating the same strength.
  void setForm(core::RatioForm form);
  /// From a ratio 1 to `factor`, in whatever form the strength is stated.
  void setFactor(double factor);
  exchange::Amount coldest() const { return figure("/stock/coldest"); }
  void setColdest(const exchange::Amount& coldest);
  std::string margin() const { return figure("/stock/margin_percent").digits; }
  void setMargin(const QString& percent);

  void setTankName(std::size_t tank, const QString& name);
  exchange::Amount tankVolume(std::size_t tank) const { return figure(place(tank, "volume")); }
  void setTankVolume(std::size_t tank, const exchange::Amount& volume);
  std::string ownRatio(std::size_t tank) const { return figure(place(tank, "own_factor")).digits; }
  /// No digits: the ratio of all.
  void setOwnRatio(std::size_t tank, const QString& digits);
  void setTankUse(std::size_t tank, core::TankUse use);
  void setMadeWithPure(std::size_t tank);
  void setMadeWithBlend(std::size_t tank);
  void setMadeWithSource(std::size_t tank, std::size_t source, const QString& name);
  TypedVessel vessel(std::size_t tank) const;
  void setVesselShape(std::size_t tank, core::VesselShape shape);
  void setVesselUnknown(std::size_t tank);
  void setVesselAcross(std::size_t tank, const QString& cm) { setVessel(tank, "across_cm", cm); }
  void setVesselAlong(std::size_t tank, const QString& cm) { setVessel(tank, "along_cm", cm); }
  void setVesselHeight(std::size_t tank, const QString& cm) { setVessel(tank, "height_cm", cm); }

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

  /// One figure of how it is dosed ("feed_per_day", "reservoir/volume", "drawn/0/volume" ...); no digits: the
  /// usual.
  exchange::Amount dosing(const std::string& path) const { return figure("/dosing/" + path); }
  void setDosing(const std::string& path, const exchange::Amount& figure);
  void switchDosing(const std::string& path, bool on);
  void setDevice(exchange::DosingDevice device);
  /// ISO date; empty: not said.
  void setMixedOn(const QString& date);
  /// Another formula of the book whose tanks stand beside these; empty: none.
  void setBeside(const std::string& formulaUid, const QString& name);

private:
  static std::string place(std::size_t tank, const char* key) {
    return "/stock/tanks/" + std::to_string(tank) + "/" + key;
  }
  void put(const Deed& deed, const exchange::Json& stock);
  void setVessel(std::size_t tank, const char* key, const QString& text);
  void setInDosing(const Deed& deed, const std::string& path, const exchange::Json& value, bool merge);
  exchange::Json shares(const std::string& product) const;
  exchange::Json placedWithout(const std::string& product) const;
};

/// How the hand stated the dilution: what papers and labels say it in too.
core::RatioForm statedRatioForm(const FormulaEditor& editor);

} // namespace butte::app
