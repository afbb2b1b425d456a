// Makes books of any size for trying and measuring, and the sample that ships.
//   make_book FILE [--batches N] [--readings N] [--products N] [--formulas N] [--reports N] [--seed N]
//   make_book --sample FILE.json DEMO_FOLDER
//   make_book --shelf FILE.json         the sample with lots anew
// The same seed makes the same book but for the records' random names. All of it is invented.
#include "book/batch_plan.h"
#include "book/book_json.h"
#include "book/kinds/kind_info.h"
#include "book/open_store.h"
#include "book/reading.h"
#include "document/batch_record.h"
#include "document/formula_editor.h"
#include "formula_json.h"
#include "print/sheet_text.h"
#include "sample_shelf.h"
#include "services/units_shown.h"
#include "typed_numbers.h"
#include "words.h"

#include <QCoreApplication>
#include <QFile>
#include <QSettings>
#include <QTemporaryDir>
#include <cmath>
#include <cstdio>
#include <map>
#include <random>

using namespace butte;
using namespace butte::book;

namespace {

constexpr std::int64_t day = 86400;

struct Sizes {
  int batches = 50000, readings = 1000000, products = 500, formulas = 2000, reports = 300;
  unsigned seed = 1;
};

void must(const Trouble& trouble) {
  if (!trouble) return;
  std::fprintf(stderr, "%s\n", words::problemLine(*trouble).c_str());
  std::exit(1);
}

Json jsonFrom(const QString& path) {
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly))
    must(core::problemAt(core::ProblemCode::BadFile, path.toStdString(), {"it can't be read"}));
  return Json::parse(file.readAll().toStdString());
}

std::string cropOf(const std::string& targetName) {
  auto crop = targetName.substr(0, targetName.find_first_of(",("));
  while (!crop.empty() && crop.back() == ' ')
    crop.pop_back();
  crop[0] = static_cast<char>(std::tolower(crop[0]));
  return crop;
}

/// A target as a stage of its crop: invented weeks.
Json asStage(const Json& target) {
  const auto name = target["name"].get<std::string>();
  Json body{{"name", name}, {"crop", cropOf(name)}};
  const std::pair<const char*, const char*> stages[] = {
      {"plant-up", "0"}, {"flowering", "4"}, {"fruiting", "9"}};
  for (const auto& [stage, week] : stages) {
    if (name.find(stage) == std::string::npos) continue;
    body["stage"] = stage;
    body["from_week"] = week;
  }
  body["target"] = target;
  return body;
}

class Maker {
public:
  Maker(Store& store, QString demo, unsigned seed)
      : m_store(store), m_demo(std::move(demo)), m_random(seed) {}

  double normal(double sigma) { return std::normal_distribution<double>(0, sigma)(m_random); }
  int below(int n) { return static_cast<int>(std::uniform_int_distribution<int>(0, n - 1)(m_random)); }

  /// The demo's formula with another of its targets.
  Json formula(const Json& target, const std::string& name) const {
    auto json = jsonFrom(m_demo + "/ormsey.json");
    json["version"] = exchange::formulaFormatVersion;
    json["name"] = name;
    json["crop"] = cropOf(target["name"].get<std::string>());
    json["target"] = target;
    exchange::keepShippedFigures(json);
    return json;
  }

  Batch planned(const Json& formula, bool withSheet) {
    app::FormulaEditor editor;
    editor.load(formula);
    auto batch = plannedBatch(editor.document(), editor.answer());
    if (withSheet) {
      QTemporaryDir folder;
      QSettings settings(folder.filePath("s.ini"), QSettings::IniFormat);
      const app::UnitsShown units(settings);
      batch.sheet = *m_store.keepSheet(app::benchSheetHtml(editor, units, app::sheetDayMark).toStdString());
    }
    return batch;
  }

