#include "scale/scale_words.h"

#include "units/quantity.h"

#include <algorithm>
#include <cctype>

namespace butte::devices {

namespace {

enum class Place { Before, Behind, Either, Alone };

bool stands(Place known, WordPlace here) {
  switch (known) {
  case Place::Before:
    return here != WordPlace::BehindValue;
  case Place::Behind:
    return here == WordPlace::BehindValue;
  case Place::Alone:
    return here == WordPlace::Alone;
  case Place::Either:
    break;
  }
  return true;
}

struct Known {
  const char* word; ///< in capitals
  ScaleWord means;
  Place place;
};

/// Common practice of serial scales, from memory.
constexpr Known knownWords[] = {
    {"ST", ScaleWord::Stable, Place::Either},         {"STABLE", ScaleWord::Stable, Place::Either},
    {"S", ScaleWord::Stable, Place::Behind},          {"US", ScaleWord::Moving, Place::Either},
    {"UNST", ScaleWord::Moving, Place::Either},       {"UNSTABLE", ScaleWord::Moving, Place::Either},
    {"MOTION", ScaleWord::Moving, Place::Either},     {"M", ScaleWord::Moving, Place::Behind},
    {"MO", ScaleWord::Moving, Place::Behind},         {"D", ScaleWord::Moving, Place::Behind},
    {"U", ScaleWord::Moving, Place::Behind},          {"GS", ScaleWord::Filler, Place::Either},
    {"GR", ScaleWord::Filler, Place::Either},         {"GROSS", ScaleWord::Filler, Place::Either},
    {"G", ScaleWord::Filler, Place::Either},          {"NT", ScaleWord::Filler, Place::Either},
    {"NET", ScaleWord::Filler, Place::Either},        {"N", ScaleWord::Filler, Place::Either},
    {"W", ScaleWord::Filler, Place::Before},          {"WT", ScaleWord::Filler, Place::Before},
    {"WEIGHT", ScaleWord::Filler, Place::Before},     {"TR", ScaleWord::NotLoad, Place::Either},
    {"TARE", ScaleWord::NotLoad, Place::Either},      {"T", ScaleWord::NotLoad, Place::Either},
    {"PT", ScaleWord::NotLoad, Place::Either},        {"HD", ScaleWord::NotLoad, Place::Either},
    {"HOLD", ScaleWord::NotLoad, Place::Either},      {"QT", ScaleWord::NotLoad, Place::Either},
    {"OL", ScaleWord::Overload, Place::Either},       {"OVER", ScaleWord::Overload, Place::Either},
    {"OVERLOAD", ScaleWord::Overload, Place::Either}, {"OVL", ScaleWord::Overload, Place::Either},
    {"OF", ScaleWord::Overload, Place::Either},       {"HIGH", ScaleWord::Overload, Place::Alone},
    {"HI", ScaleWord::Overload, Place::Alone},        {"UL", ScaleWord::Underload, Place::Either},
    {"UNDER", ScaleWord::Underload, Place::Either},   {"UNDERLOAD", ScaleWord::Underload, Place::Either},
    {"UF", ScaleWord::Underload, Place::Either},      {"LOW", ScaleWord::Underload, Place::Alone},
    {"LO", ScaleWord::Underload, Place::Alone},       {"ERR", ScaleWord::Fault, Place::Either},
    {"ERROR", ScaleWord::Fault, Place::Either},       {"ES", ScaleWord::Fault, Place::Alone},
    {"ET", ScaleWord::Fault, Place::Alone},           {"EL", ScaleWord::Fault, Place::Alone},
    {"BUSY", ScaleWord::Busy, Place::Either},         {"WAIT", ScaleWord::Busy, Place::Either}};

std::string inCapitals(std::string_view word) {
  std::string out(word);
  std::transform(out.begin(), out.end(), out.begin(),
                 [](char c) { return static_cast<char>(std::toupper(static_cast<unsigned char>(c))); });
  return out;
}

struct Unit {
  const char* written;
  const char* unit;
};
constexpr Unit knownUnits[] = {{"g", "g"},    {"gm", "g"},   {"gram", "g"}, {"grams", "g"}, {"kg", "kg"},
                               {"Kg", "kg"},  {"KG", "kg"},  {"mg", "mg"},  {"MG", "mg"},   {"oz", "oz"},
                               {"OZ", "oz"},  {"Oz", "oz"},  {"lb", "lb"},  {"LB", "lb"},   {"Lb", "lb"},
                               {"lbs", "lb"}, {"LBS", "lb"}, {"GM", "g"}};

} // namespace

std::optional<ScaleWord> scaleWord(std::string_view word, WordPlace place) {
  const auto capitals = inCapitals(word);
  for (const auto& known : knownWords)
    if (stands(known.place, place) && capitals == known.word) return known.means;
  // A display filled with H or L.
  constexpr std::size_t filled = 3;
  if (place == WordPlace::Alone && word.size() >= filled) {
    if (capitals.find_first_not_of('H') == std::string::npos) return ScaleWord::Overload;
    if (capitals.find_first_not_of('L') == std::string::npos) return ScaleWord::Underload;
  }
  return std::nullopt;
}

std::optional<std::string> massUnitOfDisplay(std::string_view word) {
  const auto* known = std::find_if(std::begin(knownUnits), std::end(knownUnits),
                                   [&](const Unit& u) { return word == u.written; });
  return known == std::end(knownUnits) ? std::nullopt : std::optional<std::string>(known->unit);
}

double gramsIn(std::string_view unit) {
  return unit == "kg"   ? 1000
         : unit == "mg" ? 0.001
         : unit == "lb" ? core::Mass::fromPounds(1).grams()
         : unit == "oz" ? core::Mass::fromOunces(1).grams()
                        : 1;
}

} // namespace butte::devices
