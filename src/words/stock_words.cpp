#include "stock_words.h"

#include "language.h"

#include "base/decimal.h"

#include <array>
#include <cmath>
#include <utility>

namespace butte::words {
namespace {

using namespace core;

struct Holds {
  bool calcium = false, sulfate = false, phosphate = false, silicate = false, acid = false, base = false;
  bool onlyTraces = true, onlyAcid = true;
};

Holds holdsOf(const std::vector<ShelfProduct>& shelf, const TankContent& content) {
  constexpr double meaningful = 0.002; // mass fraction: less is an impurity (common practice)
  Holds h;
  for (const auto& item : content.items) {
    const auto& c = shelf[item.product].composition;
    const auto& m = c.massFraction;
    const bool acid = c.role == ProductRole::Acid;
    double traces = 0;
    for (const auto n : allNutrients)
      traces += isTraceElement(n) ? m.of(n) : 0;
    const bool trace = traces > 0.02 && traces > m.of(Nutrient::N) + m.of(Nutrient::K);
    h.acid |= acid;
    h.base |= c.role == ProductRole::Base;
    h.silicate |= c.role == ProductRole::Silicate;
    h.onlyAcid &= acid;
    h.onlyTraces &= trace;
    if (trace || acid) continue; // a sulfate of zinc makes no sulfate side
    h.calcium |= m.of(Nutrient::Ca) > meaningful;
    h.sulfate |= m.of(Nutrient::S) > meaningful;
    h.phosphate |= m.of(Nutrient::P) > meaningful;
  }
  return h;
}

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

std::string tankSide(const std::vector<ShelfProduct>& shelf, const TankContent& content) {
  if (content.items.empty()) return text("empty");
  const auto h = holdsOf(shelf, content);
  if (h.onlyAcid) return text("acid");
  if (h.silicate) return content.items.size() == 1 ? "silicate" : "silicate and more";
  if (h.onlyTraces) return text("traces");
  const bool other = h.sulfate || h.phosphate;
  if (h.calcium && other) return text("all in one");
  if (h.calcium) return text("calcium side");
  if (h.sulfate && h.phosphate) return text("sulfate and phosphate side");
  if (h.sulfate) return text("sulfate side");
  if (h.phosphate) return text("phosphate side");
  return h.base ? "base" : "neutral salts";
}

std::string tankTitle(const std::vector<ShelfProduct>& shelf, const TankContent& content) {
  const auto side = tankSide(shelf, content);
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
    return said("The line of tank {} is clogged or shut: without it the meter would show {} mS/cm.",
                cause.tank < tankNames.size() ? tankNames[cause.tank] : "?", figure(cause.value));
  case ReadingCause::WrongVolume:
    return said("The vessel holds {} L, not {} L.", figure(cause.value),
                gap.volume ? figure(gap.volume->litres()) : "?");
  case ReadingCause::Undissolved:
    return said("{} % of the salts are not in solution yet: stir, wait, read again.", wholeFigure(cause.value));
  case ReadingCause::StockOff:
    return said("The stocks stand at {} % of their strength: topped up past the mark, a salt weighed "
                "wrong, or salt on the floor.",
                wholeFigure(100 * cause.value));
  case ReadingCause::OtherWater:
    return said("The water itself reads {} mS/cm today, not {}.", figure(cause.value),
                figure(gap.water.milliSiemensPerCm()));
  case ReadingCause::Temperature:
    return said("A pen that does not correct for temperature, in water of {} °C.", wholeFigure(25 + cause.value));
  }
  return {};
}

std::string_view code(ReservoirAct act) {
  constexpr std::array<std::string_view, 5> codes{"drain", "water", "stock", "acid", "last_water"};
  return codes[static_cast<std::size_t>(act)];
}

std::vector<std::string> acidTankCautions(const ShelfProduct& acid, std::optional<double> warmsByKelvin) {
  // Common practice throughout; the safety data sheet and the tank maker's list rule.
  std::vector<std::string> out{"Two thirds of the water first, the acid into it slowly and in parts, stir, "
                               "let it cool, then to the mark. "
                               "Never water into acid.",
                               "Polyethylene or polypropylene tank and lines, PVC or PVDF fittings; no "
                               "metal, no concrete. Ask the maker "
                               "about seals.",
                               "No chelates, no calcium side, no carbonates or silicate in it, and never "
                               "near hypochlorite: chlorine gas.",
                               "Goggles, acid-proof gloves, apron, water at hand. Label it. Injection into a "
                               "water line needs backflow "
                               "prevention and licensed practice."};
  if (warmsByKelvin && *warmsByKelvin > 1)
    out.insert(out.begin() + 1, said("{} warms the tank by about {} K if it all goes in at once.", acid.name,
                                     figure(std::round(*warmsByKelvin))));
  return out;
}

} // namespace butte::words
