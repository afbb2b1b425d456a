#include "edits/bench_edits.h"

#include "base/decimal.h"
#include "book/batch_plan.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "formula_json.h"
#include "stock_words.h"

#include <QDateTime>
#include <algorithm>
#include <cmath>

namespace butte::app {

using book::Kind;
using book::Trouble;
using core::DeedCode;
using core::problemAt;
using core::ProblemCode;
using exchange::Json;

namespace {

std::vector<core::RunVessel> directVessel(const core::DirectMix& mix) {
  core::RunVessel vessel{words::vesselTitle(), mix.vessel, 1, {}};
  for (const auto& step : mix.steps)
    vessel.steps.push_back({step.product, step.mass, {}});
  return {vessel};
}

/// Tanks in the order of the plan, each salt in the order of mixing.
std::vector<core::RunVessel> tanksOf(const std::vector<core::ShelfProduct>& shelf,
                                     const core::StockAnswer& stock) {
  std::vector<core::RunVessel> out;
  for (const auto& tank : stock.tanks) {
    std::vector<core::Mass> weights(shelf.size());
    for (const auto& item : tank.items)
      weights[item.product] = weights[item.product] + item.mass;
    auto name = words::tankTitle(shelf, tank);
    const auto same = std::count_if(out.begin(), out.end(), [&](const auto& v) { return v.name == name; });
    if (same > 0) name += " " + std::to_string(same + 1);
    auto vessel = core::runVessel(name, tank.tank.volume, tank.factor, shelf, weights);
    if (!vessel.steps.empty()) out.push_back(std::move(vessel));
  }
  return out;
}

std::vector<core::RunVessel> vesselsOf(const FormulaEditor& editor) {
  const auto& answer = editor.answer();
  const auto& shelf = editor.document().given.request.shelf;
  if (!answer.direct) return tanksOf(shelf, answer.stock);
  const bool fresh =
      *answer.direct && (*answer.direct)->present <= core::Volume{} && !(*answer.direct)->steps.empty();
  return fresh ? directVessel(**answer.direct) : std::vector<core::RunVessel>();
}

} // namespace

bool BenchEdits::canBegin(const FormulaEditor& editor) {
  return !vesselsOf(editor).empty();
}

Trouble BenchEdits::begin(const FormulaEditor& editor) {
  const auto version = m_desk.makeVersion("used");
  if (!version) return version.problem();
  book::BenchRun run;
  run.name = editor.document().name;
  run.formulaUid = m_desk.inHand().uid;
  run.formulaVersion = *version;
  core::RunPlan plan{editor.document().given.request.shelf, editor.answer().waters.water, vesselsOf(editor)};
  core::fitScales(plan, editor.document().scales);
  run.vessels = plan.vessels;
  for (const auto& product : plan.shelf)
    run.products.push_back(product.id);
  const auto ref = m_desk.book().create(Kind::BenchRun, toJson(run), {DeedCode::RunBegun, {run.name}});
  if (!ref) return ref.problem();
  if (auto trouble = m_desk.book().flush()) return trouble;
  return goOn(*ref);
}

std::optional<book::Ref> BenchEdits::unfinished(BookDesk& desk) {
  if (!desk.isOpen()) return std::nullopt;
  const auto heads = desk.book().store().list(Kind::BenchRun, false);
  if (!heads) return std::nullopt;
  std::optional<book::RecordHead> newest;
  for (const auto& head : *heads) {
    const auto record = desk.book().record(head.ref);
    const bool open = record && *record && !(*record)->body.contains("batch");
    if (open && (!newest || newest->changedAt < head.changedAt)) newest = head;
  }
  return newest ? std::optional(newest->ref) : std::nullopt;
}

Trouble BenchEdits::goOn(const book::Ref& ref) {
  m_open = false;
  const auto record = m_desk.book().record(ref);
  if (!record) return record.problem();
  if (!*record) return problemAt(ProblemCode::BadFile, "run", {"it is no longer in the book"});
  auto run = book::benchRunFromJson((*record)->body);
  if (!run) return run.problem();
  m_run = std::move(run).value();
  m_ref = ref;
  if (auto trouble = takePlan()) return trouble;
  if (auto trouble = takeState()) return trouble;
  m_open = true;
  return std::nullopt;
}

/// What the products are, and the water, stands in the formula's version for good.
Trouble BenchEdits::takePlan() {
  const auto version = m_desk.book().store().version(m_run.formulaUid, m_run.formulaVersion);
  if (!version) return version.problem();
  if (!*version)
    return problemAt(ProblemCode::BadFile, "formula_version", {"the formula's version is not in the book"});
  auto document = exchange::readFormulaDocument((*version)->body);
  if (!document) return document.problem();
  m_document = std::move(document).value();
  const auto answer = core::compute(m_document->given);
  if (!answer) return answer.problem();
  m_plan = {{}, answer->waters.water, m_run.vessels};
  for (const auto& id : m_run.products) {
    const auto& shelf = m_document->given.request.shelf;
    const auto known = std::find_if(shelf.begin(), shelf.end(), [&](const auto& p) { return p.id == id; });
    if (known == shelf.end()) return problemAt(ProblemCode::UnknownProduct, "product", {id});
    m_plan.shelf.push_back(*known);
  }
  return std::nullopt;
}

Trouble BenchEdits::takeState() {
  auto state = core::runState(m_plan, m_run.events);
  if (!state) return state.problem();
  m_state = std::move(state).value();
  return std::nullopt;
}

core::RunNext BenchEdits::at() const {
  const auto ahead = m_meanwhile ? core::weighMeanwhile(m_plan, m_state) : std::nullopt;
  return ahead.value_or(m_state.next);
}

bool BenchEdits::canWeighMeanwhile() const {
  return core::weighMeanwhile(m_plan, m_state).has_value();
}

QString BenchEdits::nameOf(std::size_t product) const {
  return QString::fromStdString(m_plan.shelf[product].name);
}

Trouble BenchEdits::tellAll(const std::vector<core::RunDeed>& deeds) {
  auto events = m_run.events;
  std::vector<book::RecordChange> changes;
  for (const auto& deed : deeds) {
    events.push_back({QDateTime::currentMSecsSinceEpoch(), m_desk.initials().toStdString(), deed});
    changes.push_back(
        {m_ref, "/body/events/" + std::to_string(events.size() - 1), Json(), toJson(m_run, events.back())});
  }
  auto state = core::runState(m_plan, events);
  if (!state) return state.problem();
  if (auto trouble = m_desk.book().apply({0, {}, {}, {DeedCode::RunTold, {m_run.name}}, {}, changes}))
    return trouble;
  if (auto trouble = m_desk.book().flush()) return trouble;
  m_run.events = std::move(events);
  m_state = std::move(state).value();
  if (!canWeighMeanwhile()) m_meanwhile = false;
  return std::nullopt;
}

std::vector<bool> BenchEdits::standing() const {
  std::vector<bool> out(m_run.events.size(), true);
  for (std::size_t i = 0; i < m_run.events.size(); ++i)
    if (const auto* strike = std::get_if<core::did::Struck>(&m_run.events[i].deed))
      out[strike->event] = out[i] = false;
  return out;
}

std::optional<std::size_t> BenchEdits::lastStanding() const {
  const auto stands = standing();
  for (auto i = stands.size(); i > 0; --i)
    if (stands[i - 1]) return i - 1;
  return std::nullopt;
}

std::string BenchEdits::lotsOf(std::size_t product) const {
  std::string out;
  for (const auto& lot : m_state.lots)
    if (lot.product == product && !lot.lot.empty()) out += (out.empty() ? "" : ", ") + lot.lot;
  return out;
}

/// What is in the vessels: planned lines with what they came to, and a line for what was not planned there,
/// so that no gram is left out.
void BenchEdits::fillWeights(book::Batch& batch) const {
  const auto amount = [](core::Mass mass) {
    constexpr double digits = 1e4;
    return exchange::Amount{core::decimalText(std::round(mass.grams() * digits) / digits), "g"};
  };
  for (auto& line : batch.weights)
    line.plannedGrams *= m_state.ratio;
  for (std::size_t v = 0; v < m_plan.vessels.size(); ++v)
    for (std::size_t p = 0; p < m_plan.shelf.size(); ++p) {
      const auto in = m_state.vessels[v].of[p].in;
      const auto& tank = m_plan.vessels[v].name;
      auto line = std::find_if(batch.weights.begin(), batch.weights.end(), [&](const auto& one) {
        return one.productId == m_plan.shelf[p].id && one.tank == tank;
      });
      if (line == batch.weights.end()) {
        if (in <= core::Mass{}) continue;
        line = batch.weights.insert(line, {m_plan.shelf[p].id, m_plan.shelf[p].name, tank, 0, {}, {}});
      }
      line->actual = amount(in);
      line->lot = lotsOf(p);
    }
}

core::Result<book::Ref> BenchEdits::finish() {
  const auto answer = core::compute(m_document->given);
  if (!answer) return answer.problem();
  auto batch = book::plannedBatch(*m_document, *answer);
  batch.at = book::Moment::now();
  batch.formulaUid = m_run.formulaUid;
  batch.formulaVersion = m_run.formulaVersion;
  batch.who = m_state.who;
  batch.litres *= m_state.ratio;
  fillWeights(batch);
  const auto& read = m_state.vessels.back().read;
  if (m_plan.vessels.back().factor == 1 && !read.empty()) {
    if (const auto& ec = read.back().conductivity)
      batch.ecRead = exchange::Amount{core::decimalText(ec->milliSiemensPerCm()), "mS/cm"};
    if (read.back().ph) batch.phRead = core::decimalText(*read.back().ph);
  }
  // One step: a batch without its run's end would be made a second time.
  const auto ref = book::freshRef(Kind::Batch);
  if (auto trouble = m_desk.book().apply(
          {0,
           {},
           {},
           {DeedCode::BatchKept, {batch.formulaName}},
           {},
           {{ref, "", Json(), Json{{"body", toJson(batch)}}}, {m_ref, "/body/batch", Json(), ref.uid}}}))
    return *trouble;
  if (auto trouble = m_desk.book().flush()) return *trouble;
  m_open = false;
  return ref;
}

} // namespace butte::app
