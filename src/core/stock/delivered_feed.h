#pragma once
#include "formula/mix.h"
#include "stock/stock.h"

#include <optional>
#include <vector>

namespace butte::core {

/// What reaches the plants through the tanks as they are.
struct DeliveredFeed {
  NutrientAmounts milligramsPerLitre;
  Solutes solutesPerLitre;
  Conductivity conductivity; ///< at 25 degC
  std::optional<double> ph;  ///< closed to the air; nothing where the water's is not known
};

/// The tanks and the water that they are dosed into, ready to be asked many times.
class Delivery {
public:
  /// `grams` stand for `batch` of finished feed, as planStock() was given them; products without a tank go
  /// straight into the feed. The source water counts whole, as in mix(): what the stocks displace of it (1 to
  /// 2 %) is left in. All must outlive the object.
  Delivery(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams, Volume batch,
           const StockAnswer& stock, const MixResult& water);

  /// With each tank giving so many times its due (1: as planned; 0: its line is shut). What fell out in a
  /// tank stays there. `apart`: the same for products without a tank.
  DeliveredFeed feed(const std::vector<double>& draws, double apart = 1) const;
  /// Only the conductivity of the same.
  Conductivity conductivity(const std::vector<double>& draws, double apart = 1) const;

  std::size_t tankCount() const { return m_tanks.size(); }

private:
  struct Part {
    NutrientAmounts milligramsPerLitre;
    Solutes solutesPerLitre;
  };
  Part sum(const std::vector<double>& draws, double apart) const;
  Conductivity conductivityOf(const Part& part) const;

  const MixResult& m_water;
  std::vector<Part> m_tanks; ///< what each brings to a litre of feed at its due
  Part m_apart;
};

/// A feed held to a meter's reading: a doser on a setpoint draws until the meter is right, whatever it draws.
struct SetpointFeed {
  double strength = 1; ///< of every draw, so that the meter reads the setpoint
  DeliveredFeed feed;
};

/// Nothing where the draws bring no conductivity, or where the water alone stands above the setpoint.
std::optional<SetpointFeed> atSetpoint(const Delivery& delivery, const std::vector<double>& draws,
                                       Conductivity setpoint);

} // namespace butte::core
