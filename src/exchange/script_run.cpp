#include "script_run.h"

#include "base/decimal.h"
#include "json_reader.h"
#include "script_input.h"
#include "typed_numbers.h"

#include <algorithm>
#include <cmath>
#include <functional>

namespace butte::exchange {

using namespace core;

namespace {

constexpr std::size_t mostEvents = 100000, mostVessels = 50;
constexpr double millisecondsPerSecond = 1000, mostSeconds = 1e11;

/// One event's keys, read strictly.
class EventReader {
public:
  EventReader(const Json& json, const std::string& path, const RunPlan& plan, std::optional<Problem>& sink)
      : m_reader(json, path, sink), m_plan(plan) {}

  RunEvent read() {
    RunEvent out;
    out.atMilliseconds = static_cast<std::int64_t>(
        std::llround(millisecondsPerSecond * numberIn("at_s", 0, mostSeconds).value_or(0)));
    out.by = m_reader.text("by").value_or("");
    const auto did = m_reader.text("did").value_or("");
    const auto known = readers().find(did);
    if (known == readers().end())
      m_reader.fail(ProblemCode::NotOneOf, "did", {did, names()});
    else
      out.deed = known->second(*this);
    m_reader.finish();
    return out;
  }

private:
  using Reader = std::function<RunDeed(EventReader&)>;
  static const std::map<std::string, Reader>& readers() {
    static const std::map<std::string, Reader> all{
        {"prepared", [](EventReader&) -> RunDeed { return did::Prepared{}; }},
        {"poured",
         [](EventReader& r) -> RunDeed {
           return did::Poured{r.vessel(), r.volume()};
         }},
        {"weighed",
         [](EventReader& r) -> RunDeed {
           return did::Weighed{r.product(), r.mass(), r.m_reader.text("lot").value_or(""),
                               r.m_reader.flag("typed").value_or(false)};
         }},
        {"taken_out",
         [](EventReader& r) -> RunDeed {
           return did::TakenOut{r.product(), r.mass()};
         }},
        {"tipped",
         [](EventReader& r) -> RunDeed {
           return did::Tipped{r.product(), r.vessel()};
         }},
        {"clear",
         [](EventReader& r) -> RunDeed {
           return did::Clear{r.product(), r.vessel()};
         }},
        {"skipped",
         [](EventReader& r) -> RunDeed {
           return did::Skipped{r.product(), r.vessel()};
         }},
        {"substituted",
         [](EventReader& r) -> RunDeed {
           return did::Substituted{r.product(), r.vessel(), r.product("by"), r.mass()};
         }},
        {"accepted",
         [](EventReader& r) -> RunDeed {
           return did::Accepted{r.product(), r.vessel()};
         }},
        {"rescaled", [](EventReader& r) -> RunDeed { return did::Rescaled{r.needed("ratio")}; }},
        {"topped_up",
         [](EventReader& r) -> RunDeed {
           return did::ToppedUp{r.vessel(), r.volume()};
         }},
        {"read", [](EventReader& r) -> RunDeed { return r.reading(); }},
        {"discarded", [](EventReader& r) -> RunDeed { return did::Discarded{r.vessel()}; }},
        {"paused", [](EventReader&) -> RunDeed { return did::Paused{}; }},
        {"resumed", [](EventReader&) -> RunDeed { return did::Resumed{}; }},
        {"handed_over",
         [](EventReader& r) -> RunDeed { return did::HandedOver{r.m_reader.text("to").value_or("")}; }},
        {"struck",
         [](EventReader& r) -> RunDeed {
           return did::Struck{static_cast<std::size_t>(r.numberIn("event", 0, mostEvents).value_or(0))};
         }},
        {"finished", [](EventReader&) -> RunDeed { return did::Finished{}; }}};
    return all;
  }
  static std::string names() {
    std::string out;
    for (const auto& [name, reader] : readers())
      out += (out.empty() ? "" : ", ") + name;
    return out;
  }

