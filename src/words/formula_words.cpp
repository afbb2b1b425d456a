#include "formula_words.h"

#include "language.h"

#include <cmath>

namespace butte::words {

using namespace core;

std::string mendText(const Mend& mend, const ProductNamer& name, const std::vector<WaterOption>& waters) {
  switch (mend.kind) {
  case MendKind::AddProduct:
    return said("put {} on the shelf", name(mend.product));
  case MendKind::BandsFirst:
    return text("keep the bands first, then come near");
  case MendKind::WidenBand:
    return said("let the band of {} be ±{} %", nutrientName(mend.nutrient), figure(mend.value));
  case MendKind::LiftCap:
    return said("lift the cap on {} to {} mg/L", nutrientName(mend.nutrient), figure(mend.value));
  case MendKind::LetFree:
    return said("let {} free", name(mend.product));
  case MendKind::MorePure:
    return said("{} at {} %", mend.option < waters.size() ? waters[mend.option].name : text("purer water"),
                std::lround(100 * mend.value));
  }
  return {};
}

std::string mendEffect(const Mend& mend) {
  if (mend.offAfter == 0) return text("then every element stands in its band");
  if (mend.offAfter < mend.offBefore) return said("then {} off instead of {}", mend.offAfter, mend.offBefore);
  return said("still {} off, but nearer", mend.offAfter);
}

std::string_view code(MendKind kind) {
  switch (kind) {
  case MendKind::AddProduct:
    return "add_product";
  case MendKind::BandsFirst:
    return "bands_first";
  case MendKind::WidenBand:
    return "widen_band";
  case MendKind::LiftCap:
    return "lift_cap";
  case MendKind::LetFree:
    return "let_free";
  case MendKind::MorePure:
    return "purer_water";
  }
  return {};
}

std::string_view code(SheetSlip slip) {
  switch (slip) {
  case SheetSlip::Unknown:
    return "unknown";
  case SheetSlip::LeftOut:
    return "left_out";
  case SheetSlip::DecimalPoint:
    return "decimal_point";
  case SheetSlip::DigitsSwapped:
    return "digits_swapped";
  case SheetSlip::PoundsForKilograms:
    return "pounds_for_kilograms";
  case SheetSlip::KilogramsForPounds:
    return "kilograms_for_pounds";
  case SheetSlip::OuncesForGrams:
    return "ounces_for_grams";
  case SheetSlip::Doubled:
    return "doubled";
  case SheetSlip::Halved:
    return "halved";
  }
  return {};
}

namespace {

std::string slipWords(SheetSlip slip) {
  switch (slip) {
  case SheetSlip::Unknown:
    return ".";
  case SheetSlip::LeftOut:
    return text("; was the line left out?");
  case SheetSlip::DecimalPoint:
    return text("; a decimal point?");
  case SheetSlip::DigitsSwapped:
    return text("; two digits swapped?");
  case SheetSlip::PoundsForKilograms:
  case SheetSlip::KilogramsForPounds:
    return text("; pounds and kilograms mixed up?");
  case SheetSlip::OuncesForGrams:
    return text("; ounces and grams mixed up?");
  case SheetSlip::Doubled:
    return text("; weighed twice?");
  case SheetSlip::Halved:
    return text("; half of it?");
  }
  return {};
}

std::string productName(const ErrorPart& part, const std::vector<ShelfProduct>& shelf) {
  return part.product && *part.product < shelf.size() ? shelf[*part.product].name : std::string();
}

} // namespace

std::string suspectText(const SuspectLine& line, const ProductNamer& name,
                        const std::function<std::string(Mass)>& mass) {
  const auto written = [&](Mass weight) {
    return mass ? mass(weight) : said("{} g", figure(weight.grams()));
  };
  std::string off;
  for (std::size_t i = 0; i < line.thrownOff.size(); ++i)
    off = i == 0                           ? nutrientName(line.thrownOff[i])
          : i + 1 == line.thrownOff.size() ? said("{} and {}", off, nutrientName(line.thrownOff[i]))
                                           : off + ", " + nutrientName(line.thrownOff[i]);
  return said("{}: {} stands, {} would fit{}{}", name(line.product), written(line.stands), written(line.fits),
              slipWords(line.slip), off.empty() ? std::string() : said(" It throws off {}.", off));
}

std::string errorPartText(const ErrorPart& part, const std::vector<ShelfProduct>& shelf) {
  switch (part.source) {
  case ErrorSource::Content:
    return said("content of {}", productName(part, shelf));
  case ErrorSource::Moisture:
    return said("water drawn by {}", productName(part, shelf));
  case ErrorSource::Weighing:
    return said("weighing {}", productName(part, shelf));
  case ErrorSource::Volume:
    return text("volume marks");
  case ErrorSource::Dosing:
    return text("the injector");
  case ErrorSource::Water:
    return text("the water report");
  }
  return {};
}

std::string_view code(ErrorSource source) {
  switch (source) {
  case ErrorSource::Content:
    return "content";
  case ErrorSource::Moisture:
    return "moisture";
  case ErrorSource::Weighing:
    return "weighing";
  case ErrorSource::Volume:
    return "volume";
  case ErrorSource::Dosing:
    return "dosing";
  case ErrorSource::Water:
    return "water";
  }
  return {};
}

std::string halvingText(const ErrorPart& part, const std::vector<ShelfProduct>& shelf) {
  switch (part.source) {
  case ErrorSource::Content:
    return said("a purer grade, or the lot's own analysis, of {}", productName(part, shelf));
  case ErrorSource::Moisture:
    return said("a freshly opened bag of {}, kept closed", productName(part, shelf));
  case ErrorSource::Weighing:
    return said("a scale twice as fine, or twice the batch, for {}", productName(part, shelf));
  case ErrorSource::Volume:
    return text("filling by weight or by a calibrated mark");
  case ErrorSource::Dosing:
    return text("calibrating the injector by a measured draw");
  case ErrorSource::Water:
    return text("a full, recent water report");
  }
  return {};
}

std::string productDoubtText(const ProductDoubtFound& found) {
  switch (found.doubt) {
  case ProductDoubt::IonsOverHundred:
    return said("These nutrients would weigh {} % of the product as ions, more than all of it: is one row "
                "too high, or an oxide typed as an element?",
                figure(found.figure));
  case ProductDoubt::TetrahydrateTyped:
    return text(
        "This is the tetrahydrate (11.9 % N, 17 % Ca). If the bag says 15.5-0-0 it holds the double salt "
        "with "
        "1 % ammonium and 19 % calcium: go by its label.");
  case ProductDoubt::DoubleSaltWithoutAmmonium:
    return text(
        "Calcium nitrate of 15.5-0-0 holds about 1.1 % of its nitrogen as ammonium: does the label say "
        "so?");
  case ProductDoubt::SameAsOther:
    return said("“{}” on the shelf has the same composition: is it the same bag twice?", found.other);
  case ProductDoubt::GradeAsElements:
    return text("A grade's second and third figures are P2O5 and K2O, not P and K: type them in those rows.");
  case ProductDoubt::LabelUnbalanced:
    return said("The label's cations make {} meq in a gram, its anions {}: something is not stated. Its EC "
                "and pH are as "
                "unsure as that.",
                digits(found.figure), figureText(found.other));
  case ProductDoubt::AcidityUnknown:
    return text("Its acid is not known to the chemistry: what it brings counts, but no pH follows with it, "
                "and as an acid it "
                "is dosed by guess.");
  }
  return {};
}

} // namespace butte::words
