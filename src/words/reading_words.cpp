#include "reading_words.h"

#include "language.h"
#include "memory/row_answers.h"

namespace butte::words {

using reading::LabelDoubt;
using reading::WhyUnplaced;

std::string whyUnplacedText(WhyUnplaced why) {
  switch (why) {
  case WhyUnplaced::UnknownName:
    return text("the name is not known");
  case WhyUnplaced::Formula:
    return text("a spreadsheet's formula, not its figure");
  case WhyUnplaced::NoFigure:
    return text("there is no figure to reckon with");
  case WhyUnplaced::Twice:
    return text("stated a second time, and differently");
  case WhyUnplaced::BadUnit:
    return text("it can't have this unit or size");
  case WhyUnplaced::UnclearName:
    return text("the name may mean several things");
  case WhyUnplaced::UnclearNumber:
    return text("the number may be read in two ways");
  case WhyUnplaced::WhichFigure:
    return text("several figures, and nothing says which is the result");
  case WhyUnplaced::NotNeeded:
    return text("not needed for a feed");
  case WhyUnplaced::Blurred:
    return text("hard to read in the picture: look at it");
  }
  return {};
}

std::string_view code(WhyUnplaced why) {
  return reading::whyKey(why);
}

std::string labelDoubtText(const reading::LabelDoubtFound& found) {
  const auto value = [&](std::size_t i) {
    return i < found.values.size() ? found.values[i] : std::string("?");
  };
  switch (found.doubt) {
  case LabelDoubt::SumsDoNotFit:
    return said("total nitrogen is {} %, but its forms add up to {} %", value(0), value(1));
  case LabelDoubt::TwoFigures:
    return said("{} is stated twice, as {} % and as {} %: the first is taken", value(0), value(1), value(2));
  case LabelDoubt::NeedsDensity:
    return text("the percent are by volume: give the density to have them by weight");
  case LabelDoubt::PartWithoutTotal:
    return said("{} is stated in parts without a total: they are added up", value(0));
  case LabelDoubt::OverHundred:
    return said("the label adds up to {} %; it can't pass 100 %", value(0));
  }
  return {};
}

std::string_view code(LabelDoubt doubt) {
  switch (doubt) {
  case LabelDoubt::SumsDoNotFit:
    return "sums_do_not_fit";
  case LabelDoubt::TwoFigures:
    return "two_figures";
  case LabelDoubt::NeedsDensity:
    return "needs_density";
  case LabelDoubt::PartWithoutTotal:
    return "parts_without_total";
  case LabelDoubt::OverHundred:
    return "over_hundred";
  }
  return {};
}

} // namespace butte::words