  /// Weighed by a hand that is nearly always good, lots that change every two months.
  void weigh(Batch& batch, bool badDay) {
    const int slip = badDay && !batch.weights.empty() ? below(static_cast<int>(batch.weights.size())) : -1;
    for (int i = 0; i < static_cast<int>(batch.weights.size()); ++i) {
      auto& w = batch.weights[static_cast<std::size_t>(i)];
      double grams = w.plannedGrams * (1 + normal(0.004));
      if (i == slip) grams = w.plannedGrams * (1 + (below(2) ? 0.028 : -0.034) + normal(0.01));
      const double step = grams > 1000 ? 5 : grams > 30 ? 0.5 : 0.01;
      grams = std::round(grams / step) * step;
      w.actual = grams > 1000
                     ? exchange::Amount{QString::number(grams / 1000, 'f', 3).toStdString(), "kg"}
                     : exchange::Amount{QString::number(grams, 'f', step < 0.1 ? 2 : 1).toStdString(), "g"};
      w.lot = w.productId.substr(0, 3) + "-" + std::to_string(100 + batch.at.seconds / (60 * day) % 900);
    }
    batch.ecRead = exchange::Amount{
        QString::number(batch.ecPlanned.value_or(1.5) * (1 + normal(0.015)), 'f', 2).toStdString(), "mS/cm"};
    batch.phRead = QString::number(batch.phPlanned.value_or(5.8) + normal(0.08), 'f', 1).toStdString();
  }

  void put(const Ref& ref, const Json& body, Moment at, bool binned = false) {
    must(m_store.write({ref, body, binned ? std::optional(at) : std::nullopt}, at));
  }

  void sample(Moment now);
  void large(const Sizes& sizes, Moment now);

private:
  void sampleWaters(Moment now);
  Json blend(const Json& old, Moment now) const;
  void sampleBatches(Moment now, const std::vector<std::pair<Ref, Json>>& formulas);
  void sampleReadings(Moment now);
  void makeVersion(const Ref& ref, const Json& body, const Json& before, Moment at, const char* why,
                   const char* name, const char* who) {
    auto changes = before.is_null() ? std::vector<core::Change>{{core::ChangeCode::FirstVersion, {}}}
                                    : changesBetween(ref.kind, before, body);
    const auto number = m_store.addVersion({ref.uid, 0, at, who, why, name, std::move(changes), body});
    if (!number) must(number.problem());
  }

  Store& m_store;
  QString m_demo;
  std::mt19937 m_random;
};

void Maker::sampleWaters(Moment now) {
  const auto waters = jsonFrom(m_demo + "/waters.json");
  for (std::size_t i = 0; i < 3; ++i) {
    const auto& water = waters[i];
    Json reports = Json::array();
    const int count = i == 0 ? 4 : 1;
    for (int r = count; r-- > 0;) {
      Json figures = water;
      // Wet and dry seasons thin and thicken the whole; a laboratory's own scatter is small beside it.
      const double season = 1 + (r % 2 ? 0.09 : -0.05) + 0.02 * r;
      for (auto& row : figures["rows"]) {
        const double value = std::stod(row["mg_per_l"].get<std::string>());
        if (r > 0)
          row["mg_per_l"] = QString::number(value * season * (1 + normal(0.004)), 'g', 3).toStdString();
        // The oldest report's alkalinity was copied into the wrong column.
        if (r == 3 && row["key"] == "alkalinity_as_CaCO3") row["key"] = "HCO3";
      }
      if (r > 0 && figures.contains("ec"))
        figures["ec"]["amount"] =
            QString::number(std::stod(figures["ec"]["amount"].get<std::string>()) * season, 'g', 3)
                .toStdString();
      reports.push_back({{"date", Moment{now.seconds - (30 + r * 180) * day}.iso().substr(0, 10)},
                         {"laboratory", "county laboratory"},
                         {"water", figures}});
    }
    put({Kind::Water, "sample-water-" + std::to_string(i)},
        Json{{"name", water["name"]}, {"reports", reports}}, {now.seconds - 30 * day});
  }
}

/// The roof's and the bore's newest reports, 60 to 40, with the drops that were counted in the blend.
Json Maker::blend(const Json& old, Moment now) const {
  const auto waters = jsonFrom(m_demo + "/waters.json");
  Json out{{"name", "Roof 60 : bore 40"}, {"parts", Json::array()}};
  for (const auto& [index, share] : {std::pair{1, "60"}, std::pair{0, "40"}}) {
    Json part = waters[static_cast<std::size_t>(index)];
    part["share"] = share;
    part["source"] = "sample-water-" + std::to_string(index);
    part["report"] = Moment{now.seconds - 30 * day}.iso().substr(0, 10);
    out["parts"].push_back(part);
  }
  if (old.contains("titration")) out["titration"] = old["titration"];
  return out;
}

