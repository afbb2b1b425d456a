#include "words/particles.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "text/atoms.h"

#include <algorithm>
#include <array>
#include <map>

namespace butte::reading {
namespace {

constexpr std::array<std::string_view, 13> particleNames{
    "currency", "clock",  "per",  "part",       "scale",      "container", "as",
    "up to",    "filler", "flag", "label unit", "thousandth", "litre"};

struct Particles {
  std::array<std::vector<ParticleWord>, particleNames.size()> listed;
  std::array<std::map<std::string, std::string, std::less<>>, particleNames.size()> folded;
  std::array<std::size_t, particleNames.size()> longest{}; ///< bytes, folded

  Particles() {
    const core::CsvTable table(core::embedded::reading_particles());
    for (std::size_t row = 0; row < table.rowCount(); ++row) {
      const auto kind = static_cast<std::size_t>(
          std::find(particleNames.begin(), particleNames.end(), table.cell(row, "kind")) -
          particleNames.begin());
      const auto &word = table.cell(row, "word"), &means = table.cell(row, "means");
      listed[kind].push_back({word, means});
      const auto added = folded[kind].emplace(reading::folded(word), means).first;
      longest[kind] = std::max(longest[kind], added->first.size());
    }
  }
};

const Particles& particles() {
  static const Particles all;
  return all;
}

} // namespace

std::optional<std::string_view> particleMeans(Particle kind, std::string_view folded) {
  const auto& known = particles();
  if (folded.size() > known.longest[static_cast<std::size_t>(kind)]) return std::nullopt;
  const auto& words = known.folded[static_cast<std::size_t>(kind)];
  const auto it = words.find(folded);
  return it == words.end() ? std::nullopt : std::optional<std::string_view>(it->second);
}

const std::vector<ParticleWord>& particlesOf(Particle kind) {
  return particles().listed[static_cast<std::size_t>(kind)];
}

} // namespace butte::reading
