#include "sample_shelf.h"

#include "base/decimal.h"
#include "book/chore_record.h"
#include "book/shelf_record.h"

#include <cmath>
#include <map>

namespace butte {

using namespace book;

namespace {

constexpr std::int64_t day = 86400, window = 60 * day; // make_book's lots change so often

/// An invented price list: what a kilogram costs, and the bags it comes in.
struct Article {
  double perKg, smallKg, largeKg;
};
Article articleOf(double kgPerYear, std::size_t number) {
  const double grade = 0.7 + 0.37 * static_cast<double>(number % 7);
  if (kgPerYear > 200) return {grade, 5, 25};
  if (kgPerYear > 20) return {1.4 + 2 * grade, 1, 10};
  return {9 + 6 * grade, 0.5, 2};
}

std::string money(double value) {
  return core::decimalText(std::round(value * 20) / 20);
}

class Buyer {
public:
  Buyer(Store& store, Moment now, std::mt19937& random, const std::function<void(const Trouble&)>& must)
      : m_store(store), m_now(now), m_random(random), m_must(must) {}

  void buyAll() {
    std::map<std::string, std::map<std::int64_t, BatchUse>> uses; // product, window: grams summed up
    std::map<std::string, double> kgPerYear;
    m_must(m_store.eachUse([&](const BatchUse& use) {
      auto& sum = uses[use.productId][use.at.seconds / window];
      const double grams = sum.grams + use.grams;
      if (sum.productId.empty()) sum = use;
      sum.grams = grams;
      kgPerYear[use.productId] += use.grams / 1000 * 365 / 410;
      return true;
    }));
    std::size_t number = 0;
    for (const auto& [product, windows] : uses) {
      buy(windows, articleOf(kgPerYear[product], number), number);
      ++number;
    }
  }

private:
  void put(Kind kind, const std::string& uid, const Json& body, Moment at) {
    m_must(m_store.write({{kind, uid}, body, {}}, at));
  }

  void buy(const std::map<std::int64_t, BatchUse>& windows, const Article& article, std::size_t number) {
    double shelfKg = 0;
    int index = 0;
    for (const auto& [which, use] : windows) {
      const bool last = which == windows.rbegin()->first;
      const double wantedKg = use.grams / 1000 - shelfKg;
      // The newest delivery is for weeks ahead as well, but of one salt it was forgotten.
      const double ahead = !last ? 0.1 : number == 2 ? 0.05 : 0.6 + 0.35 * static_cast<double>(number % 4);
      const double needKg = wantedKg + ahead * use.grams / 1000;
      if (needKg <= 0) {
        shelfKg -= use.grams / 1000;
        continue;
      }
      const bool large = needKg > 0.6 * article.largeKg;
      const double bagKg = large ? article.largeKg : article.smallKg;
      const int bags = std::max(1, static_cast<int>(std::ceil(needKg / bagKg)));
      shelfKg += bags * bagKg - use.grams / 1000;
      put(Kind::Lot, lotUid(number, index++), toJson(lotOf(use, article, bagKg, bags, number)),
          lotMoment(use));
    }
    if (number == 1) waste(lotUid(number, index - 1));
    if (number == 0) count(lotUid(number, index - 1), 0.93 * shelfKg);
    opened(lotUid(number, index - 1));
  }

  static std::string lotUid(std::size_t number, int index) {
    return "sample-lot-" + std::to_string(number) + "-" + std::to_string(index);
  }
  static Moment lotMoment(const BatchUse& use) { return {use.at.seconds - 9 * day}; }

