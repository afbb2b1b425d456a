#include "report/line_items.h"

#include "report/figure_item.h"
#include "report/unit_text.h"
#include "words/vocabulary.h"

#include <algorithm>
#include <array>
#include <utility>

namespace butte::reading {
namespace {

constexpr std::array<std::pair<std::string_view, Role>, 10> roles{{{"name", Role::Name},
                                                                   {"symbol", Role::Symbol},
                                                                   {"result", Role::Result},
                                                                   {"unit", Role::Unit},
                                                                   {"limit", Role::Limit},
                                                                   {"flag", Role::Flag},
                                                                   {"method", Role::Method},
                                                                   {"date", Role::Date},
                                                                   {"number", Role::Number},
                                                                   {"source", Role::Source}}};

Role roleNamed(std::string_view name) {
  const auto it = std::find_if(roles.begin(), roles.end(), [&](const auto& r) { return r.first == name; });
  return it == roles.end() ? Role::Unknown : it->second;
}

bool isOpen(const Atom& atom) {
  return atom.is("(") || atom.is("[");
}
bool isClosed(const Atom& atom) {
  return atom.is(")") || atom.is("]");
}

/// A cell or, in a line that only blanks part, the whole of it.
struct Cell {
  std::size_t from = 0, to = 0; ///< atoms
};

/// Text of a cell; in one that stands in quotes a doubled quote is one.
std::string plainText(std::string_view text, bool quoted) {
  if (!quoted) return std::string(text);
  std::string out;
  for (std::size_t i = 0; i < text.size(); ++i) {
    out += text[i];
    if (text[i] == '"' && i + 1 < text.size() && text[i + 1] == '"') ++i;
  }
  return out;
}

class ItemReader {
public:
  ItemReader(std::string_view line, const std::vector<Atom>& atoms, DecimalMark mark)
      : m_line(line), m_atoms(atoms), m_mark(mark) {}

  /// The items of a cell; one alone where it is no more than a text.
  std::vector<Item> itemsOf(Cell cell, bool parted) {
    m_items.clear();
    m_quoted = false;
    while (cell.to > cell.from && m_atoms[cell.from].is("\"") && m_atoms[cell.to - 1].is("\"") &&
           cell.to - cell.from > 1) {
      ++cell.from;
      --cell.to;
      m_quoted = true;
    }
    if (cell.from >= cell.to) return {};
    if (whole(cell)) return std::move(m_items);
    m_parted = parted;
    for (auto i = cell.from; i < cell.to;)
      i = next(i, cell);
    for (auto& item : m_items) {
      if (item.kind == Item::Kind::Text) item.text = textOf(item.nameAtom, item.nameEnd);
    }
    if (parted && !isRow()) asText(cell);
    return std::move(m_items);
  }

private:
  std::string textOf(std::size_t from, std::size_t to) const {
    return plainText(m_line.substr(m_atoms[from].from, m_atoms[to - 1].to - m_atoms[from].from), m_quoted);
  }

  Item& put(Item::Kind kind, std::size_t from, std::size_t to) {
    Item item;
    item.kind = kind;
    item.from = m_atoms[from].from;
    item.to = m_atoms[to - 1].to;
    item.left = m_atoms[from].column;
    item.right = m_atoms[to - 1].column + static_cast<int>(m_atoms[to - 1].text.size());
    item.text = textOf(from, to);
    item.nameAtom = from;
    item.nameEnd = to;
    m_items.push_back(std::move(item));
    return m_items.back();
  }

  /// What a cell is by its whole text: "n.d.", a formula, a heading.
  bool whole(Cell cell) {
    const auto text = textOf(cell.from, cell.to);
    const bool sodium = text == "Na" || (text == "NA" && cell.from == 0); // "NA" behind a name is no sodium
    if (!sodium && wholeWord(WordKind::None, text))
      return put(Item::Kind::NotMeasured, cell.from, cell.to), true;
    if (isSpreadsheetFormula(text)) return put(Item::Kind::Formula, cell.from, cell.to), true;
    const auto role = wordAt(WordKind::Role, m_atoms, cell.from, cell.to);
    if (role && role->length == cell.to - cell.from &&
        !analyteOf(Atoms(m_atoms).subspan(cell.from, role->length))) {
      put(Item::Kind::Text, cell.from, cell.to).role = roleNamed(role->means);
      return true;
    }
    return false;
  }