void Maker::sampleBatches(Moment now, const std::vector<std::pair<Ref, Json>>& formulas) {
  // Plant-up in late winter, fruiting through summer, rafts of lettuce all year.
  std::vector<Batch> plans;
  for (const auto& [ref, body] : formulas) {
    plans.push_back(planned(body, true));
    plans.back().formulaUid = ref.uid;
  }
  int number = 0;
  for (std::int64_t ago = 410; ago >= 0; ago = ago > 0 && ago < 5 ? (ago > 2 ? 2 : 0) : ago - 2 - below(3)) {
    const int month = static_cast<int>((now.seconds - ago * day) / (30 * day) % 12);
    const auto which = static_cast<std::size_t>(
        below(3) == 0 ? formulas.size() - 1 : static_cast<std::size_t>(month) % (formulas.size() - 1));
    Batch batch = plans[which];
    batch.at = {now.seconds - ago * day + (below(3 * 3600) - 5400)};
    batch.formulaVersion = 1 + (which == 0 && ago < 200) + (which == 0 && ago < 60);
    const char* who[] = {"oa", "mb", "jt"};
    batch.who = who[below(3)];
    const bool badDay = below(9) == 0;
    if (ago > 0) weigh(batch, badDay); // the newest waits for its figures
    if (badDay && ago > 0)
      batch.note = below(2) ? "scale drifted, tared again" : "scoop slipped; within band after the check";
    put({Kind::Batch, "sample-batch-" + std::to_string(number++)}, toJson(batch), batch.at);
  }
}

void Maker::sampleReadings(Moment now) {
  std::vector<Reading> readings;
  const std::pair<const char*, const char*> vessels[] = {
      {"north tabletop", "800"}, {"south tabletop", "800"}, {"raft pond", "5200"}}; // litres
  for (const auto& [name, litres] : vessels)
    put({Kind::Vessel, vesselUidOf(name)},
        Json{{"name", name}, {"volume", {{"amount", litres}, {"unit", "L"}}}}, {now.seconds - 61 * day});
  const double ec[] = {1.6, 1.55, 1.3};
  for (int ago = 60; ago >= 0; --ago) {
    for (int t = 0; t < 3; ++t) {
      const Moment at{now.seconds - ago * day - t * 600};
      const double salts = ec[t] + 0.12 * std::sin(ago / 5.0 + t) + normal(0.02),
                   ph = 5.85 + 0.15 * std::sin(ago / 3.0 + t) + normal(0.03);
      const double shownEc = std::round(salts * 100) / 100, shownPh = std::round(ph * 10) / 10;
      const auto vessel = vesselUidOf(vessels[t].first);
      readings.push_back(
          {0, vessel, "ec", at, shownEc, QString::number(shownEc, 'f', 2).toStdString() + " mS/cm", "", ""});
      readings.push_back({0,
                          vessel,
                          "ph",
                          {at.seconds + 60},
                          shownPh,
                          QString::number(shownPh, 'f', 1).toStdString(),
                          "",
                          ""});
    }
  }
  must(m_store.addReadings(readings));
}

