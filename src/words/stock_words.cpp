#include "stock_words.h"

#include "language.h"
#include "measures.h"

#include "base/decimal.h"
#include "stock/tank_side.h"

#include <array>
#include <cmath>
#include <utility>

namespace butte::words {
namespace {

using core::PossibleCause;
using core::ReadingCause;
using core::ReadingGap;
using core::ReservoirAct;
using core::ShelfProduct;
using core::TankContent;
using core::TankSide;

std::string liquidScale(double factor) {
  const auto near = [&](double a) { return std::abs(factor - a) < 1e-6; };
  if (near(500.0 / 700)) return text("a pen on the 500 scale where 700 was meant");
  if (near(500.0 / 640)) return text("a pen on the 500 scale where 640 was meant");
  if (near(640.0 / 700)) return text("a pen on the 640 scale where 700 was meant");
  if (near(700.0 / 500)) return text("a pen on the 700 scale where 500 was meant");
  if (near(640.0 / 500)) return text("a pen on the 640 scale where 500 was meant");
  return text("a pen on the 700 scale where 640 was meant");
}

} // namespace

std::string tankSideText(const std::vector<ShelfProduct>& shelf, const TankContent& content) {
  switch (core::tankSide(shelf, content)) {
  case TankSide::Empty:
    return text("empty");
  case TankSide::Acid:
    return text("acid");
  case TankSide::Silicate:
    return text("silicate");
  case TankSide::SilicateAndMore:
    return text("silicate and more");
  case TankSide::Traces:
    return text("traces");
  case TankSide::AllInOne:
    return text("all in one");
  case TankSide::Calcium:
    return text("calcium side");
  case TankSide::SulfateAndPhosphate:
    return text("sulfate and phosphate side");
  case TankSide::Sulfate:
    return text("sulfate side");
  case TankSide::Phosphate:
    return text("phosphate side");
  case TankSide::Base:
    return text("base");
  case TankSide::Neutral:
    return text("neutral salts");
  }
  return {};
}

std::string vesselTitle() {
  return text("the vessel");
}

std::string tankTitle(const std::vector<ShelfProduct>& shelf, const TankContent& content) {
  const auto side = tankSideText(shelf, content);
  return content.tank.name == side ? side : content.tank.name + " · " + side;
}

std::string ceilingFigure(double factor) {
  const double step = factor < 10 ? 0.1 : factor < 1000 ? 1 : 10;
  return core::decimalText(std::floor(factor / step + 1e-9) * step);
}

std::string_view code(ReadingCause cause) {
  constexpr std::array<std::string_view, 8> codes{"within_meter", "meter_scale", "one_side_shut",
                                                  "wrong_volume", "undissolved", "stock_off",
                                                  "other_water",  "temperature"};
  return codes[static_cast<std::size_t>(cause)];
}

namespace {
std::string wholeFigure(double value) {
  return fmt::format("{:.0f}", value);
}
} // namespace

std::string causeText(const PossibleCause& cause, const ReadingGap& gap,
                      const std::vector<std::string>& tankNames) {
  switch (cause.cause) {
  case ReadingCause::WithinMeter:
    return text("The reading agrees: a pen reads no closer than 5 %.");
  case ReadingCause::MeterScale:
    return said("The meter: {}.", liquidScale(cause.value));
  case ReadingCause::OneSideShut:
    return said("The line of tank {} is clogged or shut: without it the meter would show {}.",
                cause.tank < tankNames.size() ? tankNames[cause.tank] : "?",
                measures().text(core::Conductivity::fromMilliSiemensPerCm(cause.value)));
  case ReadingCause::WrongVolume:
    return said("The vessel holds {}, not {}.", measures().text(core::Volume::fromLitres(cause.value)),
                gap.volume ? measures().text(*gap.volume) : "?");
  case ReadingCause::Undissolved:
    return said("{} % of the salts are not in solution yet: stir, wait, read again.",
                wholeFigure(cause.value));
  case ReadingCause::StockOff:
    return said("The stocks stand at {} % of their strength: topped up past the mark, a salt weighed "
                "wrong, or salt on the floor.",
                wholeFigure(100 * cause.value));
  case ReadingCause::OtherWater:
    return said("The water itself reads {} today, not {}.",
                measures().text(core::Conductivity::fromMilliSiemensPerCm(cause.value)),
                measures().digits(gap.water));
  case ReadingCause::Temperature:
    return said("A pen that does not correct for temperature, in water of {}.",
                measures().text(core::Temperature::fromCelsius(std::round(25 + cause.value))));
  }
  return {};
}

std::string_view code(ReservoirAct act) {
  constexpr std::array<std::string_view, 5> codes{"drain", "water", "stock", "acid", "last_water"};
  return codes[static_cast<std::size_t>(act)];
}

std::vector<std::string> acidTankCautions(const ShelfProduct& acid, std::optional<double> warmsByKelvin) {
  // Common practice throughout; the safety data sheet and the tank maker's list rule.
  std::vector<std::string> out{
      text("Two thirds of the water first, the acid into it slowly and in parts, stir, let it cool, then to "
           "the "
           "mark. Never water into acid."),
      text("Polyethylene or polypropylene tank and lines, PVC or PVDF fittings; no metal, no concrete. Ask "
           "the "
           "maker about seals."),
      text("No chelates, no calcium side, no carbonates or silicate in it, and never near hypochlorite: "
           "chlorine gas."),
      text("Goggles, acid-proof gloves, apron, water at hand. Label it. Injection into a water line needs "
           "backflow prevention and licensed practice.")};
  if (warmsByKelvin && *warmsByKelvin > 1)
    out.insert(out.begin() + 1, said("{} warms the tank by about {} K if it all goes in at once.", acid.name,
                                     figure(std::round(*warmsByKelvin))));
  return out;
}

} // namespace butte::words
