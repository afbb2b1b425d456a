#include "words.h"

#include "language.h"
#include "measures.h"

#include <cmath>

namespace butte::words {

using namespace core;

namespace {

std::string list(const std::vector<std::string>& ids, const ProductNamer& name) {
  std::string out;
  for (std::size_t i = 0; i < ids.size(); ++i) {
    if (i > 0 && i + 1 == ids.size())
      out = said("{} and {}", out, name(ids[i]));
    else
      out += (i > 0 ? ", " : "") + name(ids[i]);
  }
  return out.empty() ? text("the products on the shelf") : out;
}

std::string perVolume(double gramsPerLitre) {
  return measures().text(Concentration::fromGramsPerLitre(gramsPerLitre));
}

std::string capitalised(std::string text) {
  if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
  return text;
}

/// "sulfate, which stands at its cap".
std::string limitText(const BindingLimit& limit, const ProductNamer& name) {
  switch (limit.kind) {
  case LimitKind::Band:
    if (limit.beyond)
      return limit.upper ? said("{}, which stands over its band", nutrientName(limit.nutrient))
                         : said("{}, which falls short already", nutrientName(limit.nutrient));
    return limit.upper ? said("{}, which stands at the top of its band", nutrientName(limit.nutrient))
                       : said("{}, which stands at the foot of its band", nutrientName(limit.nutrient));
  case LimitKind::Ratio:
    return text("a ratio that is to be kept");
  case LimitKind::Cap:
    return said("{}, which stands at its cap", nutrientName(limit.nutrient));
  case LimitKind::Most:
    return said("{}, which stands at its most", name(limit.product));
  case LimitKind::Least:
    return said("{}, which stands at its least", name(limit.product));
  case LimitKind::Held:
    return said("{}, which is held at its weight", name(limit.product));
  case LimitKind::Alkalinity:
    return text("the alkalinity that acid has to take");
  case LimitKind::SafeCeiling:
    return said("{}, of which nobody asked for more than is safe", nutrientName(limit.nutrient));
  case LimitKind::ChelateInstead:
    return text("iron, which a chelate on the shelf brings without rusting out");
  }
  return {};
}

/// "potassium sulfate also brings sulfate, which stands at its cap".
std::string carriersText(const BindingLimit& limit, bool over, const ProductNamer& name) {
  const auto who = list(limit.carriers, name), what = limitText(limit, name);
  if (limit.carriers.size() > 1)
    return over ? said("{} take along {}", who, what) : said("{} also bring {}", who, what);
  return over ? said("{} takes along {}", who, what) : said("{} also brings {}", who, what);
}

/// "potassium can't rise further: every product that carries it also brings sulfate, which stands at its
/// cap."
std::string limitsText(const Reason& r, const ProductNamer& name) {
  if (r.limits.empty()) return said("{} mg/L against {} asked.", figure(r.has), figure(r.wants));
  const auto how = [&](const std::string& why) {
    return r.over ? said("it can't fall further: {}.", why) : said("it can't rise further: {}.", why);
  };
  const auto& first = r.limits.front();
  if (r.everyCarrier && r.limits.size() == 1)
    return how(r.over ? said("every product that carries it takes along {}", limitText(first, name))
                      : said("every product that carries it also brings {}", limitText(first, name)));
  std::string parts;
  for (std::size_t i = 0; i < r.limits.size() && i < 3; ++i) {
    const auto& limit = r.limits[i];
    if (i > 0) parts += "; ";
    if (!limit.carriers.empty() && (limit.kind == LimitKind::Band || limit.kind == LimitKind::Cap ||
                                    limit.kind == LimitKind::SafeCeiling))
      parts += carriersText(limit, r.over, name);
    else
      parts += said("it leans on {}", limitText(limit, name));
  }
  return how(parts);
}

} // namespace

std::string reasonText(const Reason& r, const ProductNamer& name) {
  const auto what = nutrientName(r.nutrient);
  const auto start =
      capitalised(r.over ? said("{} stands over its band: ", what) : said("{} falls short: ", what));
  switch (r.kind) {
  case ReasonKind::WaterAlone:
    return start +
           said("the water alone brings {} mg/L, the target asks for {}.", figure(r.has), figure(r.wants));
  case ReasonKind::LockedBring:
    return start +
           said("the water and what is held fixed ({}) already bring {} mg/L, the target asks for {}.",
                list(r.products, name), figure(r.has), figure(r.wants));
  case ReasonKind::NoCarrier:
    return start + said("no product on the shelf carries {}.", what);
  case ReasonKind::AllHeld:
    return start +
           said("every product that carries it is held or at its limit ({}).", list(r.products, name));
  case ReasonKind::ScaleSteps:
    return start +
           said("{} mg/L in whole steps of the scale against {} asked; a finer scale or a bigger batch "
                "for {} brings it back.",
                figure(r.has), figure(r.wants), list(r.products, name));
  case ReasonKind::LeftOut:
    return start +
           said("the few products that are opened bring none: left out for it {}. Let one more be opened.",
                list(r.products, name));
  case ReasonKind::AcidAlone:
    return start + text("only acids or bases carry it, and they are dosed for alkalinity, not as food.");
  case ReasonKind::AcidBrings:
    return start + (r.products.size() > 1
                        ? said("{} bring it while taking the alkalinity down.", list(r.products, name))
                        : said("{} brings it while taking the alkalinity down.", list(r.products, name)));
  case ReasonKind::Traded:
    return start + said("the closest fit shares the misses out ({} of {} mg/L); with the bands first it "
                        "could be had.",
                        figure(r.has), figure(r.wants));
  case ReasonKind::ComesWith:
  case ReasonKind::Cap:
    return start + limitsText(r, name);
  case ReasonKind::WaterOverCap:
    return capitalised(said("{}: the water and what is held fixed bring {} mg/L, above the cap of {}.", what,
                            figure(r.has), figure(r.wants)));
  case ReasonKind::BandsConflict:
    return text("No set of weights keeps every element inside its band: the bands exclude each other.");
  case ReasonKind::AlkalinityConflict:
    return text("The alkalinity to be left can't be had together with the limits and caps.");
  }
  return {};
}

std::string waterRemarkText(WaterRemark remark) {
  switch (remark) {
  case WaterRemark::Pure:
    return text("no water was given: pure water is assumed");
  case WaterRemark::OnlyConductivity:
    return text("of this water only the EC is known: the EC counts, its composition is unknown and not zero");
  case WaterRemark::CompositionUnknown:
    return text("nothing is known of this water: its share is missing from every sum");
  case WaterRemark::AlkalinityDisagrees:
    return text("the water's HCO3 and its alkalinity as CaCO3 disagree: HCO3 is used");
  case WaterRemark::HardnessDisagrees:
    return text("the water's hardness disagrees with its Ca and Mg: Ca and Mg are used");
  case WaterRemark::HardnessSplitAssumed:
    return text("the hardness was split into Ca and Mg by an assumed 3 to 1 (in equivalents)");
  case WaterRemark::NitrogenTakenAsNitrate:
    return text("the water's N is taken as nitrate");
  case WaterRemark::ChargeUnbalanced:
    return text(
        "the water report does not balance: its cations and anions differ by more than a report should; "
        "check for a unit mix-up or a missing ion");
  case WaterRemark::BelowDetection:
    return text("figures below detection count as half their limit, give or take that half");
  case WaterRemark::Estimated:
    return text("parts of this water are a guess from its EC, hardness and alkalinity: mind the wider bands");
  }
  return {};
}

std::string solveWarningText(SolveWarning warning, const std::string& product) {
  switch (warning) {
  case SolveWarning::AcidLeftOut:
    return said("{} is left out: acids and bases are dosed only for an alkalinity to be left, or locked",
                product);
  case SolveWarning::AcidNeedsAlkalinity:
    return said("{} is left out: the water's alkalinity is unknown, so no dose can be computed", product);
  case SolveWarning::AlkalinityAlreadyBelow:
    return said("{} is left out: the water's alkalinity is already at or below what is to be left", product);
  case SolveWarning::AlkalinityNotReached:
    return text("the acid allowed does not bring the alkalinity down to what is to be left");
  case SolveWarning::NoAcidOnShelf:
    return text("no acid on the shelf: the water keeps its alkalinity");
  case SolveWarning::PlainIronLeftOut:
    return said(
        "{} is left out: plain iron rusts out of a feed above pH 5, the chelate beside it stays. Hold "
        "a weight of it to use it all the same",
        product);
  case SolveWarning::PlainIronRusts:
    return said("{} is plain iron: above pH 5 most of it rusts out within a day, and plants go short. A "
                "chelate stays (DTPA to pH 7, EDDHA above)",
                product);
  }
  return {};
}

std::string stockNoticeText(const StockNotice& n, const ProductNamer& name) {
  const auto tank = n.tank.empty() ? std::string() : said("tank {}", n.tank);
  switch (n.kind) {
  case StockWarning::NotPlaced:
    return said("{} is not put into a stock tank by itself: give it a tank of its own or add it to the feed",
                name(n.product));
  case StockWarning::CalciumMeets:
    return said("{}: calcium meets sulfate or phosphate in concentrate and falls out as sludge", tank);
  case StockWarning::ChelateMeetsAcid:
    return said("{}: strong acid breaks the chelate", tank);
  case StockWarning::AcidMeetsWeakSalt:
    return said("{}: acid meets carbonate, acetate or silicate: it fizzes over or sets to jelly", tank);
  case StockWarning::AcidMeetsHypochlorite:
    return said("{}: acid meets hypochlorite: chlorine gas. Never together, not even the rinse", tank);
  case StockWarning::WontDissolve:
    return said("{}: {} of {} won't dissolve at this temperature; {}", tank, perVolume(n.gramsPerLitre),
                name(n.product),
                n.factorThatDissolves
                    ? said("the strongest that does is 1:{}", figure(*n.factorThatDissolves))
                    : text("make it weaker"));
  case StockWarning::PartlyUnknown:
    return said("{}: how much {} dissolves at this temperature is not known", tank, name(n.product));
  case StockWarning::WhollyTooStrong:
    return said("{}: the salts leave no room for water", tank);
  case StockWarning::FallsOut:
    return said("{}: {} of {} would fall out, lost to the plants{}", tank, perVolume(n.gramsPerLitre),
                solidName(n.product),
                n.factorThatDissolves && *n.factorThatDissolves >= 1
                    ? said("; clear up to 1:{}", figure(std::floor(*n.factorThatDissolves)))
                    : text("; keep its parts in two tanks"));
  case StockWarning::WaterFallsOut:
    return said("{}: the water that it is made with drops {} of {} at any strength: use rain or "
                "membrane water, or acidify it first",
                tank, perVolume(n.gramsPerLitre), solidName(n.product));
  }
  return {};
}

std::string harmfulText(const core::HarmfulLevel& level) {
  const auto name = nutrientName(level.nutrient), stands = figure(level.milligramsPerLitre),
             above = figure(level.harmfulAbove);
  return level.crop.empty() ? said("{} {} mg/L: above {} it harms plants", name, stands, above)
                            : said("{} {} mg/L: above {} it harms {}", name, stands, above, level.crop);
}

std::string labelRemarkText(LabelRemark remark, const std::string& product) {
  switch (remark) {
  case LabelRemark::NitrogenTakenAsNitrate:
    return said("{}: the label's N is taken as nitrate, since its forms are not given", product);
  case LabelRemark::NitrogenRemainderAsNitrate:
    return said("{}: the part of the label's N without a form is taken as nitrate", product);
  }
  return {};
}

std::string_view code(WaterRemark remark) {
  switch (remark) {
  case WaterRemark::Pure:
    return "water_pure";
  case WaterRemark::OnlyConductivity:
    return "water_ec_only";
  case WaterRemark::CompositionUnknown:
    return "water_unknown";
  case WaterRemark::AlkalinityDisagrees:
    return "alkalinity_disagrees";
  case WaterRemark::HardnessDisagrees:
    return "hardness_disagrees";
  case WaterRemark::HardnessSplitAssumed:
    return "hardness_split_assumed";
  case WaterRemark::NitrogenTakenAsNitrate:
    return "water_n_as_nitrate";
  case WaterRemark::ChargeUnbalanced:
    return "water_unbalanced";
  case WaterRemark::BelowDetection:
    return "water_below_detection";
  case WaterRemark::Estimated:
    return "water_estimated";
  }
  return {};
}

std::string_view code(SolveWarning warning) {
  switch (warning) {
  case SolveWarning::AcidLeftOut:
    return "acid_left_out";
  case SolveWarning::AcidNeedsAlkalinity:
    return "alkalinity_unknown";
  case SolveWarning::AlkalinityAlreadyBelow:
    return "alkalinity_already_below";
  case SolveWarning::AlkalinityNotReached:
    return "alkalinity_not_reached";
  case SolveWarning::NoAcidOnShelf:
    return "no_acid";
  case SolveWarning::PlainIronLeftOut:
    return "plain_iron_left_out";
  case SolveWarning::PlainIronRusts:
    return "plain_iron_rusts";
  }
  return {};
}

std::string_view code(StockWarning warning) {
  switch (warning) {
  case StockWarning::NotPlaced:
    return "not_placed";
  case StockWarning::CalciumMeets:
    return "calcium_meets_sulfate_or_phosphate";
  case StockWarning::ChelateMeetsAcid:
    return "chelate_meets_acid";
  case StockWarning::AcidMeetsWeakSalt:
    return "acid_meets_weak_salt";
  case StockWarning::AcidMeetsHypochlorite:
    return "acid_meets_hypochlorite";
  case StockWarning::WontDissolve:
    return "wont_dissolve";
  case StockWarning::PartlyUnknown:
    return "solubility_unknown";
  case StockWarning::WhollyTooStrong:
    return "no_water_left";
  case StockWarning::FallsOut:
    return "falls_out";
  case StockWarning::WaterFallsOut:
    return "water_falls_out";
  }
  return {};
}

std::string_view code(LabelRemark remark) {
  switch (remark) {
  case LabelRemark::NitrogenTakenAsNitrate:
    return "label_n_as_nitrate";
  case LabelRemark::NitrogenRemainderAsNitrate:
    return "label_n_rest_as_nitrate";
  }
  return {};
}

} // namespace butte::words
