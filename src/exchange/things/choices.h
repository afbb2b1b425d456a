#pragma once
#include "bench/weigh_plan.h"
#include "dose/dosing.h"
#include "json_reader.h"
#include "stock/tank.h"
#include "target/ratio.h"
#include "water/verdict.h"

#include <array>
#include <utility>

/// Words that stand for one of a few things, in scripts and documents alike.
namespace butte::exchange {

template <class T, std::size_t N> using Choices = std::array<std::pair<std::string_view, T>, N>;

inline constexpr Choices<core::RatioBasis, 3> ratioBases{{{"mass", core::RatioBasis::Mass},
                                                          {"moles", core::RatioBasis::Moles},
                                                          {"equivalents", core::RatioBasis::Equivalents}}};
inline constexpr Choices<core::GrowingSystem, 2> growingSystems{
    {{"open", core::GrowingSystem::Open}, {"recirculating", core::GrowingSystem::Recirculating}}};
inline constexpr Choices<core::AcidTurn, 2> acidTurns{
    {{"last", core::AcidTurn::Last}, {"first", core::AcidTurn::First}}};
/// Whether it wets the leaves.
inline constexpr Choices<bool, 2> waterings{{{"roots", false}, {"overhead", true}}};

/// The thing that the text at a key names; the first of the list where there is none. Another text is a
/// problem that names them all: NotOneOf.
template <class T, std::size_t N>
T chosen(ObjectReader& reader, std::string_view key, const Choices<T, N>& known) {
  const auto text = reader.text(key);
  if (!text) return known.front().second;
  std::string all;
  for (const auto& [word, value] : known) {
    if (*text == word) return value;
    all += (all.empty() ? "" : ", ") + std::string(word);
  }
  reader.fail(core::ProblemCode::NotOneOf, key, {*text, all});
  return known.front().second;
}

} // namespace butte::exchange
