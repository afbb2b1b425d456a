#include "report/report_text.h"

#include "base/encoding.h"
#include "report/columns.h"
#include "report/raw_row.h"
#include "report/row_groups.h"
#include "report/unit_text.h"
#include "words/vocabulary.h"

#include <algorithm>
#include <optional>

namespace butte::reading {
namespace {

using Kind = Item::Kind;

struct SourceLine {
  int number = 0;
  std::size_t from = 0;
  std::string_view text;
  std::vector<Atom> atoms; ///< of the first lines, by which the manners are learnt
};

std::vector<SourceLine> linesOf(std::string_view text) {
  std::vector<SourceLine> out;
  std::size_t from = 0;
  for (int number = 1; from <= text.size(); ++number) {
    auto end = text.find_first_of("\r\n", from);
    const bool last = end == std::string_view::npos;
    if (last) end = text.size();
    out.push_back({number, from, text.substr(from, end - from), {}});
    if (last) break;
    from = end + (text[end] == '\r' && end + 1 < text.size() && text[end + 1] == '\n' ? 2 : 1);
  }
  return out;
}

/// What the paper as a whole does: the first lines say it.
struct Manners {
  DecimalMark mark = DecimalMark::Unknown;
  bool commas = false; ///< they part cells
};

constexpr std::size_t mostLinesToLearnFrom = 400, mostBytesToLearnFrom = 2000; // of a line
constexpr int mostLinesToJudgeCommasBy = 60; ///< as many with commas say it, and each is read a second time

Manners mannersOf(std::vector<SourceLine>& lines) {
  Manners out;
  int points = 0, commas = 0, parting = 0, notParting = 0;
  for (std::size_t i = 0; i < lines.size() && i < mostLinesToLearnFrom; ++i) {
    bool comma = false, other = false;
    const auto text = lines[i].text.substr(0, mostBytesToLearnFrom);
    auto atoms = atomsOf(text);
    for (const auto& atom : atoms) {
      const bool number = atom.kind == Atom::Kind::Number;
      const auto shown = number ? markShownBy(atom.text) : DecimalMark::Unknown;
      points += shown == DecimalMark::Point;
      commas += shown == DecimalMark::Comma;
      if (number && atom.text.find(',') != std::string::npos && !numberIn(atom.text, DecimalMark::Unknown))
        parting += 2; // "7.9,0.71,58"
      comma =
          comma || (!atom.quoted && (atom.is(",") || (number && atom.text.find(',') != std::string::npos)));
      other = other || (!atom.quoted && (atom.is("\t") || atom.is(";") || atom.is("|")));
    }
    const bool judged = comma && !other && parting + notParting < mostLinesToJudgeCommasBy;
    if (text.size() == lines[i].text.size()) lines[i].atoms = judged ? atoms : std::move(atoms);
    if (!judged) continue;
    const auto line = lineOf(text, 0, DecimalMark::Unknown, true, 0, std::move(atoms));
    if (line.parting != Parting::Comma) continue;
    int cells = 0, alone = 0;
    for (std::size_t k = 0; k < line.items.size(); ++k) {
      const auto& item = line.items[k];
      const bool first = k == 0 || line.items[k - 1].cell != item.cell;
      const bool only = first && (k + 1 == line.items.size() || line.items[k + 1].cell != item.cell);
      cells += first;
      alone += only && k > 0 && (item.kind != Kind::Text || item.role) && (item.kind != Kind::Name || k > 1);
    }
    (cells >= 2 && alone > 0 ? parting : notParting) += 1;
  }
  out.mark = commas > points ? DecimalMark::Comma : points > 0 ? DecimalMark::Point : DecimalMark::Unknown;
  out.commas = parting > notParting;
  return out;
}

class ReportReader {
public:
  explicit ReportReader(std::string_view text) : m_lines(linesOf(text)), m_manners(mannersOf(m_lines)) {}

