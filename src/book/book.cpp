#include "book.h"

#include "edit.h"
#include "kinds/kind_info.h"
#include "step_check.h"

#include <map>
#include <tuple>

namespace butte::book {

using core::Deed;
using core::DeedCode;

using core::problemAt;
using core::ProblemCode;

namespace {

constexpr int gatherMilliseconds =
    250; // long enough to bundle a burst of keys, short enough to lose next to nothing
constexpr int retryMilliseconds = 3000;
constexpr int beatMilliseconds = 60000;

/// The disk's fault, not the step's: worth another try.
bool mayPass(ProblemCode code) {
  return code == ProblemCode::BookFull || code == ProblemCode::BookBusy || code == ProblemCode::BadFile ||
         code == ProblemCode::BookNotWritable;
}

Json wrapped(const Record& record) {
  Json out{{"body", record.body}};
  if (record.binnedAt) out["binned_at"] = record.binnedAt->seconds;
  return out;
}

bool samePlaces(const Step& a, const Step& b) {
  return std::equal(a.changes.begin(), a.changes.end(), b.changes.begin(), b.changes.end(),
                    [](const auto& x, const auto& y) { return x.ref == y.ref && x.pointer == y.pointer; });
}

bool merges(const Step& first, const Step& next) {
  return !next.mergeKey.empty() && first.mergeKey == next.mergeKey && samePlaces(first, next);
}

void mergeInto(Step& first, const Step& next) {
  for (std::size_t i = 0; i < next.changes.size(); ++i)
    first.changes[i].after = next.changes[i].after;
  first.deed = next.deed;
  first.at = next.at;
}

std::vector<Ref> refsOf(const Step& step) {
  std::vector<Ref> out;
  for (const auto& change : step.changes) {
    if (std::find(out.begin(), out.end(), change.ref) == out.end()) out.push_back(change.ref);
  }
  return out;
}

} // namespace

Book::Book(std::string place, std::unique_ptr<Store> store, Hold hold)
    : m_place(std::move(place)), m_hold(std::move(hold)), m_store(std::move(store)) {
  m_gather.setSingleShot(true);
  m_gather.setInterval(gatherMilliseconds);
  m_retry.setInterval(retryMilliseconds);
  m_beat.setInterval(beatMilliseconds);
  connect(&m_gather, &QTimer::timeout, this, &Book::flushAloud);
  connect(&m_retry, &QTimer::timeout, this, &Book::flushAloud);
  connect(&m_beat, &QTimer::timeout, this, [this] {
    if (m_hold.mine && !m_hold.mine->beat())
      emit troubled(problemAt(ProblemCode::BookReadOnly, m_place, {"another computer has taken it over"}));
  });
  if (m_hold.mine) m_beat.start();
}

Book::~Book() {
  std::ignore = flush(); // nobody is left to be told
  m_store.reset();       // before the mark goes
}

std::string Book::readOnlyWords() const {
  if (!m_hold.other) return {};
  if (m_hold.other->host.empty()) return "its file or folder is write-protected";
  return m_hold.other->user + " on " + m_hold.other->host + " has it open since " +
         m_hold.other->since.iso().substr(0, 16);
}

std::string Book::farm() {
  const auto name = m_store->meta("farm");
  return name && *name ? **name : std::string("Farm book");
}

bool Book::isSample() {
  const auto sample = m_store->meta("sample");
  return sample && *sample && **sample == "yes";
}

Store& Book::store() {
  flushAloud();
  return *m_store;
}

core::Result<std::optional<Record>> Book::record(const Ref& ref) {
  flushAloud();
  return m_store->read(ref);
}

Trouble Book::refusal() const {
  if (!isReadOnly()) return std::nullopt;
  return problemAt(ProblemCode::BookReadOnly, m_place, {readOnlyWords()});
}

Trouble Book::apply(Step step, Checked checked) {
  if (auto refused = refusal()) return refused;
  flushAloud();
  step.at = Moment::now();
  step.who = m_who;
  const auto refs = refsOf(step);
  m_queue.push_back({std::move(step), checked, {}});
  m_open.reset();
  const auto trouble = flush();
  if (trouble && !mayPass(trouble->code)) return trouble;
  emit changed(refs);
  return std::nullopt;
}

Trouble Book::applyGathering(Step step, Checked checked) {
  if (step.mergeKey.empty()) return apply(std::move(step), checked);
  if (auto refused = refusal()) return refused;
  step.at = Moment::now();
  step.who = m_who;
  if (m_queue.empty() || !merges(m_queue.back().step, step)) {
    flushAloud();
    if (m_queue.empty() && m_open && merges(m_open->step, step)) {
      m_queue.push_back(*m_open);
      m_queue.back().stands.clear();
      for (const auto& change : m_open->step.changes)
        m_queue.back().stands.push_back(change.after);
      mergeInto(m_queue.back().step, step);
    } else {
      m_queue.push_back({std::move(step), checked, {}});
    }
    m_open.reset();
  } else {
    mergeInto(m_queue.back().step, step);
  }
  if (checked == Checked::Not) m_queue.back().checked = Checked::Not;
  m_gather.start();
  emit gathering();
  emit changed(refsOf(m_queue.back().step));
  return std::nullopt;
}

void Book::endGathering() {
  flushAloud();
  m_open.reset();
}

/// Writes what waits where no caller hears the answer: what can't be written ever is told to who listens.
void Book::flushAloud() {
  if (const auto trouble = flush(); trouble && !mayPass(trouble->code)) emit troubled(*trouble);
}

Trouble Book::flush() {
  m_gather.stop();
  const bool had = !m_queue.empty();
  while (!m_queue.empty()) {
    auto waiting = m_queue.front();
    if (const auto trouble = writeStep(waiting)) {
      if (mayPass(trouble->code)) {
        m_retry.start();
        emit troubled(*trouble);
      } else {
        m_queue.pop_front();
      }
      return trouble;
    }
    m_queue.pop_front();
    if (!waiting.step.mergeKey.empty()) m_open = waiting;
  }
  m_retry.stop();
  if (had) emit kept();
  return std::nullopt;
}

Trouble Book::beginWriting() {
  if (auto trouble = m_store->begin()) return trouble;
  if (!m_hold.mine || m_hold.mine->holds()) return std::nullopt;
  m_store->rollback();
  return problemAt(ProblemCode::BookReadOnly, m_place, {"another computer has taken it over"});
}

Trouble Book::writeBeside(const std::function<Trouble(Store&)>& work) {
  if (auto refused = refusal()) return refused;
  if (auto trouble = flush()) return trouble;
  if (auto trouble = beginWriting()) return trouble;
  auto trouble = work(*m_store);
  if (!trouble) trouble = m_store->commit();
  if (trouble) m_store->rollback();
  return trouble;
}

Trouble Book::writeStep(Waiting& waiting) {
  auto& step = waiting.step;
  if (auto trouble = beginWriting()) return trouble;
  const auto write = [&]() -> Trouble {
    if (auto trouble = writeChanges(waiting, false)) return trouble;
    if (auto trouble = m_store->dropUndone(m_who)) return trouble;
    if (step.number > 0) return m_store->replaceStep(step);
    const auto number = m_store->addStep(step);
    if (!number) return number.problem();
    step.number = *number;
    return std::nullopt;
  };
  auto trouble = write();
  if (!trouble) trouble = m_store->commit();
  if (trouble) m_store->rollback();
  return trouble;
}

namespace {

/// What stands at a place; null where nothing does.
Json valueAt(const Json& document, const std::string& pointer) {
  const Json::json_pointer place(pointer);
  return document.contains(place) ? document[place] : Json();
}

/// Makes one change of a record, or takes it back. What the file holds must be what the step knew: else
/// somebody else was here, and that is an answer, not something to write over.
Trouble changeRecord(Json& document, const RecordChange& change, const Json& stands, bool back) {
  try {
    if (change.pointer.empty()) {
      if (back)
        document["binned_at"] = Moment::now().seconds; // what once was entered is never wiped out
      else
        document = change.after;
      return std::nullopt;
    }
    if (valueAt(document, change.pointer) != stands)
      return problemAt(ProblemCode::BookConflict, change.ref.uid + change.pointer, {});
    exchange::put(document, {change.pointer, stands, back ? change.before : change.after});
  } catch (const std::exception& error) {
    return problemAt(ProblemCode::BadJson, "step", {error.what()});
  }
  return std::nullopt;
}

} // namespace

Trouble Book::writeChanges(const Waiting& waiting, bool back) {
  const auto& step = waiting.step;
  if (auto trouble = checkStep(step)) return trouble;
  std::map<Ref, Json> touched;
  const auto one = [&](std::size_t i) -> Trouble {
    const auto& change = step.changes[i];
    if (!touched.contains(change.ref)) {
      const auto record = m_store->read(change.ref);
      if (!record) return record.problem();
      touched[change.ref] = *record ? wrapped(**record) : Json();
    }
    const bool partly = !back && i < waiting.stands.size();
    return changeRecord(touched[change.ref], change,
                        partly ? waiting.stands[i]
                        : back ? change.after
                               : change.before,
                        back);
  };
  for (std::size_t i = 0; i < step.changes.size(); ++i) {
    if (auto trouble = one(back ? step.changes.size() - 1 - i : i)) return trouble;
  }
  for (const auto& [ref, document] : touched) {
    if (!document.is_object() || !document.contains("body"))
      return problemAt(ProblemCode::MissingKey, "body", {"the record is not in the book"});
    if (waiting.checked == Checked::Not) {
      if (auto trouble = checkRecord(ref.kind, document["body"])) return trouble;
    }
    std::optional<Moment> binned;
    if (document.contains("binned_at")) binned = Moment{document["binned_at"].get<std::int64_t>()};
    if (auto trouble = m_store->write({ref, document["body"], binned}, step.at)) return trouble;
  }
  return std::nullopt;
}

core::Result<Ref> Book::create(Kind kind, const Json& body, const Deed& deed) {
  auto ref = freshRef(kind);
  if (kind == Kind::Reading) {
    const auto number = store().nextReadingNumber();
    if (!number) return number.problem();
    ref.uid = std::to_string(*number);
  }
  if (auto trouble = apply({0, {}, {}, deed, {}, {{ref, "", Json(), Json{{"body", body}}}}})) return *trouble;
  return ref;
}

Trouble Book::moveToBin(const Ref& ref, const std::string& name) {
  return apply({0,
                {},
                {},
                {DeedCode::IntoBin, {name}},
                {},
                {{ref, "/binned_at", Json(), Json(Moment::now().seconds)}}});
}

Trouble Book::takeFromBin(const Ref& ref, const std::string& name) {
  const auto found = record(ref);
  if (!found) return found.problem();
  if (!*found || !(*found)->binnedAt) return std::nullopt;
  return apply({0,
                {},
                {},
                {DeedCode::OutOfBin, {name}},
                {},
                {{ref, "/binned_at", Json((*found)->binnedAt->seconds), Json()}}});
}

Trouble Book::replaceBody(const Ref& ref, const Json& body, const Deed& deed) {
  const auto found = record(ref);
  if (!found) return found.problem();
  if (!*found) return problemAt(ProblemCode::MissingKey, "body", {"the record is not in the book"});
  if ((*found)->body == body) return std::nullopt;
  return apply({0, {}, {}, deed, {}, {{ref, "/body", (*found)->body, body}}});
}

core::Result<std::optional<Step>> Book::nextStep(bool back, const std::optional<Ref>& of) {
  if (of) return back ? m_store->lastDoneOf(m_who, *of) : m_store->firstUndoneOf(m_who, *of);
  return back ? m_store->lastDone(m_who) : m_store->firstUndone(m_who);
}

std::optional<Deed> Book::undoable(const std::optional<Ref>& of) {
  if (isReadOnly()) return std::nullopt;
  if (of) {
    // What waits is newer than what is kept.
    for (auto it = m_queue.rbegin(); it != m_queue.rend(); ++it) {
      const auto refs = refsOf(it->step);
      if (std::find(refs.begin(), refs.end(), *of) != refs.end()) return it->step.deed;
    }
    const auto step = nextStep(true, of);
    return step && *step ? std::optional((*step)->deed) : std::nullopt;
  }
  if (!m_queue.empty()) return m_queue.back().step.deed;
  const auto deed = m_store->deedOfLastDone(m_who);
  return deed ? *deed : std::nullopt;
}

std::optional<Deed> Book::redoable(const std::optional<Ref>& of) {
  if (isReadOnly() || !m_queue.empty()) return std::nullopt;
  if (of) {
    const auto step = nextStep(false, of);
    return step && *step ? std::optional((*step)->deed) : std::nullopt;
  }
  const auto deed = m_store->deedOfFirstUndone(m_who);
  return deed ? *deed : std::nullopt;
}

std::vector<Ref> Book::touchedBy(bool back) {
  if (isReadOnly() || (!back && !m_queue.empty())) return {};
  if (!m_queue.empty()) return refsOf(m_queue.back().step);
  const auto found = nextStep(back, {});
  return found && *found ? refsOf(**found) : std::vector<Ref>();
}

core::Result<std::optional<Step>> Book::stepOver(bool back, const std::optional<Ref>& of) {
  if (auto refused = refusal()) return *refused;
  if (auto trouble = flush()) return *trouble;
  m_open.reset();
  auto found = nextStep(back, of);
  if (!found || !*found) return found;
  Waiting waiting{**found, Checked::Not, {}};
  auto& step = waiting.step;
  step.at = Moment::now();
  if (auto trouble = beginWriting()) return *trouble;
  auto trouble = writeChanges(waiting, back);
  if (!trouble) trouble = m_store->markUndone(step.number, back);
  if (!trouble) trouble = m_store->commit();
  if (trouble) {
    m_store->rollback();
    return *trouble;
  }
  emit kept();
  emit changed(refsOf(step));
  return std::optional(step);
}

core::Result<int> Book::makeVersion(const Ref& ref, const std::string& why, const std::string& name) {
  if (auto refused = refusal()) return *refused;
  if (auto trouble = flush()) return *trouble;
  const auto record = m_store->read(ref);
  if (!record) return record.problem();
  if (!*record) return problemAt(ProblemCode::MissingKey, "body", {"the record is not in the book"});
  const auto earlier = m_store->versions(ref.uid);
  if (!earlier) return earlier.problem();
  if (name.empty() && !earlier->empty() && earlier->front().body == (*record)->body)
    return earlier->front().number;
  auto changes = earlier->empty() ? std::vector<core::Change>{{core::ChangeCode::FirstVersion, {}}}
                                  : changesBetween(ref.kind, earlier->front().body, (*record)->body);
  const auto number =
      m_store->addVersion({ref.uid, 0, Moment::now(), m_who, why, name, std::move(changes), (*record)->body});
  if (number) emit changed({ref});
  return number;
}

Trouble Book::copyTo(const std::string& path) {
  return store().copyTo(path);
}

} // namespace butte::book
