#include "edits/chore_edits.h"

#include "document/book_desk.h"
#include "document/local_day.h"
#include "ics_file.h"
#include "wording/record_words.h"

#include <set>

namespace butte::app {

using book::Kind;
using book::Trouble;
using core::Day;
using core::DeedCode;

namespace {
core::Problem closed() {
  return core::problemAt(core::ProblemCode::BadFile, "book", {"no book is open"});
}

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
  if (!m_desk.isOpen()) return closed();
  const auto made = m_desk.book().create(Kind::Chore, toJson(chore), {DeedCode::ChoreKept, {chore.name}});
  if (!made) return made.problem();
  return made->uid;
}

Trouble ChoreEdits::strike(const std::string& uid, const QString& name) {
  if (!m_desk.isOpen()) return closed();
  return m_desk.book().moveToBin({Kind::Chore, uid}, name.toStdString());
}

Trouble ChoreEdits::tell(const book::AgendaItem& item, Day due, core::ChoreDid did, const QString& name,
                         Day to, const QString& text) {
  if (!m_desk.isOpen()) return closed();
  book::ChoreLine line;
  line.key = item.chore.key;
  line.due = due;
  line.at = book::Moment::now();
  line.who = m_desk.initials().toStdString();
  line.did = did;
  line.to = to;
  line.text = text.toStdString();
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
    entry.uid = item.chore.key + "@butte";
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
  if (!m_desk.isOpen()) return closed();
  const auto read = ics::readIcs(text, [](std::int64_t seconds) { return localDay({seconds}); });
  if (!read) return read.problem();
  std::set<std::string> known;
  std::ignore = m_desk.book().store().eachRecord(Kind::Chore, [&](const book::Record& record, book::Moment) {
    if (const auto chore = book::choreFromJson(record.body); chore && !record.binnedAt)
      known.insert(chore->icsUid + "@" + book::isoText(chore->starts));
    return true;
  });
  book::Step step;
  BroughtIn out;
  out.passedOver = read->passedOver;
  for (const auto& entry : read->entries) {
    const auto uid = entry.uid.empty() ? entry.summary : entry.uid;
    if (!known.insert(uid + "@" + book::isoText(entry.starts)).second) continue;
    const auto ref = book::freshRef(Kind::Chore);
    book::Chore chore;
    chore.name = entry.summary;
    chore.starts = entry.starts;
    chore.repeat = entry.rule;
    chore.note = entry.description;
    chore.icsUid = uid;
    step.changes.push_back({ref, "", {}, exchange::Json{{"body", toJson(chore)}}});
    for (const auto day : entry.without) {
      book::ChoreLine line;
      line.key = ref.uid;
      line.due = day;
      line.at = book::Moment::now();
      line.did = core::ChoreDid::LeftOut;
      step.changes.push_back(
          {book::freshRef(Kind::ChoreLine), "", {}, exchange::Json{{"body", toJson(line)}}});
    }
    ++out.came;
  }
  if (out.came == 0) return out;
  step.deed = {DeedCode::ChoresBroughtIn, {std::to_string(out.came)}};
  if (const auto trouble = m_desk.book().apply(std::move(step))) return *trouble;
  return out;
}

} // namespace butte::app