  ReportText read() {
    for (auto& source : m_lines)
      takeLine(source);
    chooseAmongCandidates(m_rows);
    auto out = reportOf(std::move(m_rows));
    out.bare = std::move(m_bare);
    return out;
  }

private:
  void takeLine(SourceLine& source) {
    // Points and commas mixed: each number says it for itself.
    const auto line = lineOf(source.text, source.number, m_manners.mark, m_manners.commas,
                             m_heading ? m_heading->columns.size() : 0, std::move(source.atoms));
    m_at = source.from;
    const bool blank = std::all_of(line.items.begin(), line.items.end(),
                                   [](const Item& i) { return i.kind == Kind::Empty; });
    if (blank) return;
    if (auto heading = headingOf(line)) {
      m_heading = std::move(heading);
      m_pending.reset();
      return;
    }
    const bool names =
        std::any_of(line.items.begin(), line.items.end(), [](const Item& i) { return i.kind == Kind::Name; });
    const bool figures = hasFigure(line);
    if (m_heading && m_heading->acrossTop && (!names || isLabelled(line))) {
      if (figures && fitsNames(line)) return takeBelowNames(line);
      if (!figures && takeUnits(line)) return;
    }
    if (!figures && takeDefaultUnit(line)) return;
    if (takePending(line, names)) return;
    if (names) return takeRow(line);
    if (figures) takeUnknown(line);
  }

  static bool isFigureLike(const Item& item) {
    return item.kind == Kind::Figure || item.kind == Kind::NotMeasured;
  }

  static bool hasFigure(const Line& line) {
    return std::any_of(line.items.begin(), line.items.end(),
                       [](const Item& i) { return i.kind == Kind::Figure || i.kind == Kind::Formula; });
  }

  /// A well may be called as an element is in some language ("Bore 1"): what counts is the row of figures.
  static bool isLabelled(const Line& line) {
    std::ptrdiff_t figures = 0;
    for (const auto& item : line.items) {
      if (item.cell == 0) continue;
      if (item.kind != Kind::Figure && item.kind != Kind::NotMeasured && item.kind != Kind::Empty)
        return false;
      figures += item.kind == Kind::Figure;
    }
    return figures >= 2;
  }

  /// A name in a column of figures begins a row of its own: "Coliforms;0" below "Ca;Mg" is no magnesium.
  bool fitsNames(const Line& line) const {
    const auto& items = line.items;
    if (items.front().role == Role::Limit) return true; // read and left out
    const bool label = !m_heading->columns.front().analyte || items.size() > m_heading->columns.size();
    return (items.front().kind != Kind::Text && items.front().kind != Kind::Name) || label;
  }

  void takeBelowNames(const Line& line) {
    for (const auto& item : line.items) {
      // The law's figures stand in a line of their own.
      if (item.role && (*item.role == Role::Limit || *item.role == Role::Method || *item.role == Role::Date))
        return;
    }
    for (const auto& group : groupsBelowNames(*m_heading, line)) {
      const auto& column = m_heading->columns[group.candidate];
      const bool text = group.figure->kind == Kind::Text;
      if (!column.analyte && (text || column.role == Role::Unknown)) {
        if (!text && column.cell > 0 && column.text.size() > 1)
          add(line, column.text, std::nullopt, *group.figure, column.unit);
        continue;
      }
      if (!text || group.figure->text.size() > 2)
        add(line, column.text, column.analyte, *group.figure, column.unit);
    }
  }

  bool takeUnits(const Line& line) {
    const auto columns = columnsOf(line, *m_heading);
    bool any = false;
    for (std::size_t i = 0; i < line.items.size(); ++i) {
      if (line.items[i].kind != Kind::Unit || !columns[i]) continue;
      auto& column = m_heading->columns[*columns[i]];
      if (column.unit.empty()) column.unit = line.items[i].unit;
      any = true;
    }
    return any;
  }

