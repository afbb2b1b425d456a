#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// Small words that name nothing by themselves: they say how what stands beside them is meant
/// (data/reading_particles.csv, per language).
enum class Particle {
  Currency,   ///< "$", "EUR": its code (ISO 4217)
  Clock,      ///< "pm", "Uhr", "Z": what it does to a time of day
  Per,        ///< "per", "je": so much in so much
  Part,       ///< "parts" of a ratio
  Scale,      ///< "CF": stands before its figure
  Container,  ///< "bag": what a quantity comes in; says nothing of how much
  As,         ///< "as", "als": the form follows
  UpTo,       ///< "to", "bis": the end of a range follows
  Filler,     ///< of a column's heading
  Flag,       ///< a laboratory's letter beside a result; "below": not detected at that figure
  LabelUnit,  ///< of what a fertilizer's label states
  Thousandth, ///< "mg" of a litre, where the form stands between: "mg N/l"
  Litre
};

/// One of them as it is written, and what it means where that matters.
struct ParticleWord {
  std::string written, means;
};

/// What a word (folded) means as that; nothing where it is none.
std::optional<std::string_view> particleMeans(Particle kind, std::string_view folded);
inline bool isParticle(Particle kind, std::string_view folded) {
  return particleMeans(kind, folded).has_value();
}

/// All of a kind, as they are written, in the order of the file.
const std::vector<ParticleWord>& particlesOf(Particle kind);

} // namespace butte::reading
