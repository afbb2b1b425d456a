#include "solution/pitzer_data.h"

#include "base/csv.h"
#include "base/embedded.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <string>

namespace butte::core {
namespace {

constexpr double referenceKelvin = 298.15;

template <typename Names> std::optional<std::size_t> placeOf(std::string_view species, const Names& names) {
  const auto it = std::find(names.begin(), names.end(), species);
  if (it == names.end()) return std::nullopt;
  return static_cast<std::size_t>(it - names.begin());
}

double valueAt(const CsvTable& csv, std::size_t row, double kelvin) {
  const auto term = [&](const char* column) { return csv.number(row, column).value_or(0); };
  constexpr double t0 = referenceKelvin;
  return term("a1") + term("a2") * (1 / kelvin - 1 / t0) + term("a3") * std::log(kelvin / t0) +
         term("a4") * (kelvin - t0) + term("a5") * (kelvin * kelvin - t0 * t0) +
         term("a6") * (1 / (kelvin * kelvin) - 1 / (t0 * t0));
}

class Reader {
public:
  explicit Reader(double celsius) : m_kelvin(celsius + 273.15) {}

  PitzerParameters read() {
    const CsvTable csv(embedded::pitzer());
    for (std::size_t row = 0; row < csv.rowCount(); ++row)
      take(csv.cell(row, "parameter"), csv.cell(row, "ion_1"), csv.cell(row, "ion_2"), csv.cell(row, "ion_3"),
           valueAt(csv, row, m_kelvin));
    return std::move(m_out);
  }

private:
  void take(const std::string& kind, const std::string& first, const std::string& second,
            const std::string& third, double value) {
    const auto cation = pitzerCation(first), secondCation = pitzerCation(second);
    if (kind == "theta")
      takeTheta(cation, secondCation, first, second, value);
    else if (kind == "psi" && secondCation)
      m_out.cationTriples.push_back({*cation, *secondCation, *pitzerAnion(third), value});
    else if (kind == "psi")
      m_out.anionTriples.push_back({*pitzerAnion(second), *pitzerAnion(third), *cation, value});
    else
      takePair(kind, *cation, *pitzerAnion(second), value);
  }

  void takeTheta(std::optional<std::size_t> cation, std::optional<std::size_t> secondCation,
                 const std::string& first, const std::string& second, double value) {
    if (cation) {
      m_out.cationTheta[*cation][*secondCation] = m_out.cationTheta[*secondCation][*cation] = value;
    } else {
      const auto a = *pitzerAnion(first), b = *pitzerAnion(second);
      m_out.anionTheta[a][b] = m_out.anionTheta[b][a] = value;
    }
  }

  void takePair(const std::string& kind, std::size_t cation, std::size_t anion, double value) {
    auto& pair = m_out.pairs[cation][anion];
    pair.isKnown = true;
    if (kind == "beta0") {
      pair.beta0 = value;
    } else if (kind == "beta1") {
      pair.beta1 = value;
    } else if (kind == "beta2") {
      pair.beta2 = value;
    } else {
      assert(kind == "c_phi" && "data/pitzer.csv has a kind of parameter that nobody reads");
      pair.c = value / (2 * std::sqrt(pitzerCationCharges[cation] * pitzerAnionCharges[anion]));
    }
  }

  double m_kelvin;
  PitzerParameters m_out;
};

} // namespace

std::optional<std::size_t> pitzerCation(std::string_view species) {
  return placeOf(species, pitzerCations);
}

std::optional<std::size_t> pitzerAnion(std::string_view species) {
  return placeOf(species, pitzerAnions);
}

PitzerParameters pitzerParametersAt(double celsius) {
  return Reader(celsius).read();
}

} // namespace butte::core