  std::size_t next(std::size_t i, Cell cell) {
    if (m_atoms[i].kind == Atom::Kind::Leader) return i + 1;
    if (const auto figure = figureAt(m_atoms, i, cell.to, m_mark, m_parted && i == cell.from))
      return takeFigure(i, *figure);
    const auto name = analyteAt(m_atoms, i, cell.to);
    const auto unit = unitAt(m_atoms, i, cell.to);
    const auto role = wordAt(WordKind::Role, m_atoms, i, cell.to);
    const auto length = [](const auto& found) { return found ? found->length : 0; };
    const bool behind = !m_items.empty() && m_items.back().kind != Item::Kind::Text;
    const bool afterFigure = !m_items.empty() && m_items.back().kind == Item::Kind::Figure;
    const bool heads =
        role && length(role) >= length(unit) && !afterFigure; // "Units" is a heading before it is a unit
    if (unit && !heads && (length(unit) > length(name) || (behind && length(unit) == length(name)))) {
      auto& item = put(Item::Kind::Unit, i, i + unit->length);
      item.unit = unit->unit;
      item.form = unit->form;
      return i + unit->length;
    }
    if (name && length(name) >= length(role)) return takeName(i, *name, cell);
    if (role) {
      put(Item::Kind::Text, i, i + role->length).role = roleNamed(role->means);
      return i + role->length;
    }
    if (const auto n = noneAt(i, cell)) return put(Item::Kind::NotMeasured, i, i + n), i + n;
    return takeText(i);
  }

  /// "ND", "n.d." among other words: two letters at least, blanks around it.
  std::size_t noneAt(std::size_t i, Cell cell) const {
    for (auto to = std::min(cell.to, i + 5); to > i; --to) {
      if (to < cell.to && m_atoms[to].gap == 0) continue;
      const auto text = textOf(i, to);
      if (text.size() >= 2 && wholeWord(WordKind::None, text)) return to - i;
    }
    return 0;
  }

  std::size_t takeFigure(std::size_t i, const FigureFound& found) {
    auto& item = put(found.kind, i, i + found.length);
    item.figure = found.figure;
    item.flag = found.flag;
    return i + found.length;
  }

  /// A name and the unit that may stand with it: "Calcium (mg/L)", "Ca, mg/l", "NO3 [mmol/l]".
  std::size_t takeName(std::size_t i, AnalyteFound found, Cell cell) {
    auto at = i + found.length;
    // A name may have swallowed what begins its unit's bracket.
    const bool open = at < cell.to && isOpen(m_atoms[at]);
    const auto unit = at < cell.to ? unitAt(m_atoms, at + open, cell.to) : std::nullopt;
    if (!unit || unit->unit == "pH" || (unit->unit == "C" && found.analyte.key != "temperature")) {
      put(Item::Kind::Name, i, at).analyte = std::move(found.analyte);
      return at;
    }
    at += open + unit->length;
    if (open && at < cell.to && isClosed(m_atoms[at])) ++at;
    if (!unit->form.empty()) {
      const auto again = analyteAt(m_atoms, i, i + found.length, unit->form);
      if (again) found.analyte = again->analyte;
    }
    auto& item = put(Item::Kind::Name, i, at);
    item.analyte = std::move(found.analyte);
    item.unit = unit->unit;
    item.form = unit->form;
    item.nameEnd = i + found.length;
    return at;
  }

  /// One atom that nothing knows; what follows of the same kind joins it.
  std::size_t takeText(std::size_t i) {
    if (!m_items.empty() && m_items.back().kind == Item::Kind::Text && !m_items.back().role) {
      auto& item = m_items.back();
      item.nameEnd = i + 1; // its text follows when all of it is known
      item.to = m_atoms[i].to;
      item.right = m_atoms[i].column + static_cast<int>(m_atoms[i].text.size());
      return i + 1;
    }
    put(Item::Kind::Text, i, i + 1);
    return i + 1;
  }

  /// Signs alone ("%", ")") between the others say nothing.
  static bool saysNothing(const Item& item) {
    return item.kind == Item::Kind::Text && !item.role && item.text.size() == 1;
  }

  /// Whether a cell is more than a text with a figure in it ("EPA 200.7", "SM 2320 B").
  bool isRow() const {
    bool text = false;
    for (const auto& item : m_items) {
      if (item.kind == Item::Kind::Text && !item.role && !saysNothing(item)) text = true;
    }
    if (!text) return true;
    const auto first = m_items.front().kind;
    if (first == Item::Kind::Figure) return m_items.size() > 1 && m_items[1].kind == Item::Kind::Unit;
    if (first != Item::Kind::Name || m_items.size() < 2) return false;
    const auto second = m_items[1].kind;
    return second == Item::Kind::Figure || second == Item::Kind::NotMeasured || second == Item::Kind::Unit;
  }

  void asText(Cell cell) {
    m_items.clear();
    auto& item = put(Item::Kind::Text, cell.from, cell.to);
    // A heading of several words, the first of which says it: "Result of 2025", "Limit (law)".
    const auto role = wordAt(WordKind::Role, m_atoms, cell.from, cell.to);
    if (role) item.role = roleNamed(role->means);
  }