  Lot lotOf(const BatchUse& use, const Article& article, double bagKg, int bags, std::size_t number) {
    const double years = static_cast<double>(use.at.seconds - m_now.seconds) / day / 365;
    const double scatter = std::uniform_real_distribution<double>(0.96, 1.04)(m_random);
    const bool small = bagKg < article.largeKg;
    Lot lot;
    lot.product = use.productId;
    lot.name = use.productName;
    lot.mark = use.lot.empty() ? use.productId.substr(0, 3) + "-000" : use.lot;
    lot.bought = lotMoment(use);
    lot.bags = bags;
    lot.bag = {core::decimalText(bagKg), "kg"};
    lot.bagPrice = money(bagKg * article.perKg * (small ? 1.3 : 1) * (1 + 0.06 * years) * scatter);
    lot.currency = "EUR";
    lot.supplier = number % 3 == 0 ? "harbour store" : "growers' depot";
    lot.place = number % 2 == 0 ? "salt room, left" : "salt room, right";
    lot.leadDays = number % 3 == 0 ? 4 : 10;
    if (number % 4 == 1) lot.bestBefore = Moment{use.at.seconds + (number == 5 ? 40 : 400) * day};
    return lot;
  }

  void line(const std::string& lot, const std::string& uid, ShelfDid did, const exchange::Amount& amount,
            int daysAgo, const char* text) {
    ShelfLine out;
    out.lotUid = lot;
    out.at = {m_now.seconds - daysAgo * day};
    out.who = "K.T.";
    out.did = did;
    out.amount = amount;
    out.text = text;
    put(Kind::ShelfLine, uid, toJson(out), out.at);
  }
  void waste(const std::string& lot) {
    line(lot, "sample-shelf-waste", ShelfDid::Wasted, {"1.5", "kg"}, 3, "caked at the seam");
  }
  void count(const std::string& lot, double kg) {
    line(lot, "sample-shelf-count", ShelfDid::Counted,
         {core::decimalText(std::round(std::max(kg, 0.1) * 10) / 10), "kg"}, 2, "");
  }
  void opened(const std::string& lot) { line(lot, "sample-opened-" + lot, ShelfDid::Opened, {}, 40, ""); }

  Store& m_store;
  Moment m_now;
  std::mt19937& m_random;
  const std::function<void(const Trouble&)>& m_must;
};

void addChores(Store& store, Moment now, const std::function<void(const Trouble&)>& must) {
  const auto today =
      std::chrono::floor<std::chrono::days>(std::chrono::sys_seconds(std::chrono::seconds(now.seconds)));
  const auto monday = today - (std::chrono::weekday(today) - std::chrono::Monday);
  const auto put = [&](const char* uid, const char* name, core::Day starts, const char* repeat,
                       std::optional<int> after, const char* note) {
    Chore chore{name, starts, repeat, after, note, {}};
    must(store.write({{Kind::Chore, uid}, toJson(chore), {}}, now));
  };
  using std::chrono::days;
  put("sample-chore-0", "Clean suction screens and disc filters", monday - days(70), "FREQ=WEEKLY", {},
      "screens in the roof tank, discs before the injector");
  put("sample-chore-1", "Rinse the pH probe, back into KCl", monday - days(67), "FREQ=WEEKLY", {}, "");
  put("sample-chore-2", "Change the carbon before the membrane", today - days(178), "", 182, "");
  put("sample-chore-3", "Rafts: lift ten plants, look at the roots", monday - days(56),
      "FREQ=WEEKLY;INTERVAL=2", {}, "");
  put("sample-chore-4", "Order plug plants for February", today + days(9), "", {}, "");
  const auto done = [&](const char* uid, const char* chore, core::Day due, int daysAgo) {
    ChoreLine line{chore, due, {now.seconds - daysAgo * day}, "M.A.", core::ChoreDid::Done, {}, {}};
    must(store.write({{Kind::ChoreLine, uid}, toJson(line), {}}, line.at));
  };
  done("sample-chore-line-0", "sample-chore-0", monday - days(7), 6);
  done("sample-chore-line-1", "sample-chore-1", monday - days(4), 3);
  done("sample-chore-line-2", "sample-chore-3", monday - days(14), 13);
}

} // namespace

void addSampleShelf(Store& store, Moment now, std::mt19937& random,
                    const std::function<void(const Trouble&)>& must) {
  Buyer(store, now, random, must).buyAll();
  addChores(store, now, must);
}

} // namespace butte