void Maker::sample(Moment now) {
  must(m_store.setMeta("farm", "Ormsey Glass"));
  must(m_store.setMeta("sample", "yes"));
  sampleWaters(now);
  const auto targets = jsonFrom(m_demo + "/targets.json");
  int index = 0;
  for (const auto& target : targets)
    put({Kind::Target, "sample-target-" + std::to_string(index++)}, asStage(target),
        {now.seconds - 300 * day});

  const Ref main{Kind::Formula, "sample-formula-0"};
  auto fruiting = jsonFrom(m_demo + "/ormsey.json");
  fruiting["version"] = exchange::formulaFormatVersion;
  fruiting["crop"] = "strawberry";
  exchange::keepShippedFigures(fruiting);
  fruiting["water"] = blend(fruiting["water"], now);
  // The crops that live from the holding's one pair of tanks.
  fruiting["crops"] = Json::array();
  for (const auto& target : targets) {
    const auto name = target["name"].get<std::string>();
    if (name.find("plant-up") == std::string::npos && name.find("flowering") == std::string::npos)
      fruiting["crops"].push_back(target);
  }
  Json first = fruiting, second = fruiting;
  first["target"]["rows"][3]["mg_per_l"] = "190";
  first["target"]["rows"][4]["mg_per_l"] = "120";
  second["target"]["rows"][3]["mg_per_l"] = "198";
  put(main, fruiting, {now.seconds - 50 * day});
  makeVersion(main, first, Json(), {now.seconds - 410 * day}, "used", "", "oa");
  makeVersion(main, second, first, {now.seconds - 200 * day}, "named", "after the leaf test", "mb");
  makeVersion(main, fruiting, second, {now.seconds - 60 * day}, "used", "", "oa");
  must(m_store.setMeta("in_hand", main.uid));
  std::vector<std::pair<Ref, Json>> formulas{{main, fruiting}};
  index = 1;
  for (const auto& target : targets) {
    if (cropOf(target["name"]) == "strawberry" &&
        target["name"].get<std::string>().find("fruiting") != std::string::npos)
      continue;
    const Ref ref{Kind::Formula, "sample-formula-" + std::to_string(index)};
    const auto body = formula(target, "Ormsey Glass, " + target["name"].get<std::string>());
    put(ref, body, {now.seconds - (90 + index) * day});
    makeVersion(ref, body, Json(), {now.seconds - 400 * day}, "used", "", "oa");
    formulas.emplace_back(ref, body);
    ++index;
  }
  auto mistyped = fruiting;
  mistyped["name"] = "Ormsey Glass, fruiting (mistyped copy)";
  mistyped["target"]["rows"][3]["mg_per_l"] = "502";
  put({Kind::Formula, "sample-formula-bin"}, mistyped, {now.seconds - 20 * day}, true);
  Json entry = fruiting["shelf"].back();
  for (const auto* key : {"on", "held"})
    entry.erase(key);
  put({Kind::Product, "sample-product-0"},
      Json{{"name", "raft blend 6-11-31"},
           {"entry", entry},
           {"bag", exchange::amountJson("25", "kg")},
           {"currency", "EUR"},
           {"colour", "#6d8f3c"},
           {"note", "kept for the rafts when time is short"}},
      {now.seconds - 80 * day});
  put({Kind::StockPlan, "sample-plan-0"},
      Json{{"name", "Stocks of the tabletops"}, {"formula", main.uid}, {"stock", fruiting["stock"]}},
      {now.seconds - 70 * day});
  sampleBatches(now, formulas);
  sampleReadings(now);
  must(m_store.setMeta("sample_newest", m_store.batches({}, std::nullopt, 1)->front().at.iso()));
}