  /// "All results in mg/L", "Metals (ug/L)": the unit of what follows.
  bool takeDefaultUnit(const Line& line) {
    // Said in words it is no name, whatever else "in mg" could be.
    for (std::size_t i = 0; i < line.atoms.size(); ++i) {
      const auto says = wordAt(WordKind::AllIn, line.atoms, i, line.atoms.size());
      const auto found = says && i + says->length < line.atoms.size()
                             ? unitAt(line.atoms, i + says->length, line.atoms.size())
                             : std::nullopt;
      if (!found) continue;
      m_unit = found->unit;
      return true;
    }
    const Item* unit = nullptr;
    for (const auto& item : line.items) {
      if (item.kind == Kind::Unit && unit && unit->unit != item.unit) return false;
      if (item.kind == Kind::Unit) unit = &item;
      if (item.kind == Kind::Name && item.unit.empty()) return false;
    }
    const bool text =
        std::any_of(line.items.begin(), line.items.end(), [](const Item& i) { return i.kind == Kind::Text; });
    if (!unit || !text) return false;
    m_unit = unit->unit;
    return true;
  }

  /// A name alone in its line, its figure alone in the next, as a page's text falls apart.
  bool takePending(const Line& line, bool names) {
    const bool alone = line.items.size() == 1 && names;
    if (alone) {
      m_pending = line.items.front();
      m_pendingText = line.items.front().text;
      return true;
    }
    if (!m_pending || names) {
      m_pending.reset();
      return false;
    }
    const auto& first = line.items.front();
    const bool figure =
        first.kind == Kind::Figure && (line.items.size() == 1 || line.items[1].kind == Kind::Unit);
    const auto name = std::exchange(m_pending, std::nullopt);
    if (!figure) return false;
    add(line, m_pendingText, name->analyte, first, line.items.size() > 1 ? line.items[1].unit : name->unit);
    return true;
  }

  void takeRow(const Line& line) {
    const bool under = m_heading && !m_heading->acrossTop;
    auto groups = under ? groupsUnder(*m_heading, line) : groupsAlone(line);
    const bool nothing = std::none_of(groups.begin(), groups.end(),
                                      [](const RowGroup& g) { return !g.names.empty() && g.figure; });
    if (under && nothing) groups = groupsAlone(line);
    for (const auto& group : groups)
      takeGroup(line, group);
  }

  void takeGroup(const Line& line, const RowGroup& group) {
    if (group.names.empty()) return;
    if (!group.figure) return takeBare(line, group);
    std::optional<Analyte> analyte;
    for (auto count = group.names.size(); count > 0 && !analyte; --count) {
      const std::vector<const Item*> some(group.names.begin(),
                                          group.names.begin() + static_cast<std::ptrdiff_t>(count));
      if (group.form.empty())
        analyte = joinedName(line, some);
      else
        analyte = withForm(line, some, group.form);
    }
    if (!analyte) analyte = group.names.front()->analyte;
    std::string name;
    for (const auto* item : group.names)
      name += (name.empty() ? "" : " ") + item->text;
    const auto unit = group.unit.empty() ? oddUnitBehind(line, *group.figure) : group.unit;
    auto& row = add(line, name, analyte, *group.figure, unit);
    row.figure.below = row.figure.below || (group.below && row.kind == Kind::Figure);
    constexpr std::size_t mostCandidates = 12; // more no one could choose among
    for (const auto* item : group.candidates) {
      if (row.candidates.size() == mostCandidates) break;
      if (isFigureLike(*item))
        row.candidates.push_back({item->kind,
                                  item->figure,
                                  item->text,
                                  {line.number, m_at + item->from, m_at + item->to},
                                  spotOf(line, *item)});
    }
    if (row.candidates.size() < 2) row.candidates.clear();
    row.severalSamples = group.severalSamples;
  }

  void takeBare(const Line& line, const RowGroup& group) {
    const auto& name = *group.names.front();
    if (group.unit.empty() || !name.analyte || name.analyte->aside) return;
    m_bare.push_back(
        {{line.number, m_at + name.from, m_at + name.to}, name.text, name.analyte->key, group.unit});
  }

