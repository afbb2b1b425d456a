/// Lines of a vessel's log in words.
#include "deed_words.h"
#include "stations/tank/tank_words.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

namespace butte::app {

namespace {

/// In the unit that the person measures in; what is of no volume as it was typed.
QString volumeText(const exchange::Amount& amount) {
  if (amount.isEmpty()) return {};
  if (const auto litres = core::convert(amount.value(), amount.unit, "L"))
    return qtext(words::measures().text(core::Volume::fromLitres(*litres)));
  return tr("%1 %2").arg(localFigure(amount.value()), qtext(words::unitName(amount.unit)));
}

QString liquidName(const book::TankLine& line, const TankGiven& given) {
  const auto found = given.formulas.find({line.formulaUid, line.formulaVersion});
  const auto* document = found != given.formulas.end() ? found->second.get() : nullptr;
  if (line.liquid == book::TankLiquid::Water) return document ? qtext(document->waterName) : tr("water");
  auto name = document ? qtext(document->name) : tr("feed");
  if (const auto batch = given.batches.find(line.batchUid); batch != given.batches.end())
    name = batchName(batch->second.formulaName, batch->second.at);
  return line.strengthPercent.isEmpty()
             ? name
             : tr("%1 at %2 % of its strength")
                   .arg(name, qtext(words::figureText(line.strengthPercent.digits)));
}

QString aboutName(const std::string& about) {
  if (about == "drain") return tr("drain");
  if (about == "root_zone") return tr("root zone");
  if (about == "drip") return tr("drip");
  if (about == "roots") return tr("roots");
  if (about == "leaves") return tr("leaves");
  if (about == "harvest") return tr("harvest");
  if (about == "photo") return tr("photo");
  return qtext(about);
}

} // namespace

QString batchName(const std::string& formula, book::Moment at) {
  return tr("%1, batch of %2").arg(qtext(formula), dayText(at));
}

QString weighedText(const book::TankLine& line, const TankGiven& given) {
  QStringList out;
  const auto found = given.formulas.find({line.formulaUid, line.formulaVersion});
  for (const auto& one : line.weighed) {
    auto name = qtext(one.product);
    if (found != given.formulas.end() && found->second)
      for (const auto& product : found->second->allProducts)
        if (product.id == one.product) name = qtext(product.name);
    out << tr("%1 %2").arg(
        tr("%1 %2").arg(qtext(words::figureText(one.amount.digits)), qtext(words::unitName(one.amount.unit))),
        name);
  }
  return out.join(", ");
}

QString lineWords(const book::TankLine& line, const TankGiven& given) {
  using book::TankDid;
  const auto did = qtext(words::tankDidName(std::string(code(line.did))));
  switch (line.did) {
  case TankDid::Filled:
    return tr("filled to %1 with %2").arg(volumeText(line.volume), liquidName(line, given));
  case TankDid::Poured:
    return tr("poured in %1 of %2").arg(volumeText(line.volume), liquidName(line, given));
  case TankDid::Salts:
    return tr("weighed in: %1").arg(weighedText(line, given));
  case TankDid::Cups:
    return line.left.isEmpty()
               ? tr("cups of feed: %1").arg(volumeText(line.volume))
               : tr("cups of feed: %1, %2 of it left").arg(volumeText(line.volume), volumeText(line.left));
  case TankDid::Bleeds:
    return line.volume.value() > 0 ? tr("%1 is let off every day from now").arg(volumeText(line.volume))
                                   : tr("nothing is let off every day any more");
  case TankDid::Medium:
    return tr("%1 of medium brought: %2")
        .arg(volumeText(line.volume), counted(line.figures.size(), tr("%1 element"), tr("%1 elements")));
  case TankDid::Drained:
  case TankDid::Rained:
    return tr("%1 %2").arg(did, volumeText(line.volume));
  case TankDid::Calibrated:
    return line.slopePercent.isEmpty() ? tr("%1 pen calibrated").arg(qtext(words::quantityName(line.about)))
                                       : tr("%1 pen calibrated, slope %2 %")
                                             .arg(qtext(words::quantityName(line.about)),
                                                  qtext(words::figureText(line.slopePercent.digits)));
  case TankDid::Planted:
    return tr("planted: %1").arg(qtext(line.text.empty() ? line.about : line.text));
  case TankDid::Noted:
    return line.about.empty() ? qtext(line.text) : tr("%1: %2").arg(aboutName(line.about), qtext(line.text));
  case TankDid::Analysed: {
    const auto figures = counted(line.figures.size(), tr("a laboratory's analysis, %1 figure"),
                                 tr("a laboratory's analysis, %1 figures"));
    return line.about.empty() ? figures : tr("%1: %2").arg(aboutName(line.about), figures);
  }
  case TankDid::Emptied:
    break;
  }
  return did;
}

} // namespace butte::app