  std::string_view m_line;
  const std::vector<Atom>& m_atoms;
  DecimalMark m_mark;
  bool m_quoted = false; ///< the cell in hand stands in quotes
  bool m_parted = false; ///< the cell in hand is one of several
  std::vector<Item> m_items;
};

Parting partingOf(const std::vector<Atom>& atoms, bool commas) {
  Parting out = Parting::Blanks;
  for (const auto& atom : atoms) {
    if (atom.quoted) continue;
    if (atom.is("\t")) return Parting::Tab;
    if (atom.is(";")) return Parting::Semicolon;
    if (atom.is("|")) return Parting::Bar;
    if (commas && atom.is(",")) out = Parting::Comma;
    if (out == Parting::Blanks &&
        (atom.kind == Atom::Kind::Leader || (atom.gap >= 2 && atom.from > 0 && &atom != &atoms.front())))
      out = Parting::WideBlanks;
  }
  return out;
}

std::vector<Cell> cellsOf(const std::vector<Atom>& atoms, Parting parting) {
  static constexpr std::array<std::string_view, 6> signs{"", "", "\t", ";", "|", ","};
  const auto sign = signs[static_cast<std::size_t>(parting)];
  std::vector<Cell> out;
  std::size_t from = 0;
  for (std::size_t i = 0; i < atoms.size(); ++i) {
    if (parting == Parting::WideBlanks) {
      const bool leader = atoms[i].kind == Atom::Kind::Leader;
      if ((atoms[i].gap < 2 && !leader) || (i == from && !leader)) continue;
      if (i > from) out.push_back({from, i});
      from = leader ? i + 1 : i;
    } else if (!sign.empty() && !atoms[i].quoted && atoms[i].is(sign)) {
      out.push_back({from, i});
      from = i + 1;
    }
  }
  if (from < atoms.size() || !sign.empty()) out.push_back({from, atoms.size()});
  if (parting == Parting::Bar && out.size() > 2) {
    // Bars at both ends of a line are its frame.
    if (out.front().from == out.front().to) out.erase(out.begin());
    if (out.back().from >= out.back().to) out.pop_back();
  }
  return out;
}

Item emptyItem(const std::vector<Atom>& atoms, Cell cell) {
  Item item;
  item.kind = Item::Kind::Empty;
  if (cell.from < atoms.size()) {
    item.from = item.to = atoms[cell.from].from;
    item.left = item.right = atoms[cell.from].column;
  }
  return item;
}

} // namespace

bool isSpreadsheetFormula(std::string_view cell) {
  return cell.size() > 1 && (cell.front() == '=' || cell.front() == '#' || cell.front() == '@');
}

Line lineOf(std::string_view text, int number, DecimalMark mark, bool commas, std::size_t commaColumns,
            std::vector<Atom> atoms) {
  Line out;
  out.number = number;
  out.text = text;
  const auto commasAre = commas && mark == DecimalMark::Point ? Commas::PartCells : Commas::MayBeDecimal;
  const bool same =
      !atoms.empty() &&
      (commasAre == Commas::MayBeDecimal || std::none_of(atoms.begin(), atoms.end(), [](const Atom& atom) {
         return atom.kind == Atom::Kind::Number && atom.text.find(',') != std::string::npos;
       }));
  out.atoms = same ? std::move(atoms) : atomsOf(text, commasAre);
  const bool noNumber = std::any_of(out.atoms.begin(), out.atoms.end(), [&](const Atom& atom) {
    return atom.kind == Atom::Kind::Number && atom.text.find(',') != std::string::npos &&
           !numberIn(atom.text, mark);
  });
  if (commas && noNumber) out.atoms = atomsOf(text, Commas::PartCells); // "78,14,23"
  out.parting = partingOf(out.atoms, commas);
  auto cells = cellsOf(out.atoms, out.parting);
  if (commas && commaColumns > 1 && cells.size() != commaColumns &&
      (out.parting == Parting::Comma || out.parting == Parting::Blanks)) {
    auto every = atomsOf(text, Commas::PartCells);
    auto more = cellsOf(every, Parting::Comma);
    if (more.size() == commaColumns) {
      out.atoms = std::move(every);
      out.parting = Parting::Comma;
      cells = std::move(more);
    }
  }
  ItemReader reader(text, out.atoms, mark);
  out.items.reserve(cells.size() + 4);
  const bool parted = out.parting != Parting::Blanks && out.parting != Parting::WideBlanks;
  for (std::size_t i = 0; i < cells.size(); ++i) {
    auto items = reader.itemsOf(cells[i], out.parting != Parting::Blanks);
    if (items.empty() && parted) items.push_back(emptyItem(out.atoms, cells[i]));
    for (auto& item : items) {
      item.cell = i;
      out.items.push_back(std::move(item));
    }
  }
  return out;
}

} // namespace butte::reading
