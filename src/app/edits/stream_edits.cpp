#include "edits/stream_edits.h"

#include "document/book_desk.h"
#include "quantity/unit_names.h"

#include <algorithm>

namespace butte::app {

using book::Kind;
using book::Ref;
using book::Stream;
using book::Trouble;
using core::DeedCode;

std::vector<std::pair<Ref, Stream>> StreamEdits::all() const {
  std::vector<std::pair<Ref, Stream>> out;
  if (!m_desk.isOpen()) return out;
  auto& store = m_desk.book().store();
  const auto heads = store.list(Kind::Stream, false);
  if (!heads) return out;
  for (const auto& head : *heads) {
    const auto record = store.read(head.ref);
    if (!record || !*record) continue;
    if (auto stream = book::streamFromJson((*record)->body))
      out.emplace_back(head.ref, std::move(stream).value());
  }
  return out;
}

core::Result<Ref> StreamEdits::make(const Stream& stream) {
  if (!m_desk.isOpen()) return core::problemAt(core::ProblemCode::BadFile, "book", {"no book is open"});
  return m_desk.book().create(Kind::Stream, toJson(stream), {DeedCode::ThingMade, {stream.name}});
}

Trouble StreamEdits::set(const Ref& ref, const Stream& stream) {
  return m_desk.book().replaceBody(ref, toJson(stream), {DeedCode::LoggerSet, {stream.name}});
}

Trouble StreamEdits::strike(const Ref& ref, const std::string& name) {
  return m_desk.book().moveToBin(ref, name);
}

std::vector<book::StreamDay> StreamEdits::days(const std::string& uid) const {
  if (!m_desk.isOpen()) return {};
  auto found = book::streamDays(m_desk.book().store());
  if (!found) return {};
  auto out = std::move(found).value();
  std::erase_if(out, [&](const book::StreamDay& day) { return day.streamUid != uid; });
  return out;
}

Trouble StreamEdits::strikeDay(const book::StreamDay& day, const QString& words) {
  return m_desk.book().moveToBin(day.ref, words.toStdString());
}

namespace {
bool holds(const QString& text, std::initializer_list<const char*> words) {
  return std::any_of(words.begin(), words.end(),
                     [&](const char* word) { return text.contains(QLatin1String(word)); });
}
} // namespace

std::string quantityMeant(const std::string& key) {
  const auto low = QString::fromStdString(key).toLower();
  const bool ofAir = holds(low, {"air", "luft", "ambient", "room"});
  if (holds(low, {"temp", "celsius", "deg", "warm"})) return ofAir ? "air" : "temperature";
  if (holds(low, {"level", "litre", "liter", "volume", "depth", "height", "stand", "niveau"})) return "level";
  if (holds(low, {"ec", "cond", "leit", "salin", "us/cm"})) return "ec";
  if (holds(low, {"ph"})) return "ph";
  return {};
}

std::string unitMeant(const std::string& quantity, const std::string& said) {
  const auto units = book::sentUnits(quantity);
  // As it stands, as papers write it, and as a meter that leaves out its "/cm".
  for (const auto& unit : {said, reading::unitNamed(said), reading::unitNamed(said + "/cm")})
    if (std::find(units.begin(), units.end(), unit) != units.end()) return unit;
  return units.empty() ? std::string() : units.front();
}

} // namespace butte::app
