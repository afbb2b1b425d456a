#include "words.h"

#include "base/decimal.h"
#include "deed_words.h"
#include "language.h"

#include <algorithm>

namespace butte::words {

using core::ProblemCode;

namespace {

/// Typed text in a message is cut: a 200-digit number needs no echo in full.
std::string shortened(const std::string& text) {
  if (core::parseDecimal(text)) return figureText(text);
  if (text.size() <= 48) return text;
  std::size_t cut = 40;
  while (cut > 0 && (static_cast<unsigned char>(text[cut]) & 0xC0) == 0x80)
    --cut;
  return text.substr(0, cut) + "…";
}

std::string value(const core::Problem& p, std::size_t i) {
  return i < p.values.size() ? p.values[i] : std::string("?");
}

/// "0 to 14", "0.1 to 5 kg/L", "0 or more".
std::string limitsText(const std::string& least, const std::string& most, const std::string& unit) {
  const auto with = [&](const std::string& range) {
    return unit.empty() ? range : range + " " + unitName(unit);
  };
  if (most.empty()) return with(said("{} or more", figureText(least)));
  if (least.empty()) return with(said("up to {}", figureText(most)));
  return with(said("{} to {}", figureText(least), figureText(most)));
}

std::string limitText(const core::Problem& p) {
  const auto found = figureText(shortened(value(p, 0)));
  switch (p.code) {
  case ProblemCode::OutsideLimits:
    return said("{} is out of range; it should be {}", found,
                limitsText(value(p, 1), value(p, 2), value(p, 3)));
  case ProblemCode::NotAbove:
    return said("{} is out of range; it should be {}", found,
                said("above {}", figureText(value(p, 1))) +
                    (p.values.size() > 2 && !p.values[2].empty() ? " " + unitName(p.values[2]) : ""));
  default:
    return said("'{}' is not known here; it should be one of {}", shortened(value(p, 0)), value(p, 1));
  }
}

std::string bookProblemText(const core::Problem& p) {
  switch (p.code) {
  case ProblemCode::NotABook:
    return text("this file is not a farm book");
  case ProblemCode::BookMissing:
    return text("there is no such file");
  case ProblemCode::BookOlder:
    return said("the book has tables of version {}, this program's are {}; open it once for writing "
                "to bring it forward",
                value(p, 0), value(p, 1));
  case ProblemCode::BookDamaged:
    return said("the book is damaged ({}); nothing was changed in it. Take one of its copies",
                shortened(value(p, 0)));
  case ProblemCode::BookNotWritable:
    return said("the book can't be written ({}); it is only to be looked at", shortened(value(p, 0)));
  case ProblemCode::BookFull:
    return text(
        "the disk is full: what you typed is on the screen but not yet kept. Make room; Butte tries again "
        "by itself");
  case ProblemCode::BookBusy:
    return text("another program holds the book's file at the moment");
  case ProblemCode::BookConflict:
    return text("it was changed from elsewhere meanwhile; look at it as it stands now and type again");
  case ProblemCode::BookReadOnly:
    return said("this book is open to look at only: {}", value(p, 0));
  default:
    return text("unknown problem");
  }
}

std::string formulaProblemText(const core::Problem& p) {
  switch (p.code) {
  case ProblemCode::FormulaEmpty:
    return text("the formula is empty; write one such as Ca(NO3)2·4H2O");
  case ProblemCode::FormulaSyntax:
    return said("formula '{}', position {}: expected {}, found {}", shortened(value(p, 0)),
                shortened(value(p, 1)), value(p, 2), shortened(value(p, 3)));
  case ProblemCode::UnknownElement:
    return said("formula '{}', position {}: '{}' is no element symbol; symbols are written like K, Ca, Mg",
                shortened(value(p, 0)), shortened(value(p, 1)), shortened(value(p, 2)));
  case ProblemCode::PhosphiteNotPhosphate:
    return said("'{}' holds phosphite, which does not feed a crop as phosphate does; give the product by its "
                "label, without its P",
                shortened(value(p, 0)));
  case ProblemCode::FormulaTooLarge:
    return said("formula '{}' is too large: {}", shortened(value(p, 0)), shortened(value(p, 1)));
  default:
    return {};
  }
}

std::string unitProblemText(const core::Problem& p) {
  switch (p.code) {
  case ProblemCode::UnknownUnit:
    return said("'{}' is neither a unit nor a substance that Butte knows", shortened(value(p, 0)));
  case ProblemCode::IncompatibleUnits:
    return said("'{}' can't be turned into '{}'", shortened(value(p, 0)), shortened(value(p, 1)));
  case ProblemCode::NeedsSubstance:
    return said("from '{}' to '{}' needs to know of what: add a substance such as Ca or HCO3",
                shortened(value(p, 0)), shortened(value(p, 1)));
  case ProblemCode::UnknownSubstance:
    return said("'{}' is no element, ion, oxide or formula", shortened(value(p, 0)));
  case ProblemCode::CarbonOrCharge:
    return said(
        "'{}' to '{}' is one figure by carbon and another by charge; for alkalinity say it with units: "
        "mg/L_CaCO3 to mg/L, of HCO3",
        shortened(value(p, 0)), shortened(value(p, 1)));
  case ProblemCode::NoCharge:
    return said("'{}' has no charge in a feed, so it has no equivalents", shortened(value(p, 0)));
  default:
    return {};
  }
}

std::string chemistryProblemText(const core::Problem& p) {
  switch (p.code) {
  case ProblemCode::NoEquilibrium:
    return text("the solution chemistry found no balance for this mixture; check the amounts");
  case ProblemCode::CannotReach:
    return said("this product can't bring the water to pH {}", shortened(value(p, 0)));
  case ProblemCode::TooFewReadings:
    return said("too few readings: at least {} are needed", value(p, 0));
  case ProblemCode::NotDeterminable:
    return text(
        "these readings leave it open: give the bottle's strength or the alkalinity, or go on adding acid "
        "past pH 4");
  default:
    return bookProblemText(p);
  }
}

} // namespace

std::string problemText(const core::Problem& p) {
  const auto v = [&](std::size_t i) { return shortened(value(p, i)); };
  switch (p.code) {
  case ProblemCode::FormulaEmpty:
  case ProblemCode::FormulaSyntax:
  case ProblemCode::UnknownElement:
  case ProblemCode::FormulaTooLarge:
  case ProblemCode::PhosphiteNotPhosphate:
    return formulaProblemText(p);
  case ProblemCode::NotANumber:
    return said("'{}' is not a number; write one such as 12.5", v(0));
  case ProblemCode::Unclear:
    return said("'{}' is not clear: it could mean {}", v(0), text(value(p, 1)));
  case ProblemCode::OutOfRange:
    return said("{} is out of range; it should be {}", v(0), text(value(p, 1)));
  case ProblemCode::OutsideLimits:
  case ProblemCode::NotAbove:
  case ProblemCode::NotOneOf:
    return limitText(p);
  case ProblemCode::MissingKey:
    return said("missing; {}", text(value(p, 0)));
  case ProblemCode::UnknownKey:
    return said("unknown key; known here: {}", value(p, 0));
  case ProblemCode::DuplicateKey:
    return v(0) == v(1) ? said("'{}' is given twice", v(0))
                        : said("'{}' and '{}' state the same thing; give one of them", v(0), v(1));
  case ProblemCode::WrongType:
    return said("expected {}, found {}", text(value(p, 0)), text(v(1)));
  case ProblemCode::UnknownUnit:
  case ProblemCode::IncompatibleUnits:
  case ProblemCode::NeedsSubstance:
  case ProblemCode::UnknownSubstance:
  case ProblemCode::CarbonOrCharge:
  case ProblemCode::NoCharge:
    return unitProblemText(p);
  case ProblemCode::FormulaAndLabel:
    return text("give either formula or label_percent, not both");
  case ProblemCode::NoComposition:
    return text("give a formula or a label_percent");
  case ProblemCode::PurityBesideLabel:
    return text("purity_percent can't stand beside label_percent: the label already says it");
  case ProblemCode::LabelOverHundred:
    return said("the label adds up to {} %; it can't pass 100 %", v(0));
  case ProblemCode::LabelDoubled:
    return said("'{}' and '{}' state the same element; give one", v(0), v(1));
  case ProblemCode::UnknownProduct:
    return said("there is no product with the id '{}'", v(0));
  case ProblemCode::DuplicateProduct:
    return said("the id '{}' is used twice", v(0));
  case ProblemCode::UnknownTank:
    return said("there is no tank '{}'; named are: {}", v(0), v(1));
  case ProblemCode::ToleranceWithoutTarget:
    return said("'{}' has a tolerance but no target row", v(0));
  case ProblemCode::NeedsPrice:
    return said("the cheapest formula needs the price of '{}'", v(0));
  case ProblemCode::BadJson:
    return said("this is not valid JSON: {}", value(p, 0));
  case ProblemCode::BadFile:
    return text(value(p, 0));
  case ProblemCode::CantBeRead:
    return said("it can't be read: {}", value(p, 0));
  case ProblemCode::CantBeWritten:
    return said("it can't be written: {}", value(p, 0));
  case ProblemCode::NewerFormat:
    return said("the file has format version {}, this program knows up to {}", v(0), v(1));
  default:
    return chemistryProblemText(p);
  }
}

namespace {

/// The length of the UTF-8 character that begins here; 0 where none does.
std::size_t characterAt(const std::string& text, std::size_t at) {
  const auto byte = [&](std::size_t i) { return static_cast<unsigned char>(text[i]); };
  const unsigned char first = byte(at);
  const std::size_t length = first < 0x80   ? 1
                             : first < 0xC2 ? 0
                             : first < 0xE0 ? 2
                             : first < 0xF0 ? 3
                             : first < 0xF5 ? 4
                                            : 0;
  if (length == 0 || at + length > text.size()) return 0;
  for (std::size_t i = 1; i < length; ++i)
    if ((byte(at + i) & 0xC0) != 0x80) return 0;
  return length;
}

/// As a terminal may show it: names come from anywhere, and a control character in one could clear the screen
/// or write what nobody said. Such, and bytes that are no UTF-8, become a question mark.
std::string shownOnOneLine(const std::string& text) {
  std::string out;
  for (std::size_t i = 0; i < text.size();) {
    const auto c = static_cast<unsigned char>(text[i]);
    const std::size_t length = characterAt(text, i);
    const bool c1 = length == 2 && c == 0xC2 && static_cast<unsigned char>(text[i + 1]) < 0xA0;
    if (c == '\n' || c == '\r' || c == '\t')
      out += ' ';
    else if (length == 0 || c < 0x20 || c == 0x7F || c1)
      out += '?';
    else
      out.append(text, i, length);
    i += std::max<std::size_t>(length, 1);
  }
  return out;
}

} // namespace

std::string problemLine(const core::Problem& p) {
  std::string line = p.where.empty() ? problemText(p) : p.where + ": " + problemText(p);
  return shownOnOneLine(line);
}

} // namespace butte::words
