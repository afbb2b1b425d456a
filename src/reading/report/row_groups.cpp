#include "report/row_groups.h"

#include "text/atoms.h"
#include "words/particles.h"

#include <algorithm>

namespace butte::reading {
namespace {

using Kind = Item::Kind;

bool isFigureLike(const Item& item) {
  return item.kind == Kind::Figure || item.kind == Kind::NotMeasured || item.kind == Kind::Formula;
}

/// "U" or "ND" in a column of flags: not detected at the figure beside it. "<" alone says the same.
bool saysBelow(const Item& item) {
  return item.text == "<" || particleMeans(Particle::Flag, folded(item.text)) == "below";
}

/// Mostly digits and marks, and no figure: one that was not made out, "S.6", "l2,5".
bool isSpoiltFigure(const std::string& text) {
  constexpr std::string_view ofNumbers = "0123456789.,";
  const auto digits = std::count_if(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
  const auto like = std::count_if(text.begin(), text.end(),
                                  [&](char c) { return ofNumbers.find(c) != std::string_view::npos; });
  constexpr std::size_t longest = 8;
  return digits > 0 && text.size() <= longest && 2 * static_cast<std::size_t>(like) >= text.size();
}

/// A word of the paper is in the figure's place.
bool isTextForFigure(const Item& item) {
  return item.kind == Kind::Text && !item.role && (item.text.size() > 2 || isSpoiltFigure(item.text));
}

/// What columns headed as results, or as nothing known, hold in this row.
struct Found {
  std::vector<std::pair<const Item*, const Column*>> results, others;
  const Item* text = nullptr;
};

void choose(RowGroup& group, const Found& found) {
  for (const auto& [item, column] : found.results) {
    if (item->kind != Kind::Figure && group.figure) continue;
    if (group.figure && group.figure->kind == Kind::Figure) continue;
    group.figure = item;
    if (!column->unit.empty()) group.unit = column->unit;
    if (!column->unit.empty()) group.form = column->form;
  }
  if (group.figure) return;
  for (const auto& [item, column] : found.others) {
    if (item->kind == Kind::Figure || item->kind == Kind::Formula) group.candidates.push_back(item);
    if (!group.figure || group.figure->kind == Kind::NotMeasured) group.figure = item;
  }
  group.severalSamples = group.candidates.size() > 1;
  if (!group.severalSamples) group.candidates.clear();
  if (!group.figure) group.figure = found.text;
}

} // namespace

std::vector<RowGroup> groupsUnder(const Heading& heading, const Line& line) {
  std::vector<RowGroup> out;
  std::vector<Found> found;
  const auto columns = columnsOf(line, heading);
  const auto begin = [&] {
    out.emplace_back();
    found.emplace_back();
  };
  begin();
  for (std::size_t i = 0; i < line.items.size(); ++i) {
    const auto& item = line.items[i];
    const auto role = columns[i] ? heading.columns[*columns[i]].role : Role::Unknown;
    const auto* column = columns[i] ? &heading.columns[*columns[i]] : nullptr;
    // A second table beside the first may have a name that is not known.
    const bool isUnknown = role == Role::Name && item.kind == Kind::Text && !item.role && i > 0 &&
                           item.text.size() > 2 && !out.back().names.empty() && !found.back().results.empty();
    const bool isName =
        isUnknown || (column && (role == Role::Name || role == Role::Symbol) && item.kind == Kind::Name);
    if (isName && role == Role::Name && !out.back().names.empty()) begin();
    auto& group = out.back();
    if (isName) {
      group.names.push_back(&item);
      if (group.unit.empty() && !item.unit.empty()) group.unit = item.unit;
    } else if (item.kind == Kind::Unit && (role == Role::Unit || role == Role::Result || !column)) {
      if (group.unit.empty()) {
        group.unit = item.unit;
        group.form = item.form;
      }
    } else if (role == Role::Result && column && isFigureLike(item)) {
      found.back().results.emplace_back(&item, column);
    } else if (role == Role::Result && column && item.kind == Kind::Text && isTextForFigure(item)) {
      found.back().text = &item;
    } else if (role == Role::Unknown && column && isFigureLike(item)) {
      found.back().others.emplace_back(&item, column);
    } else if (item.kind == Kind::Range && role == Role::Result && !found.back().text) {
      found.back().text = &item;
    } else if (role == Role::Flag && saysBelow(item)) {
      group.below = true;
    }
  }
  for (std::size_t i = 0; i < out.size(); ++i)
    choose(out[i], found[i]);
  return out;
}

namespace {

/// A run of items from one name to the next.
class AloneReader {
public:
  explicit AloneReader(const Line& line) : m_line(line) {}

