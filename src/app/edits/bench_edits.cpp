#include "edits/bench_edits.h"

#include "base/decimal.h"
#include "book/batch_plan.h"
#include "book/lot_marks.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/run_plans.h"
#include "edits/tank_edits.h"
#include "formula_json.h"
#include "run/substitute.h"

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
/// To a tenth of a milligram.
exchange::Amount amountOf(core::Mass mass) {
  constexpr double digits = 1e4;
  return {core::decimalText(std::round(mass.grams() * digits) / digits), "g"};
}
} // namespace

bool BenchEdits::canBegin(const FormulaEditor& editor) {
  return !runPlanOf(editor).vessels.empty();
}

Trouble BenchEdits::begin(const FormulaEditor& editor) {
  return beginWith(editor, runPlanOf(editor));
}

std::size_t BenchEdits::mostBags(const FormulaEditor& editor) {
  std::size_t salts = 0;
  for (const auto& vessel : runPlanOf(editor).vessels)
    salts += vessel.steps.size();
  constexpr std::size_t anHoursWork = 40;
  return std::min(anHoursWork, book::mostVesselsOfRun / std::max<std::size_t>(1, salts));
}

Trouble BenchEdits::beginBags(const FormulaEditor& editor, std::size_t count) {
  return beginWith(editor, bagsOf(editor, count));
}

Trouble BenchEdits::beginWeights(const FormulaEditor& editor, const std::string& vessel, core::Volume holds,
                                 const std::vector<core::Mass>& grams, const book::ForTank& forTank) {
  book::BenchRun run;
  run.forTank = forTank;
  return beginWith(editor, weightsFor(editor, vessel, holds, grams), std::move(run));
}

Trouble BenchEdits::beginPractice(const FormulaEditor& editor, std::uint64_t seed) {
  book::BenchRun run;
  run.practice = book::Practice{seed, {}};
  return beginWith(editor, runPlanOf(editor), std::move(run));
}

Trouble BenchEdits::beginWith(const FormulaEditor& editor, const core::RunPlan& plan, book::BenchRun run) {
  const auto version = m_desk.makeVersion("used");
  if (!version) return version.problem();
  run.name = editor.document().name;
  run.formulaUid = m_desk.inHand().uid;
  run.formulaVersion = *version;
  run.vessels = plan.vessels;
  const auto& direct = editor.document().given.direct;
  if (direct && direct->acid == core::AcidTurn::First)
    run.order = core::orderSchoolKey(core::OrderSchool::AcidFirst);
  for (const auto& product : plan.shelf)
    run.products.push_back(product.id);
  const auto ref = m_desk.book().create(Kind::BenchRun, toJson(run), {DeedCode::RunBegun, {run.name}});
  if (!ref) return ref.problem();
  if (auto trouble = m_desk.book().flush()) return trouble;
  return goOn(*ref);
}

RunSort BenchEdits::sort() const {
  return m_run.practice ? RunSort::Practice : m_run.isOfBags() ? RunSort::Bags : RunSort::Batch;
}

