#include "edits/lot_edits.h"

#include "document/book_desk.h"
#include "formula_json.h"
#include "product/catalogue.h"
#include "wording/record_words.h"

#include <algorithm>
#include <map>

namespace butte::app {

using book::Kind;
using book::Lot;
using book::Trouble;
using core::DeedCode;
using core::problemAt;
using core::ProblemCode;

namespace {

DeedCode deedOf(book::ShelfDid did) {
  switch (did) {
  case book::ShelfDid::Wasted:
    return DeedCode::LotWasted;
  case book::ShelfDid::Opened:
    return DeedCode::LotOpened;
  case book::ShelfDid::Dried:
    return DeedCode::LotDried;
  case book::ShelfDid::Counted:
    break;
  }
  return DeedCode::LotCounted;
}

} // namespace

std::vector<Buyable> LotEdits::buyables() const {
  std::map<std::string, Buyable> known;
  for (const auto& product : core::catalogue())
    known[product.id] = {product.id, qtext(product.name), product.densityKgPerL};
  if (m_desk.isOpen()) {
    auto& store = m_desk.book().store();
    const auto put = [&](const std::string& id, const std::string& name, std::optional<double> density) {
      auto& one = known[id];
      one.id = id;
      one.name = qtext(name);
      if (density) one.densityKgPerL = density;
    };
    std::ignore = store.eachRecord(Kind::Formula, [&](const book::Record& record, book::Moment) {
      const auto document = exchange::readFormulaDocument(record.body);
      if (record.binnedAt || !document) return true;
      for (const auto& product : document->given.request.shelf)
        put(product.id, product.name, product.liquid ? product.densityKgPerL : std::nullopt);
      return true;
    });
    std::ignore = store.eachRecord(Kind::Lot, [&](const book::Record& record, book::Moment) {
      if (const auto lot = book::lotFromJson(record.body); lot && !record.binnedAt)
        put(lot->product, lot->name, std::nullopt);
      return true;
    });
  }
  std::vector<Buyable> out;
  for (auto& [id, one] : known)
    out.push_back(std::move(one));
  std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) {
    return QString::localeAwareCompare(a.name, b.name) < 0;
  });
  return out;
}

std::optional<Lot> LotEdits::lastOf(const std::string& product) const {
  std::optional<Lot> newest;
  if (!m_desk.isOpen()) return newest;
  std::ignore = m_desk.book().store().eachRecord(Kind::Lot, [&](const book::Record& record, book::Moment) {
    auto lot = book::lotFromJson(record.body);
    if (lot && !record.binnedAt && (product.empty() || lot->product == product) &&
        (!newest || newest->bought <= lot->bought))
      newest = std::move(lot).value();
    return true;
  });
  return newest;
}

core::Result<Lot> LotEdits::lot(const std::string& uid) const {
  if (!m_desk.isOpen()) return noBookOpen();
  const auto record = m_desk.book().record({Kind::Lot, uid});
  if (!record) return record.problem();
  if (!*record) return problemAt(ProblemCode::BadFile, "lot", {"it is no longer in the book"});
  return book::lotFromJson((*record)->body);
}

core::Result<std::string> LotEdits::keep(const Lot& lot) {
  if (!m_desk.isOpen()) return noBookOpen();
  const auto code = lot.bags > 0 ? DeedCode::LotCame : DeedCode::PriceNoted;
  const auto made = m_desk.book().create(
      Kind::Lot, toJson(lot), {code, {lot.name, std::to_string(lot.bags), lot.bag.digits, lot.bag.unit}});
  if (!made) return made.problem();
  return made->uid;
}

Trouble LotEdits::change(const std::string& uid, const Lot& lot) {
  if (!m_desk.isOpen()) return noBookOpen();
  return m_desk.book().replaceBody({Kind::Lot, uid}, toJson(lot), {DeedCode::LotChanged, {lot.name}});
}

Trouble LotEdits::tell(book::ShelfLine line) {
  if (!m_desk.isOpen()) return noBookOpen();
  const auto of = lot(line.lotUid);
  if (!of) return of.problem();
  if (line.at.seconds == 0) line.at = book::Moment::now();
  if (line.who.empty()) line.who = m_desk.initials().toStdString();
  const auto made = m_desk.book().create(
      Kind::ShelfLine, toJson(line), {deedOf(line.did), {of->name, line.amount.digits, line.amount.unit}});
  return made ? Trouble() : Trouble(made.problem());
}

Trouble LotEdits::strike(const book::Ref& ref, const QString& what) {
  if (!m_desk.isOpen()) return noBookOpen();
  return m_desk.book().moveToBin(ref, what.toStdString());
}

} // namespace butte::app