  std::optional<double> numberIn(std::string_view key, double low, double high) {
    const auto value = m_reader.number(key);
    if (value && !(*value >= low && *value <= high))
      m_reader.fail(ProblemCode::OutsideLimits, key,
                    {decimalText(*value), decimalText(low), decimalText(high), ""});
    return value;
  }
  double needed(std::string_view key) {
    const auto value = m_reader.number(key);
    if (!value) m_reader.fail(ProblemCode::MissingKey, key, {"a number"});
    return value.value_or(0);
  }
  Mass mass() { return Mass::fromGrams(needed("g")); }
  Volume volume() { return Volume::fromLitres(needed("volume_l")); }

  RunDeed reading() {
    did::Read out{vessel(), {}, {}};
    if (const auto ec = numberIn("ec_ms_per_cm", 0, 1000))
      out.conductivity = Conductivity::fromMilliSiemensPerCm(*ec);
    out.ph = numberIn("ph", 0, 14);
    return out;
  }
  std::size_t product(std::string_view key = "product") {
    const auto id = m_reader.text(key).value_or("");
    for (std::size_t i = 0; i < m_plan.shelf.size(); ++i)
      if (m_plan.shelf[i].id == id) return i;
    m_reader.fail(ProblemCode::UnknownProduct, key, {id});
    return 0;
  }
  /// The only one where none is named.
  std::size_t vessel() {
    const auto name = m_reader.text("vessel");
    if (!name && m_plan.vessels.size() == 1) return 0;
    std::string all;
    for (std::size_t i = 0; i < m_plan.vessels.size(); ++i) {
      if (m_plan.vessels[i].name == name.value_or("")) return i;
      all += (all.empty() ? "" : ", ") + m_plan.vessels[i].name;
    }
    m_reader.fail(ProblemCode::UnknownTank, "vessel", {name.value_or(""), all});
    return 0;
  }

  ObjectReader m_reader;
  const RunPlan& m_plan;
};

std::vector<Mass> readWeights(ObjectReader& parent, const std::vector<ShelfProduct>& shelf) {
  std::vector<Mass> out(shelf.size());
  const auto* object = parent.object("weights_g");
  if (!object) return out;
  ObjectReader reader(*object, parent.pathOf("weights_g"), parent.sink());
  for (const auto& [id, value] : object->items()) {
    const auto known =
        std::find_if(shelf.begin(), shelf.end(), [&id = id](const auto& p) { return p.id == id; });
    const auto grams = reader.number(id);
    if (known == shelf.end()) reader.fail(ProblemCode::UnknownProduct, id, {id});
    if (grams && !(*grams >= 0))
      reader.fail(ProblemCode::OutsideLimits, id, {decimalText(*grams), "0", "", "g"});
    if (known != shelf.end())
      out[static_cast<std::size_t>(known - shelf.begin())] = Mass::fromGrams(grams.value_or(0));
  }
  return out;
}

void readVessels(ObjectReader& run, const std::vector<ShelfProduct>& shelf, RunPlan& plan) {
  const auto* list = run.array("vessels");
  if (list && list->size() > mostVessels) run.mostIn("vessels", mostVessels);
  for (std::size_t i = 0; list && i < list->size() && !run.failed(); ++i) {
    ObjectReader reader((*list)[i], item(run.pathOf("vessels"), i), run.sink());
    const auto name = reader.text("name").value_or(std::to_string(i + 1));
    const auto volume = reader.number("volume_l"), factor = reader.number("factor");
    if (!volume || !(*volume > 0))
      reader.fail(ProblemCode::NotAbove, "volume_l", {decimalText(volume.value_or(0)), "0", "L"});
    if (factor && !(*factor >= 1))
      reader.fail(ProblemCode::OutsideLimits, "factor", {decimalText(*factor), "1", "", ""});
    const auto weights = readWeights(reader, shelf);
    reader.finish();
    if (run.failed()) return;
    plan.vessels.push_back(runVessel(name, Volume::fromLitres(*volume), factor.value_or(1), shelf, weights));
  }
}

/// Names an event and puts its keys.
struct Teller {
  const RunPlan& plan;
  Json out = Json::object();

  void did(const char* name) { out["did"] = name; }
  void product(std::size_t p) { out["product"] = plan.shelf[p].id; }
  void vessel(std::size_t v) { out["vessel"] = plan.vessels[v].name; }
  void both(std::size_t p, std::size_t v) { product(p), vessel(v); }