void Maker::large(const Sizes& sizes, Moment now) {
  must(m_store.setMeta("farm", "Large test farm"));
  const auto targets = jsonFrom(m_demo + "/targets.json");
  const auto waters = jsonFrom(m_demo + "/waters.json");
  const char* crops[] = {"strawberry", "lettuce", "tomato", "basil", "cucumber", "pepper"};
  std::vector<Json> bases;
  std::vector<Batch> plans;
  for (const auto& target : targets) {
    bases.push_back(formula(target, target["name"]));
    plans.push_back(planned(bases.back(), true));
  }
  const int sources = std::max(1, sizes.reports / 10);
  for (int i = 0; i < sources; ++i) {
    Json reports = Json::array();
    for (int r = 0; r < sizes.reports / sources; ++r)
      reports.push_back({{"date", Moment{now.seconds - (3650 - r * 300) * day}.iso().substr(0, 10)},
                         {"laboratory", ""},
                         {"water", waters[static_cast<std::size_t>(i) % waters.size()]}});
    put(freshRef(Kind::Water), Json{{"name", "Source " + std::to_string(i)}, {"reports", reports}}, now);
  }
  for (int i = 0; i < sizes.products; ++i)
    put(freshRef(Kind::Product),
        Json{{"name", "Own product " + std::to_string(i)},
             {"entry",
              {{"id", "own"},
               {"name", "Own product " + std::to_string(i)},
               {"formula", "KNO3"},
               {"purity_percent", "99"}}}},
        now);
  std::vector<std::string> uids;
  for (int i = 0; i < sizes.formulas; ++i) {
    auto body = bases[static_cast<std::size_t>(i) % bases.size()];
    body["name"] = std::string(crops[i % 6]) + " house " + std::to_string(i);
    body["crop"] = crops[i % 6];
    const auto ref = freshRef(Kind::Formula);
    put(ref, body, {now.seconds - below(3650) * day});
    makeVersion(ref, body, Json(), now, "used", "", "oa");
    uids.push_back(ref.uid);
  }
  for (int i = 0; i < sizes.batches; ++i) {
    Batch batch = plans[static_cast<std::size_t>(i) % plans.size()];
    const auto which = static_cast<std::size_t>(below(sizes.formulas));
    batch.at = {now.seconds - static_cast<std::int64_t>(sizes.batches - i) * 3650 * day / sizes.batches};
    batch.formulaUid = uids[which];
    batch.formulaName = std::string(crops[which % 6]) + " house " + std::to_string(which);
    batch.crop = crops[which % 6];
    batch.formulaVersion = 1;
    weigh(batch, below(12) == 0);
    put(freshRef(Kind::Batch), toJson(batch), batch.at);
  }
  for (int i = 0; i < 12; ++i) {
    const auto name = "tank " + std::to_string(i);
    put({Kind::Vessel, vesselUidOf(name)}, Json{{"name", name}}, now);
  }
  std::vector<Reading> readings;
  const char* quantities[] = {"ec", "ph", "level", "temperature"};
  for (int i = 0; i < sizes.readings; ++i) {
    readings.push_back(
        {0,
         vesselUidOf("tank " + std::to_string(i % 12)),
         quantities[i / 12 % 4],
         {now.seconds - static_cast<std::int64_t>(sizes.readings - i) * 3650 * day / sizes.readings},
         1.5 + normal(0.2),
         "1.5",
         "",
         ""});
    if (readings.size() == 10000) {
      must(m_store.addReadings(readings));
      readings.clear();
    }
  }
  must(m_store.addReadings(readings));
  addSampleShelf(m_store, now, m_random, must);
}

/// Lots for a book that has none, from what its batches took.
void addShelf(const std::string& file, Moment now) {
  QTemporaryDir folder;
  const auto path = folder.filePath("sample.butte").toStdString();
  QFile json(QString::fromStdString(file));
  if (!json.open(QIODevice::ReadOnly))
    must(core::problemAt(core::ProblemCode::BadFile, file, {"it can't be read"}));
  must(readBookJson(json.readAll().toStdString(), path));
  auto opened = openStore(path, OpenFor::Writing);
  if (!opened) must(opened.problem());
  auto& store = **opened;
  std::mt19937 random(7);
  must(store.begin());
  addSampleShelf(store, now, random, must);
  must(store.commit());
  must(writeBookJson(store, file));
}

} // namespace

int main(int argc, char** argv) {
  QCoreApplication application(argc, argv);
  auto words = QCoreApplication::arguments();
  if (words.size() < 2)
    return std::puts("make_book FILE [--batches N ...] | --sample FILE.json DEMO_FOLDER"), 2;
  const auto number = [&](const char* name, int usual) {
    const auto at = words.indexOf(name);
    return at > 0 && at + 1 < words.size() ? words[at + 1].toInt() : usual;
  };
  const auto now = *Moment::fromIso("2026-11-22T08:30:00Z");
  if (words[1] == "--shelf") return addShelf(words.value(2).toStdString(), now), 0;
  const bool sample = words[1] == "--sample";
  QTemporaryDir folder;
  const auto path = sample ? folder.filePath("sample.butte") : words[1];
  auto made = createStore(path.toStdString());
  if (!made) must(made.problem());
  auto& store = **made;
  must(store.begin());
  if (sample) {
    Maker(store, words.value(3), 7).sample(now);
  } else {
    const Sizes usual;
    const Sizes sizes{number("--batches", usual.batches),   number("--readings", usual.readings),
                      number("--products", usual.products), number("--formulas", usual.formulas),
                      number("--reports", usual.reports),   static_cast<unsigned>(number("--seed", 1))};
    Maker(store, BUTTE_DEMO, sizes.seed).large(sizes, now);
  }
  must(store.commit());
  if (sample) must(writeBookJson(store, words.value(2).toStdString()));
  return 0;
}