  std::vector<RowGroup> read() {
    std::vector<const Item*> items;
    for (const auto& item : m_line.items) {
      const bool noise = item.kind == Kind::Empty ||
                         (item.kind == Kind::Text && !item.role && item.text.size() == 1 && item.text != "<");
      if (!noise) items.push_back(&item);
    }
    const auto first =
        std::find_if(items.begin(), items.end(), [](const Item* i) { return i->kind == Kind::Name; });
    if (first == items.end()) return {};
    const bool before = comesBefore(items, first);
    if (!before && !mayLead(items.begin(), first)) return {};
    if (before) return valuesFirst(items);
    At at = first;
    while (at != items.cend())
      at = group(at, items.cend());
    return std::move(m_out);
  }

private:
  using At = std::vector<const Item*>::const_iterator;

  /// Before the first name stand at most a running number and a code.
  static bool mayLead(At from, At to) {
    const auto texts =
        std::count_if(from, to, [](const Item* i) { return i->kind == Kind::Text && i->text.size() > 8; });
    return to - from <= 2 && texts == 0;
  }

  /// "52 mg/L calcium": a figure with its unit, then the name and no figure behind it.
  static bool comesBefore(const std::vector<const Item*>& items, At name) {
    const bool figure = std::any_of(
        items.cbegin(), name, [](const Item* i) { return isFigureLike(*i) && i->kind != Kind::Formula; });
    const bool unit = std::any_of(items.cbegin(), name, [](const Item* i) { return i->kind == Kind::Unit; });
    const auto behind = std::any_of(name, items.cend(), [](const Item* i) { return isFigureLike(*i); });
    if (!figure) return false;
    return unit ? items.front()->kind != Kind::Text : !behind && name - items.cbegin() == 1;
  }

  std::vector<RowGroup> valuesFirst(const std::vector<const Item*>& items) {
    RowGroup group;
    for (const auto* item : items) {
      if (isFigureLike(*item)) {
        if (!group.names.empty()) flush(group);
        if (!group.figure) group.figure = item;
      } else if (item->kind == Kind::Unit) {
        if (group.unit.empty()) group.unit = item->unit, group.form = item->form;
      } else if (item->kind == Kind::Name) {
        group.names.push_back(item);
      }
    }
    flush(group);
    return std::move(m_out);
  }

  void flush(RowGroup& group) {
    if (!group.names.empty() && group.figure) m_out.push_back(group);
    group = {};
  }

  /// One name and what belongs to it; where the next one begins.
  At group(At at, At end) {
    RowGroup out;
    if (isUnknownRow(at, end)) out.names.push_back(*at++);
    while (at != end && (*at)->kind == Kind::Name && belongs(out, **at)) {
      out.names.push_back(*at);
      if (out.unit.empty() && !(*at)->unit.empty()) out.unit = (*at)->unit;
      ++at;
    }
    std::vector<const Item*> figures;
    const Item* text = nullptr;
    std::optional<std::size_t> unitAt; ///< how many figures stood before the unit
    const bool leads = !out.unit.empty();
    bool closed = false; ///< words behind the figures: what follows is no column of figures
    for (; at != end && !startsNext(at, end, figures); ++at) {
      const auto& item = **at;
      if (isFigureLike(item) && !closed) {
        figures.push_back(&item);
      } else if (item.kind == Kind::Unit && !unitAt && !leads) {
        unitAt = figures.size();
        out.unit = item.unit;
        out.form = item.form;
      } else if (item.kind == Kind::Text && item.text == "<") {
        out.below = figures.empty();
      } else if (item.kind == Kind::Text) {
        if (figures.empty() && saysBelow(item)) out.below = true;
        if (figures.empty() && isProse(item)) return end;
        if (figures.empty() && !text && isTextForFigure(item)) text = &item;
        if (!figures.empty() && item.text.size() > 2) closed = true;
      } else if (item.kind == Kind::Range && figures.empty() && !text) {
        text = &item;
      }
    }
    settle(out, figures, unitAt, text);
    m_out.push_back(std::move(out));
    return at;
  }

