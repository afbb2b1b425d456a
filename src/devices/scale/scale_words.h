#pragma once
#include <optional>
#include <string>
#include <string_view>

namespace butte::devices {

/// What a word beside a weight means.
enum class ScaleWord {
  Stable,
  Moving,
  Filler,  ///< gross, net, weight: the load as it is
  NotLoad, ///< a tare, a held or counted value: no load that lies there now
  Overload,
  Underload,
  Fault,
  Busy
};

/// Where a word stands: one letter means something else behind the value than before it.
enum class WordPlace { BeforeValue, BehindValue, Alone };

/// Nothing for a word that is not known there. Letters in any case.
std::optional<ScaleWord> scaleWord(std::string_view word, WordPlace place);

/// A unit of mass as displays write it: "g", "kg", "mg", "oz", "lb", or nothing. A lone capital G is none: it
/// stands for gross as often.
std::optional<std::string> massUnitOfDisplay(std::string_view word);

/// Grams in one of these units.
double gramsIn(std::string_view unit);

} // namespace butte::devices