  /// What stands right behind a figure as a unit would ("ug/LSM", "u9/l") and is none that is known: then
  /// the usual unit must not be taken for it.
  static std::string oddUnitBehind(const Line& line, const Item& figure) {
    for (std::size_t i = 0; i + 1 < line.items.size(); ++i) {
      if (&line.items[i] != &figure) continue;
      const auto& next = line.items[i + 1];
      const auto word = std::string_view(next.text).substr(0, next.text.find(' '));
      const auto stroke = word.find('/');
      constexpr std::size_t longestAbove = 6, longestBelow = 4;
      const bool shaped = stroke != std::string_view::npos && stroke > 0 && stroke <= longestAbove &&
                          word.size() > stroke + 1 && word.size() - stroke - 1 <= longestBelow &&
                          std::string_view("lL1I|!]cmkdt").find(word[stroke + 1]) != std::string_view::npos;
      return shaped && next.kind == Kind::Text && !next.role ? std::string(word) : std::string();
    }
    return {};
  }

  /// The name with the form that stands with the unit, where it can have it.
  static std::optional<Analyte> withForm(const Line& line, const std::vector<const Item*>& names,
                                         const std::vector<std::string>& form) {
    auto copy = *names.front();
    copy.form = form;
    auto some = names;
    some.front() = &copy;
    const auto formed = joinedName(line, some);
    return formed ? formed : joinedName(line, names);
  }

  /// A row whose name is not known: shown where it is one, by its cells or by its unit.
  void takeUnknown(const Line& line) {
    const Item *name = nullptr, *figure = nullptr, *unit = nullptr;
    for (const auto& item : line.items) {
      if (item.kind == Kind::Text && !name && !figure) name = &item;
      if ((item.kind == Kind::Figure || item.kind == Kind::Formula) && !figure && name) figure = &item;
      if (item.kind == Kind::Unit && !unit) unit = &item;
    }
    if (!name || !figure || (line.parting == Parting::Blanks && !unit)) return;
    add(line, name->text, std::nullopt, *figure, unit ? unit->unit : std::string());
  }

  static Spot spotOf(const Line& line, const Item& item) {
    const bool signs = line.parting != Parting::WideBlanks && line.parting != Parting::Blanks;
    return {signs ? std::optional(item.cell) : std::nullopt, item.left, item.right};
  }

  RawRow& add(const Line& line, std::string name, std::optional<Analyte> analyte, const Item& figure,
              std::string unit) {
    RawRow row;
    row.place = {line.number, m_at + figure.from, m_at + figure.to};
    row.name = std::move(name);
    row.value = figure.text;
    row.analyte = std::move(analyte);
    row.kind = figure.kind;
    row.figure = figure.figure;
    if (line.parting != Parting::Blanks) row.spot = spotOf(line, figure);
    const bool meter = row.analyte && (row.analyte->key == "EC" || row.analyte->key == "pH" ||
                                       row.analyte->key == "temperature");
    row.unit = unit.empty() && !meter ? m_unit : std::move(unit);
    m_rows.push_back(std::move(row));
    return m_rows.back();
  }

  std::vector<SourceLine> m_lines;
  Manners m_manners;
  std::size_t m_at = 0; ///< where the line in hand begins
  std::optional<Heading> m_heading;
  std::string m_unit; ///< of what states none
  std::optional<Item> m_pending;
  std::string m_pendingText;
  std::vector<RawRow> m_rows;
  std::vector<BareName> m_bare;
};

} // namespace

std::string reportKeyFor(std::string_view name) {
  const auto atoms = atomsOf(name);
  const auto analyte = analyteOf(atoms);
  return analyte ? analyte->key : std::string();
}

ReportText readReportText(std::string_view text) {
  const auto utf8 = core::utf8From(text);
  return ReportReader(utf8).read();
}

} // namespace butte::reading