std::optional<book::Ref> BenchEdits::unfinished(BookDesk& desk, RunSort sort) {
  if (!desk.isOpen()) return std::nullopt;
  const auto heads = desk.book().store().list(Kind::BenchRun, false);
  if (!heads) return std::nullopt;
  std::optional<book::RecordHead> newest;
  for (const auto& head : *heads) {
    if (newest && !(newest->changedAt < head.changedAt)) continue;
    const auto record = desk.book().record(head.ref);
    if (!record || !*record) continue;
    const auto run = book::benchRunHead((*record)->body);
    const auto its = run.isPractice ? RunSort::Practice : run.isOfBags ? RunSort::Bags : RunSort::Batch;
    if (!run.isFinished && its == sort) newest = head;
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
  m_first = {{}, answer->waters.water, m_run.vessels};
  for (const auto& id : m_run.products) {
    const auto& shelf = m_document->given.request.shelf;
    const auto known = std::find_if(shelf.begin(), shelf.end(), [&](const auto& p) { return p.id == id; });
    if (known == shelf.end()) return problemAt(ProblemCode::UnknownProduct, "product", {id});
    m_first.shelf.push_back(*known);
  }
  return std::nullopt;
}

Trouble BenchEdits::takeState() {
  m_plan = core::withSubstitutes(m_first, m_run.events);
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

std::string BenchEdits::whoseHand() const {
  const auto stands = standing();
  for (std::size_t i = 0; i < stands.size(); ++i)
    if (stands[i] && std::holds_alternative<core::did::HandedOver>(m_run.events[i].deed)) return m_state.who;
  return m_desk.initials().toStdString();
}

Trouble BenchEdits::tellAll(const std::vector<core::RunDeed>& deeds) {
  auto events = m_run.events;
  std::vector<book::RecordChange> changes;
  for (const auto& deed : deeds) {
    events.push_back({QDateTime::currentMSecsSinceEpoch(), whoseHand(), deed});
    changes.push_back(
        {m_ref, "/body/events/" + std::to_string(events.size() - 1), Json(), toJson(m_run, events.back())});
  }
  auto plan = core::withSubstitutes(m_first, events);
  auto state = core::runState(plan, events);
  if (!state) return state.problem();
  if (auto trouble = m_desk.book().apply({0, {}, {}, {DeedCode::RunTold, {m_run.name}}, {}, changes}))
    return trouble;
  if (auto trouble = m_desk.book().flush()) return trouble;
  m_run.events = std::move(events);
  m_plan = std::move(plan);
  m_state = std::move(state).value();
  if (!canWeighMeanwhile()) m_meanwhile = false;
  return std::nullopt;
}

Trouble BenchEdits::tellTruth(const core::TrueDeed& deed) {
  auto& truth = m_run.practice->truth;
  truth.push_back({QDateTime::currentMSecsSinceEpoch(), m_run.events.size(), deed});
  const auto path = "/body/practice/truth/" + std::to_string(truth.size() - 1);
  auto trouble = m_desk.book().apply({0,
                                      {},
                                      {},
                                      {DeedCode::RunTold, {m_run.name}},
                                      {},
                                      {{m_ref, path, Json(), toJson(m_run, truth.back())}}});
  if (!trouble) trouble = m_desk.book().flush();
  if (trouble) truth.pop_back();
  return trouble;
}

core::OrderSchool BenchEdits::order() const {
  return core::orderSchoolFromKey(m_run.order).value_or(core::OrderSchool::Chemistry);
}

/// The plan is not told yet, so it may still be put in another order.
Trouble BenchEdits::setOrder(core::OrderSchool school) {
  auto run = m_run;
  for (std::size_t v = 0; v < run.vessels.size(); ++v)
    run.vessels[v].steps = core::orderedBy(school, m_first, v);
  run.order = core::orderSchoolKey(school);
  const auto before = [&](const std::string& key) { return m_run.order.empty() ? Json() : Json(key); };
  if (auto trouble = m_desk.book().apply({0,
                                          {},
                                          {},
                                          {DeedCode::RunTold, {m_run.name}},
                                          {},
                                          {{m_ref, "/body/vessels", vesselsToJson(m_run), vesselsToJson(run)},
                                           {m_ref, "/body/order", before(m_run.order), Json(run.order)}}}))
    return trouble;
  if (auto trouble = m_desk.book().flush()) return trouble;
  return goOn(m_ref);
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

std::string BenchEdits::lotsOf(std::size_t product, std::size_t vessel) const {
  std::vector<core::shelved::From> out;
  for (const auto& lot : m_state.lots)
    if (lot.product == product && lot.vessel == vessel && !lot.discarded && !lot.lot.empty())
      out.push_back({lot.lot, lot.mass});
  return book::lotsText(out);
}

/// What is in the vessels: planned lines with what they came to, and a line for what was not planned there,
/// so that no gram is left out.
void BenchEdits::fillWeights(book::Batch& batch) const {
  for (auto& line : batch.weights)
    line.plannedGrams *= m_state.ratio;
  for (std::size_t v = 0; v < m_plan.vessels.size(); ++v)
    for (std::size_t p = 0; p < m_plan.shelf.size(); ++p) {
      const auto in = m_state.vessels[v].of[p].in - m_plan.vessels[v].had.of(p);
      const auto& tank = m_plan.vessels[v].name;
      auto line = std::find_if(batch.weights.begin(), batch.weights.end(), [&](const auto& one) {
        return one.productId == m_plan.shelf[p].id && one.tank == tank;
      });
      if (line == batch.weights.end()) {
        if (in <= core::Mass{}) continue;
        line = batch.weights.insert(line, {m_plan.shelf[p].id, m_plan.shelf[p].name, tank, 0, {}, {}});
      }
      line->actual = amountOf(in);
      line->lot = lotsOf(p, v);
    }
}

Trouble BenchEdits::endWithoutBatch() {
  return m_state.finished ? std::nullopt : tell(core::did::Finished{});
}

QString BenchEdits::tankName() const {
  if (!m_open || !m_run.forTank) return {};
  const auto facts = TankEdits(m_desk).facts(m_run.forTank->vesselUid);
  return facts ? QString::fromStdString(facts->name) : QString();
}

core::Volume BenchEdits::tankWater() const {
  return core::Volume::fromLitres(m_open && m_run.forTank ? m_run.forTank->waterLitres : 0);
}

bool BenchEdits::isInTankLog() const {
  if (!m_open || !m_run.forTank) return false;
  const auto log = TankEdits(m_desk).log(m_run.forTank->vesselUid);
  return log && std::any_of(log->lines.begin(), log->lines.end(),
                            [&](const auto& one) { return one.second.runUid == m_ref.uid; });
}

Trouble BenchEdits::logIntoTank() {
  if (!m_run.forTank || isInTankLog()) return std::nullopt;
  book::TankLine salts;
  salts.did = book::TankDid::Salts;
  salts.vesselUid = m_run.forTank->vesselUid;
  salts.formulaUid = m_run.formulaUid;
  salts.formulaVersion = m_run.formulaVersion;
  salts.runUid = m_ref.uid;
  auto water = salts;
  for (std::size_t p = 0; p < m_plan.shelf.size(); ++p) {
    core::Mass in;
    for (const auto& bag : m_state.vessels)
      in = in + bag.of[p].in;
    if (in > core::Mass{}) salts.weighed.push_back({m_plan.shelf[p].id, amountOf(in)});
  }
  std::vector<book::TankLine> lines;
  if (m_run.forTank->waterLitres > 0) {
    water.did = book::TankDid::Poured;
    water.liquid = book::TankLiquid::Water;
    water.volume = {core::decimalText(m_run.forTank->waterLitres), "L"};
    lines.push_back(water);
  }
  if (!salts.weighed.empty()) lines.push_back(salts);
  return TankEdits(m_desk).tellAll(lines);
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
