#include "report/unit_text.h"

#include "words/particles.h"
#include "words/vocabulary.h"

#include <algorithm>
#include <array>

namespace butte::reading {
namespace {

bool isForm(std::string_view symbol) {
  static constexpr std::array<std::string_view, 13> forms{"N",   "NO3",  "NH4",   "NH3",  "S",    "SO4", "P",
                                                          "PO4", "P2O5", "CaCO3", "HCO3", "SiO2", "Si"};
  return std::find(forms.begin(), forms.end(), symbol) != forms.end();
}

/// A symbol that may be a form; "NO3-N" is nitrogen.
std::optional<WordFound> formAt(Atoms atoms, std::size_t at, std::size_t end) {
  const auto found = at < end ? wordAt(WordKind::Symbol, atoms, at, end) : std::nullopt;
  if (!found || !isForm(found->means)) return std::nullopt;
  const auto next = at + found->length;
  if (next + 1 < end && atoms[next].is("-")) {
    const auto element = wordAt(WordKind::Symbol, atoms, next + 1, end);
    if (element && isForm(element->means))
      return WordFound{found->length + 1 + element->length, element->means};
  }
  return found;
}

/// "mg N/l", "mg CaCO3/L", "µg NO3-N / L".
std::optional<UnitFound> withFormInside(Atoms atoms, std::size_t at, std::size_t end) {
  const auto unit = particleMeans(Particle::Thousandth, atoms[at].text);
  if (!unit) return std::nullopt;
  const auto form = formAt(atoms, at + 1, end);
  if (!form) return std::nullopt;
  const auto slash = at + 1 + form->length;
  if (slash + 1 >= end || !atoms[slash].is("/") || !isParticle(Particle::Litre, atoms[slash + 1].text))
    return std::nullopt;
  return UnitFound{form->length + 3, std::string(*unit), {std::string(form->means)}};
}

} // namespace

std::optional<UnitFound> unitAt(Atoms atoms, std::size_t at, std::size_t end) {
  if (at >= end) return std::nullopt; // "Calcium (" at the end of its cell
  if (auto inside = withFormInside(atoms, at, end)) return inside;
  const auto found = wordAt(WordKind::Unit, atoms, at, end);
  if (!found) return std::nullopt;
  UnitFound out{found->length, std::string(found->means), {}};
  auto next = at + found->length;
  // "mg/L (as N)", "mg/L as CaCO3", "mg/L CaCO3", "mg/L-N"
  const bool open = next < end && (atoms[next].is("(") || atoms[next].is("["));
  const bool linked = next < end && (atoms[next].is("-") || atoms[next].is(","));
  auto i = next + (open || linked);
  if (i < end && isParticle(Particle::As, atoms[i].text)) ++i;
  const auto form = formAt(atoms, i, end);
  if (!form || (i < end && atoms[i].gap > 2)) return out;
  i += form->length;
  if (open) {
    if (i >= end || !(atoms[i].is(")") || atoms[i].is("]"))) return out;
    ++i;
  }
  out.form.emplace_back(form->means);
  out.length = i - at;
  return out;
}

} // namespace butte::reading
