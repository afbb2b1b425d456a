#include "shelf_book.h"

#include "amount.h"
#include "lot_marks.h"
#include "tank_line.h"
#include "units/convert.h"

#include <algorithm>
#include <cctype>

namespace butte::book {

using core::Mass;

namespace {

std::string lowered(const std::string& text) {
  std::string out = text;
  std::transform(out.begin(), out.end(), out.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return out;
}

core::ShelfLot coreLot(const std::string& uid, const Lot& lot) {
  core::ShelfLot out;
  out.id = uid;
  out.product = lot.product;
  out.mark = lot.mark;
  out.boughtAtSeconds = lot.bought.seconds;
  out.bags = lot.bags;
  out.bag = lot.bagMass();
  out.pricePerBag = lot.price();
  out.currency = lot.currency;
  if (lot.bestBefore) out.bestBeforeSeconds = lot.bestBefore->seconds;
  return out;
}

class Gatherer {
public:
  explicit Gatherer(Store& store) : m_store(store) {}

  core::Result<ShelfBook> gather() {
    for (const auto step : {&Gatherer::lots, &Gatherer::uses, &Gatherer::tankLines, &Gatherer::lines})
      if (const auto trouble = (this->*step)()) return *trouble;
    // Of one second a count says what was left after the batches.
    const auto byTime = [](const auto& a, const auto& b) { return a.atSeconds < b.atSeconds; };
    std::stable_sort(m_out.events.begin(), m_out.events.end(), byTime);
    return std::move(m_out);
  }

private:
  Trouble lots() {
    const auto trouble = m_store.eachRecord(Kind::Lot, [&](const Record& record, Moment) {
      if (record.binnedAt) return true;
      if (auto lot = lotFromJson(record.body))
        m_out.lots.emplace_back(record.ref.uid, std::move(lot).value());
      return true;
    });
    std::stable_sort(m_out.lots.begin(), m_out.lots.end(),
                     [](const auto& a, const auto& b) { return a.second.bought < b.second.bought; });
    for (const auto& [uid, lot] : m_out.lots) {
      m_lotOf.emplace(uid, &lot);
      m_out.coreLots.push_back(coreLot(uid, lot));
      m_out.names[lot.product] = lot.name; // the newest delivery's name
      m_byName[lowered(lot.name)] = lot.product;
    }
    return trouble;
  }

  Trouble lines() {
    const auto trouble = m_store.eachRecord(Kind::ShelfLine, [&](const Record& record, Moment) {
      if (record.binnedAt) return true;
      auto line = shelfLineFromJson(record.body);
      if (!line || !m_lotOf.count(line->lotUid)) return true;
      m_out.lines.emplace_back(record.ref.uid, std::move(line).value());
      return true;
    });
    std::stable_sort(m_out.lines.begin(), m_out.lines.end(),
                     [](const auto& a, const auto& b) { return a.second.at < b.second.at; });
    for (const auto& [uid, line] : m_out.lines) {
      const auto mass = m_lotOf.at(line.lotUid)->massOf(line.amount);
      if (!mass) continue;
      if (line.did == ShelfDid::Counted)
        m_out.events.push_back({line.at.seconds, core::shelved::Counted{line.lotUid, *mass}});
      if (line.did == ShelfDid::Wasted)
        m_out.events.push_back({line.at.seconds, core::shelved::Wasted{line.lotUid, *mass}});
    }
    return trouble;
  }

  /// The id under which the product is bought.
  std::string productOf(const std::string& id, const std::string& name) {
    if (m_out.names.count(id)) return id;
    const auto bought = m_byName.find(lowered(name));
    if (bought != m_byName.end()) return bought->second;
    m_out.names[id] = name;
    return id;
  }

  Trouble uses() {
    return m_store.eachUse([&](const BatchUse& use) {
      m_out.uses.push_back(use);
      auto& kept = m_out.uses.back();
      kept.productId = productOf(use.productId, use.productName);
      m_out.events.push_back({use.at.seconds, core::shelved::Used{kept.productId, Mass::fromGrams(use.grams),
                                                                  lotsIn(use.lot), use.batchUid}});
      return true;
    });
  }

  Trouble tankLines() {
    return m_store.eachRecord(Kind::TankLine, [&](const Record& record, Moment) {
      if (record.binnedAt) return true;
      const auto line = tankLineFromJson(record.body);
      if (!line || line->did != TankDid::Salts || !line->runUid.empty())
        return true; // the run's batch has it
      for (const auto& one : line->weighed) {
        const auto product = productOf(one.product, one.product);
        const auto mass = massOf(product, one.amount);
        if (mass)
          m_out.events.push_back({line->at.seconds, core::shelved::Used{product, *mass, {}, record.ref.uid}});
      }
      return true;
    });
  }

  /// By weight, or by volume where a delivery says what a litre of it weighs.
  std::optional<Mass> massOf(const std::string& product, const exchange::Amount& amount) const {
    for (const auto& [uid, lot] : m_out.lots)
      if (lot.product == product)
        if (const auto mass = lot.massOf(amount)) return mass;
    const auto grams = core::convert(amount.value(), amount.unit, "g");
    return grams ? std::optional(Mass::fromGrams(*grams)) : std::nullopt;
  }

  Store& m_store;
  ShelfBook m_out;
  std::map<std::string, const Lot*> m_lotOf;
  std::map<std::string, std::string> m_byName;
};

} // namespace

core::Result<ShelfBook> shelfBook(Store& store) {
  return Gatherer(store).gather();
}

double dryShare(const ShelfLine& dried) {
  const auto grams = [](const exchange::Amount& amount) {
    const auto out = core::convert(amount.value(), amount.unit, "g");
    return out ? *out : 0.0;
  };
  const double own = grams(dried.dried) / grams(dried.amount);
  const double sealed = dried.sealed.isEmpty() ? 1 : grams(dried.sealedDried) / grams(dried.sealed);
  return std::clamp(own / sealed, 0.0, 1.0);
}

} // namespace butte::book