  /// A name that is not known, with its figure and unit behind it: a second table's row beside the first's.
  bool isUnknownRow(At at, At end) const {
    if (m_line.parting == Parting::Blanks) return false;
    const auto& text = (*at)->text;
    const bool word = (*at)->kind == Kind::Text && !(*at)->role && text.size() > 2 &&
                      std::none_of(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
    return word && end - at > 2 && (*(at + 1))->kind == Kind::Figure && (*(at + 2))->kind == Kind::Unit;
  }

  /// A name that goes with the one before ("Boron | B"), not with what follows.
  bool belongs(const RowGroup& group, const Item& item) const {
    if (group.names.empty()) return true;
    auto names = group.names;
    names.push_back(&item);
    return joinedName(m_line, names).has_value();
  }

  /// Another name after a figure; a letter alone may be a flag, a name without any figure behind it is none.
  bool startsNext(At at, At end, const std::vector<const Item*>& figures) const {
    if (!figures.empty() && isUnknownRow(at, end)) return true;
    if ((*at)->kind != Kind::Name || figures.empty()) return false;
    return std::any_of(at, end, [](const Item* i) { return isFigureLike(*i); }) &&
           ((*at)->text.size() > 1 || nextIsFigure(at, end));
  }
  static bool nextIsFigure(At at, At end) { return at + 1 != end && isFigureLike(**(at + 1)); }

  /// In a line that only blanks part, words between name and figure make it a sentence.
  bool isProse(const Item& item) const {
    return m_line.parting == Parting::Blanks && !item.role && item.text.size() > 2 &&
           !isSpoiltFigure(item.text);
  }

  static void settle(RowGroup& out, const std::vector<const Item*>& figures,
                     std::optional<std::size_t> unitAt, const Item* text) {
    if (figures.empty()) {
      out.figure = text;
      return;
    }
    if (unitAt && *unitAt > 0) {
      out.figure = figures[*unitAt - 1]; // it stands right before its unit
      out.candidate = *unitAt - 1;
      // "0.002 35.2 mg/L" and "35.2 0.5 mg/L" are both met.
      if (*unitAt > 1)
        out.candidates.assign(figures.begin(), figures.begin() + static_cast<std::ptrdiff_t>(*unitAt));
      return;
    }
    out.figure = figures.front();
    if (figures.size() > 1 && figures.front()->kind != Kind::Formula) out.candidates = figures;
  }

  const Line& m_line;
  std::vector<RowGroup> m_out;
};

} // namespace

std::vector<RowGroup> groupsAlone(const Line& line) {
  return AloneReader(line).read();
}

std::vector<RowGroup> groupsBelowNames(const Heading& heading, const Line& line) {
  std::vector<RowGroup> out;
  const auto columns = columnsOf(line, heading);
  for (std::size_t i = 0; i < line.items.size(); ++i) {
    const auto& item = line.items[i];
    if (!columns[i] || (!isFigureLike(item) && item.kind != Kind::Text)) continue;
    RowGroup group;
    group.figure = &item;
    group.candidate = *columns[i]; // the column, whose name it is
    out.push_back(std::move(group));
  }
  return out;
}

} // namespace butte::reading
