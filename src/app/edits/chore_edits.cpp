#include "edits/chore_edits.h"

#include "document/book_desk.h"
#include "document/local_day.h"
#include "ics_file.h"
#include "wording/record_words.h"

#include <map>
#include <set>

namespace butte::app {

using book::Kind;
using book::Trouble;
using core::Day;
using core::DeedCode;

namespace {
constexpr auto ownEnding = "@butte";

/// What of a calendar stands in the book already: what came before, and what the book itself wrote out.
class Known {
public:
  explicit Known(book::Store& store) {
    std::ignore = store.eachRecord(Kind::Chore, [&](const book::Record& record, book::Moment) {
      m_own.insert(record.ref.uid + ownEnding);
      if (const auto chore = book::choreFromJson(record.body); chore && !record.binnedAt)
        m_came.insert({chore->icsUid, chore->starts});
      return true;
    });
  }
  bool isNew(const std::string& uid, Day starts) {
    // What the book finds due has a colon in its key: it finds that again by itself.
    const bool isFound = uid.ends_with(ownEnding) && uid.find(':') != std::string::npos;
    return !isFound && !m_own.count(uid) && m_came.insert({uid, starts}).second;
  }
  bool hasCome(const std::string& uid) const {
    const auto first = m_came.lower_bound({uid, Day::min()});
    return m_own.count(uid) || (first != m_came.end() && first->first == uid);
  }

private:
  std::set<std::string> m_own;
  std::set<std::pair<std::string, Day>> m_came;
};

DeedCode deedOf(core::ChoreDid did) {
  switch (did) {
  case core::ChoreDid::LeftOut:
    return DeedCode::ChoreLeftOut;
  case core::ChoreDid::Moved:
    return DeedCode::ChoreMoved;
  case core::ChoreDid::Done:
    break;
  }
  return DeedCode::ChoreDone;
}
} // namespace

core::Result<std::string> ChoreEdits::keep(const book::Chore& chore) {
  if (!m_desk.isOpen()) return noBookOpen();
  const auto made = m_desk.book().create(Kind::Chore, toJson(chore), {DeedCode::ChoreKept, {chore.name}});
  if (!made) return made.problem();
  return made->uid;
}

Trouble ChoreEdits::strike(const std::string& uid, const QString& name) {
  if (!m_desk.isOpen()) return noBookOpen();
  return m_desk.book().moveToBin({Kind::Chore, uid}, name.toStdString());
}

Trouble ChoreEdits::tell(const book::AgendaItem& item, Day due, core::ChoreDid did, const QString& name,
                         Day to) {
  if (!m_desk.isOpen()) return noBookOpen();
  book::ChoreLine line;
  line.key = item.chore.key;
  line.due = due;
  line.at = book::Moment::now();
  line.who = m_desk.initials().toStdString();
  line.did = did;
  line.to = to;
  std::vector<std::string> told{name.toStdString()};
  if (did == core::ChoreDid::Moved) told.push_back(book::isoText(to));
  const auto made = m_desk.book().create(Kind::ChoreLine, toJson(line), {deedOf(did), told});
  return made ? Trouble() : Trouble(made.problem());
}

std::string ChoreEdits::calendar(const book::AgendaBook& agenda, const std::vector<QString>& names) const {
  std::vector<ics::Entry> out;
  for (std::size_t i = 0; i < agenda.items.size(); ++i) {
    const auto& item = agenda.items[i];
    ics::Entry entry;
    entry.uid = item.chore.key + ownEnding;
    entry.summary = names[i].toStdString();
    entry.description = item.note;
    if (!item.chore.rule.empty()) {
      entry.starts = item.chore.starts;
      entry.rule = item.chore.rule;
      for (const auto& line : agenda.told)
        if (line.key == item.chore.key && line.did == core::ChoreDid::LeftOut)
          entry.without.push_back(line.due);
      out.push_back(entry);
      entry.rule.clear();
      entry.without.clear();
    }
    for (const auto& due : agenda.due) {
      if (due.chore != i || (!item.chore.rule.empty() && due.on == due.due)) continue;
      entry.starts = due.on;
      if (!item.chore.rule.empty()) entry.instead = due.due;
      out.push_back(entry);
    }
  }
  return ics::icsText(out, book::Moment::now().seconds);
}

core::Result<ChoreEdits::BroughtIn> ChoreEdits::bringIn(const std::string& text) {
  if (!m_desk.isOpen()) return noBookOpen();
  const auto read = ics::readIcs(text, [](std::int64_t seconds) { return localDay({seconds}); });
  if (!read) return read.problem();
  Known known(m_desk.book().store());
  std::map<std::string, std::string> came; // repeated chores of this file by the calendar's uid
  book::Step step;
  BroughtIn out;
  out.passedOver = read->passedOver;
  const auto add = [&](Kind kind, const exchange::Json& body) {
    const auto ref = book::freshRef(kind);
    step.changes.push_back({ref, "", {}, exchange::Json{{"body", body}}});
    return ref.uid;
  };
  const auto tellOf = [&](const std::string& chore, Day due, core::ChoreDid did, Day to = {}) {
    book::ChoreLine line;
    line.key = chore;
    line.due = due;
    line.at = book::Moment::now();
    line.did = did;
    line.to = to;
    add(Kind::ChoreLine, toJson(line));
  };
  for (const auto& entry : read->entries) {
    // One day of a repeated chore that stands elsewhere than its rule says.
    if (const auto master = came.find(entry.uid); entry.instead && master != came.end()) {
      tellOf(master->second, *entry.instead, core::ChoreDid::Moved, entry.starts);
      continue;
    }
    if (entry.instead && known.hasCome(entry.uid)) continue; // with its rule, an earlier time
    const auto uid = entry.uid.empty() ? entry.summary : entry.uid;
    if (!known.isNew(uid, entry.starts)) continue;
    const auto chore =
        add(Kind::Chore,
            toJson(book::Chore{entry.summary, entry.starts, entry.rule, {}, entry.description, uid}));
    if (!entry.rule.empty()) came[entry.uid] = chore;
    for (const auto day : entry.without)
      tellOf(chore, day, core::ChoreDid::LeftOut);
    ++out.came;
  }
  if (out.came == 0) return out;
  step.deed = {DeedCode::ChoresBroughtIn, {std::to_string(out.came)}};
  if (const auto trouble = m_desk.book().apply(std::move(step))) return *trouble;
  return out;
}

} // namespace butte::app
