#include "quantity/unit_names.h"

#include "base/csv.h"
#include "base/embedded.h"

#include <algorithm>
#include <map>

namespace butte::reading {
namespace {

constexpr std::size_t mostAtoms = 8;

bool isSilent(const Atom& atom) {
  return atom.is(".") || atom.is("-") || atom.is("(") || atom.is(")") || atom.is("_") || atom.is("·");
}

const std::map<std::string, TypedUnit, std::less<>>& names() {
  static const auto all = [] {
    std::map<std::string, TypedUnit, std::less<>> out;
    const core::CsvTable table(core::embedded::typed_units());
    for (std::size_t row = 0; row < table.rowCount(); ++row) {
      std::string joined;
      for (const auto& atom : atomsOf(table.cell(row, "word"))) {
        if (!isSilent(atom)) joined += atom.text;
      }
      out.emplace(joined, TypedUnit{table.cell(row, "unit"), table.number(row, "factor").value_or(1)});
    }
    return out;
  }();
  return all;
}

} // namespace

UnitName unitNameAt(Atoms atoms, std::size_t at) {
  UnitName out;
  std::string joined;
  for (auto i = at; i < atoms.size() && i < at + mostAtoms; ++i) {
    if (isSilent(atoms[i])) {
      if (i == at) break;
      if (out.length == i - at && (atoms[i].is(".") || atoms[i].is(")"))) out.length = i - at + 1; // "gal."
      continue;
    }
    joined += atoms[i].text;
    if (const auto it = names().find(joined); it != names().end()) out = {i - at + 1, it->second};
  }
  return out;
}

std::string unitNamed(std::string_view text) {
  const auto atoms = atomsOf(text);
  const auto found = unitNameAt(atoms, 0);
  return found.length > 0 && found.length == atoms.size() && found.meaning.factor == 1 ? found.meaning.unit
                                                                                       : std::string();
}

} // namespace butte::reading
