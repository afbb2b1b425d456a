#pragma once
#include "tank/reservoir_chemistry.h"
#include "tank/reservoir_flow.h"

#include <cstdint>
#include <optional>
#include <random>
#include <string>

namespace butte::sim {

/// What kind of a tank stands in, and what ails its meters. Made up, like a lettuce pond's.
struct TankKind {
  core::Volume full = core::Volume::fromLitres(1000), low = core::Volume::fromLitres(700);
  std::string crop = "Lettuce";
  double drunkLPerDay = 60; ///< on the mean of day and night
  bool refills = true;      ///< to the full mark, with feed, once it stands at the low one
  double penEcSharePerDay = 0, penPhPerDay = 0; ///< drift of the pens
  std::optional<double> levelSticksAfterDays;   ///< a float that hangs
  double wildShare = 0;                         ///< of all lines: a figure that can't be
};

/// What its meters show at a moment.
struct TankFigures {
  double msPerCm = 0, ph = 7, litres = 0, celsius = 20;
};

/// A tank that is none: emptied by its plants by day more than by night, taking up what their kind takes,
/// refilled at its low mark; its pH and EC by the equilibrium engine. The same seed gives the same figures.
class TankModel {
public:
  explicit TankModel(TankKind kind = {}, std::uint64_t seed = 1);

  void advance(double seconds);
  /// As the meters show it: with their flicker, drift and faults.
  TankFigures read();
  /// As it truly is.
  TankFigures truth() const;
  double days() const { return m_days; }
  int refills() const { return m_refills; }
  const core::ReservoirContent& content() const { return m_content; }

private:
  double celsius() const;

  TankKind m_kind;
  std::mt19937_64 m_random;
  core::FeedContent m_feed;
  core::ReservoirContent m_content;
  core::Uptake m_uptake;
  double m_days = 0, m_stuckLitres = 0;
  int m_refills = 0;
};

} // namespace butte::sim