  void operator()(const core::did::Prepared&) { did("prepared"); }
  void operator()(const core::did::Poured& d) {
    did("poured"), vessel(d.vessel);
    out["volume_l"] = d.volume.litres();
  }
  void operator()(const core::did::Weighed& d) {
    did("weighed"), product(d.product);
    out["g"] = d.mass.grams();
    if (!d.lot.empty()) out["lot"] = d.lot;
    if (d.typed) out["typed"] = true;
  }
  void operator()(const core::did::TakenOut& d) {
    did("taken_out"), product(d.product);
    out["g"] = d.mass.grams();
  }
  void operator()(const core::did::Tipped& d) { did("tipped"), both(d.product, d.vessel); }
  void operator()(const core::did::Clear& d) { did("clear"), both(d.product, d.vessel); }
  void operator()(const core::did::Skipped& d) { did("skipped"), both(d.product, d.vessel); }
  void operator()(const core::did::Substituted& d) {
    did("substituted"), both(d.product, d.vessel);
    out["by"] = plan.shelf[d.by].id;
    out["g"] = d.mass.grams();
  }
  void operator()(const core::did::Accepted& d) { did("accepted"), both(d.product, d.vessel); }
  void operator()(const core::did::Rescaled& d) { did("rescaled"), out["ratio"] = d.ratio; }
  void operator()(const core::did::ToppedUp& d) {
    did("topped_up"), vessel(d.vessel);
    out["volume_l"] = d.volume.litres();
  }
  void operator()(const core::did::Read& d) {
    did("read"), vessel(d.vessel);
    if (d.conductivity) out["ec_ms_per_cm"] = d.conductivity->milliSiemensPerCm();
    if (d.ph) out["ph"] = *d.ph;
  }
  void operator()(const core::did::Discarded& d) { did("discarded"), vessel(d.vessel); }
  void operator()(const core::did::Paused&) { did("paused"); }
  void operator()(const core::did::Resumed&) { did("resumed"); }
  void operator()(const core::did::HandedOver& d) { did("handed_over"), out["to"] = d.to; }
  void operator()(const core::did::Struck& d) { did("struck"), out["event"] = d.event; }
  void operator()(const core::did::Finished&) { did("finished"); }
};

} // namespace

Json toJson(const RunEvent& event, const RunPlan& plan) {
  Teller teller{plan};
  std::visit(teller, event.deed);
  teller.out["at_s"] = static_cast<double>(event.atMilliseconds) / millisecondsPerSecond;
  if (!event.by.empty()) teller.out["by"] = event.by;
  return teller.out;
}

Result<RunEvent> runEventFromJson(const Json& json, const std::string& path, const RunPlan& plan) {
  std::optional<Problem> problem;
  auto event = EventReader(json, path, plan, problem).read();
  if (problem) return *problem;
  return event;
}

void readScriptRun(ObjectReader& top, ScriptInput& out) {
  const auto* object = top.object("run");
  if (!object) return;
  const auto& request = out.given.request;
  ScriptRun run;
  run.plan.shelf = request.shelf;
  run.plan.water = request.water;
  ObjectReader reader(*object, "run", top.sink());
  readVessels(reader, request.shelf, run.plan);
  if (run.plan.vessels.empty() && out.weights) {
    std::vector<Mass> weights(request.shelf.size());
    for (std::size_t i = 0; i < weights.size(); ++i)
      if (const auto known = out.weights->find(request.shelf[i].id); known != out.weights->end())
        weights[i] = known->second;
    run.plan.vessels.push_back(runVessel("vessel", request.volume, 1, request.shelf, weights));
  }
  if (run.plan.vessels.empty())
    reader.fail(ProblemCode::MissingKey, "vessels", {"vessels, or weights_g for one of volume_l"});
  const auto* events = reader.array("events");
  if (events && events->size() > mostEvents) reader.mostIn("events", mostEvents);
  for (std::size_t i = 0; events && i < events->size() && !top.failed(); ++i)
    run.events.push_back(EventReader((*events)[i], item("run.events", i), run.plan, top.sink()).read());
  reader.finish();
  out.run = std::move(run);
}

} // namespace butte::exchange
