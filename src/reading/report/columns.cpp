#include "report/columns.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <limits>

namespace butte::reading {
namespace {

using Kind = Item::Kind;

/// "2024" above a column of figures.
int yearOf(const Item& item) {
  const double value = item.figure.value;
  const bool year = item.kind == Kind::Figure && item.text.size() == 4 && value >= 1990 && value <= 2099;
  return year ? static_cast<int>(value) : 0;
}

Column columnOf(const Item& item) {
  Column out;
  out.role = item.role.value_or(Role::Unknown);
  out.text = item.text;
  out.cell = item.cell;
  out.left = item.left;
  out.right = item.right;
  out.year = yearOf(item);
  if (item.kind == Kind::Unit) {
    // A column headed by its unit alone holds results: "mg/L | mmol/L".
    out.role = Role::Result;
    out.unit = item.unit;
    out.form = item.form;
  }
  return out;
}

bool isNoise(const Item& item) {
  return item.kind == Kind::Text && !item.role && item.text.size() == 1;
}

/// Of several years the newest counts.
void chooseYear(std::vector<Column>& columns) {
  int newest = 0;
  for (const auto& column : columns)
    newest = std::max(newest, column.year);
  for (auto& column : columns) {
    if (column.year > 0) column.role = column.year == newest ? Role::Result : Role::Limit;
  }
}

std::optional<Heading> tableHeading(const Line& line) {
  Heading out;
  out.parting = line.parting;
  int said = 0;
  for (const auto& item : line.items) {
    if (isNoise(item)) continue;
    if (item.kind == Kind::Name || item.kind == Kind::Formula || item.kind == Kind::Range)
      return std::nullopt;
    if (item.kind == Kind::Figure && yearOf(item) == 0) return std::nullopt;
    const bool ofTheOneBefore =
        item.kind == Kind::Unit && !out.columns.empty() && out.columns.back().cell == item.cell &&
        out.columns.back().unit.empty() &&
        (out.columns.back().role == Role::Result || out.columns.back().role == Role::Limit);
    if (ofTheOneBefore) {
      out.columns.back().unit = item.unit;
      out.columns.back().form = item.form;
      out.columns.back().right = item.right;
      continue;
    }
    out.columns.push_back(columnOf(item));
    said += item.role.has_value() || item.kind == Kind::Unit || yearOf(item) > 0;
  }
  const auto is = [&](Role role) {
    return std::any_of(out.columns.begin(), out.columns.end(),
                       [&](const Column& c) { return c.role == role; });
  };
  chooseYear(out.columns);
  const bool heads =
      said >= 2 && (is(Role::Name) || is(Role::Unit) || is(Role::Symbol)) && out.columns.size() >= 2;
  return heads ? std::optional(std::move(out)) : std::nullopt;
}

std::optional<Heading> headingAcrossTop(const Line& line) {
  Heading out;
  out.parting = line.parting;
  out.acrossTop = true;
  std::vector<const Item*> names;
  for (const auto& item : line.items) {
    if (item.kind == Kind::Figure || item.kind == Kind::Formula || item.kind == Kind::Range)
      return std::nullopt;
    if (isNoise(item)) continue;
    if (item.kind == Kind::Unit && !out.columns.empty() && out.columns.back().analyte &&
        out.columns.back().unit.empty() && line.parting == Parting::Blanks) {
      out.columns.back().unit = item.unit;
      continue;
    }
    auto column = columnOf(item);
    if (item.kind == Kind::Name) {
      names.push_back(&item);
      column.analyte = item.analyte;
      column.unit = item.unit;
      column.role = Role::Result;
    } else {
      column.role = Role::Unknown;
    }
    out.columns.push_back(std::move(column));
  }
  const bool heads = names.size() >= 2 || (names.size() == 1 && out.columns.size() > 1 &&
                                           !out.columns.front().analyte && line.parting != Parting::Blanks);
  if (!heads || (names.size() >= 2 && joinedName(line, names))) return std::nullopt;
  return out;
}

double fits(const Item& item, const Column& column) {
  const bool figure = item.kind == Kind::Figure, text = item.kind == Kind::Text,
             name = item.kind == Kind::Name;
  const bool unit = item.kind == Kind::Unit, none = item.kind == Kind::NotMeasured;
  if (item.kind == Kind::Empty) return 0.5;
  switch (column.role) {
  case Role::Name:
    return name ? 6 : text ? 1 : figure ? -6 : -4;
  case Role::Symbol:
    return name ? 3 : text || none ? 1 : figure ? -6 : -2;
  case Role::Result:
    return figure ? 5 : none || item.kind == Kind::Formula ? 4 : text || item.kind == Kind::Range ? -1 : -5;
  case Role::Unit:
    return unit ? 5 : none ? 2 : text ? 0 : name ? -1 : -6;
  case Role::Limit:
    return figure || none || item.kind == Kind::Range ? 3 : text ? 0.5 : -3;
  case Role::Flag:
    return text || none || (name && item.text.size() <= 2) ? 1 : -3;
  case Role::Method:
    return text ? 2 : figure ? 0.5 : item.kind == Kind::Date ? 0 : -1;
  case Role::Date:
    return item.kind == Kind::Date ? 4 : text ? 1 : figure ? 0 : -2;
  case Role::Number:
    return figure ? 2 : text ? 1 : -2;
  case Role::Source:
    return text ? 2 : name ? -0.5 : -2;
  case Role::Unknown:
    return figure ? 1 : 0.5;
  }
  return 0;
}

double stands(const Item& item, const Column& column, Parting parting) {
  if (parting == Parting::Blanks) return 0;
  if (parting != Parting::WideBlanks) {
    const auto apart = item.cell > column.cell ? item.cell - column.cell : column.cell - item.cell;
    return apart == 0 ? 6 : -4.0 * static_cast<double>(apart);
  }
  if (std::abs(item.left - column.left) <= 1 || std::abs(item.right - column.right) <= 1) return 4;
  const int apart = std::max(item.left, column.left) - std::min(item.right, column.right);
  return apart <= 0 ? 2 : -std::min(6.0, apart / 4.0);
}

} // namespace

std::optional<Analyte> joinedName(const Line& line, const std::vector<const Item*>& names) {
  std::vector<Atom> atoms;
  std::vector<std::string> form;
  for (const auto* item : names) {
    atoms.insert(atoms.end(), line.atoms.begin() + static_cast<std::ptrdiff_t>(item->nameAtom),
                 line.atoms.begin() + static_cast<std::ptrdiff_t>(item->nameEnd));
    form.insert(form.end(), item->form.begin(), item->form.end());
  }
  for (auto& atom : atoms)
    atom.gap = std::min(atom.gap, 1);
  return analyteOf(atoms, form);
}

std::optional<Heading> headingOf(const Line& line) {
  if (auto out = tableHeading(line)) return out;
  return headingAcrossTop(line);
}

std::vector<std::optional<std::size_t>> columnsOf(const Line& line, const Heading& heading) {
  std::vector<std::optional<std::size_t>> out(line.items.size());
  constexpr std::size_t mostSteps = 40'000; // no paper has more; such a line goes by its cells alone
  if (line.items.size() * heading.columns.size() > mostSteps) {
    for (std::size_t i = 0; i < out.size(); ++i) {
      const auto cell = line.items[i].cell;
      if (cell < heading.columns.size() && heading.columns[cell].cell == cell) out[i] = cell;
    }
    return out;
  }
  // The best way through both in step: each item under a column, or under none.
  const auto& items = line.items;
  const auto& columns = heading.columns;
  const auto rows = items.size() + 1, width = columns.size() + 1;
  const auto parting = line.parting == heading.parting ? line.parting : Parting::Blanks;
  std::vector<double> best(rows * width, -std::numeric_limits<double>::infinity());
  std::vector<char> step(rows * width, 0);
  const auto at = [&](std::size_t i, std::size_t j) { return i * width + j; };
  best[0] = 0;
  for (std::size_t i = 0; i < rows; ++i) {
    for (std::size_t j = 0; j < width; ++j) {
      const auto take = [&](double value, char how) {
        if (value > best[at(i, j)]) {
          best[at(i, j)] = value;
          step[at(i, j)] = how;
        }
      };
      if (i > 0 && j > 0)
        take(best[at(i - 1, j - 1)] + fits(items[i - 1], columns[j - 1]) +
                 stands(items[i - 1], columns[j - 1], parting),
             'm');
      if (i > 0)
        take(best[at(i - 1, j)] - (items[i - 1].kind == Kind::Empty || isNoise(items[i - 1]) ? 0 : 2), 'i');
      if (j > 0) take(best[at(i, j - 1)] - 0.25, 'c');
    }
  }
  for (std::size_t i = items.size(), j = columns.size(); i > 0 || j > 0;) {
    const char how = step[at(i, j)];
    if (how == 'm')
      out[--i] = --j;
    else if (how == 'i')
      --i;
    else
      --j;
  }
  return out;
}

} // namespace butte::reading
