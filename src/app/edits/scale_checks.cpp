#include "edits/scale_checks.h"

#include "document/book_desk.h"

#include <algorithm>

namespace butte::app {

using book::Kind;

book::Trouble ScaleChecks::keep(const book::ScaleCheck& check) {
  if (!m_desk.isOpen()) return core::problemAt(core::ProblemCode::BadFile, "book", {"no book is open"});
  auto stated = check;
  stated.who = m_desk.initials().toStdString();
  const auto ref =
      m_desk.book().create(Kind::ScaleCheck, toJson(stated), {core::DeedCode::ScaleChecked, {stated.scale}});
  return ref ? m_desk.book().flush() : book::Trouble(ref.problem());
}

std::vector<book::ScaleCheck> ScaleChecks::of(const std::string& scale) const {
  std::vector<book::ScaleCheck> out;
  if (!m_desk.isOpen()) return out;
  const auto trouble =
      m_desk.book().store().eachRecord(Kind::ScaleCheck, [&](const book::Record& record, book::Moment) {
        auto check = book::scaleCheckFromJson(record.body);
        if (!record.binnedAt && check && check->scale == scale) out.push_back(std::move(check).value());
        return true;
      });
  if (trouble) return {};
  std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.at > b.at; });
  return out;
}

std::optional<book::ScaleCheck> ScaleChecks::lastOf(const std::string& scale) const {
  const auto all = of(scale);
  return all.empty() ? std::nullopt : std::optional(all.front());
}

} // namespace butte::app
