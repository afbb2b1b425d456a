#include "book_json.h"

#include "kinds/kind_info.h"
#include "open_store.h"
#include "step_check.h"

#include <QFile>
#include <set>
#include <sstream>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;
using exchange::ObjectReader;

namespace {

constexpr int formatVersion = bookJsonVersion;
constexpr const char* formatName = bookJsonName;

/// Takes the pieces of the file as they are parsed, so that a book of any size needs little memory.
class Reader {
public:
  Reader(Store& store, ReadBookJson how) : m_store(store), m_how(how) {}

  Trouble read(std::istream& text) {
    Json rest;
    try {
      rest = Json::parse(text, [this](int depth, Json::parse_event_t event, Json& value) {
        return take(depth, event, value);
      });
    } catch (const nlohmann::json::exception& error) {
      if (m_problem) return m_problem;
      std::string what = error.what();
      if (const auto bracket = what.find("] "); bracket != std::string::npos) what.erase(0, bracket + 2);
      return problemAt(ProblemCode::BadJson, "book", {what});
    }
    if (m_problem) return m_problem;
    if (!rest.is_object() || rest.value("format", Json()) != Json(formatName))
      return problemAt(ProblemCode::OutOfRange, "format",
                       {"this file", "a book: \"format\": \"butte-book\""});
    const auto version = rest.value("version", Json());
    if (!version.is_number_integer())
      return problemAt(ProblemCode::MissingKey, "version", {"a whole number"});
    if (version.get<int>() > formatVersion)
      return problemAt(ProblemCode::NewerFormat, "version",
                       {std::to_string(version.get<int>()), std::to_string(formatVersion)});
    return std::nullopt;
  }

private:
  /// False: the piece is done with and need not be kept.
  bool take(int depth, Json::parse_event_t event, Json& value) {
    using Event = Json::parse_event_t;
    if (depth > exchange::mostNesting) m_problem = exchange::tooDeep(m_path.empty() ? "book" : m_path);
    if (m_problem) throw nlohmann::json::other_error::create(500, "stopped", nullptr);
    if (depth == 1 && event == Event::key) {
      m_list = value.get<std::string>();
      m_index = 0;
      static const std::set<std::string> known{"format",  "version",  "meta",  "sheets",
                                               "records", "versions", "steps", "readings"};
      if (!known.contains(m_list) && !m_list.starts_with("x_"))
        m_problem = problemAt(ProblemCode::UnknownKey, m_list,
                              {"format version meta sheets records versions steps readings"});
      return true;
    }
    if (depth == 1 && event == Event::object_end && m_list == "meta") {
      meta(value);
      return false;
    }
    if (depth == 1 && event == Event::value && m_list == "version" && value.is_number_integer())
      m_version = value.get<int>();
    const bool whole = event == Event::object_end || event == Event::array_end || event == Event::value;
    if (depth != 2 || !whole || m_list == "meta" || m_list == "format" || m_list == "version") return true;
    m_path = m_list + "[" + std::to_string(m_index++) + "]";
    if (m_list == "sheets")
      sheet(value);
    else if (m_list == "records")
      record(value);
    else if (m_list == "versions")
      version(value);
    else if (m_list == "steps")
      step(value);
    else if (m_list == "readings")
      reading(value);
    return false;
  }

  void keep(const Trouble& trouble) {
    if (!trouble || m_problem) return;
    m_problem = *trouble;
    if (trouble->where != m_path && trouble->where.find('/') == std::string::npos)
      m_problem->where = m_path + "." + trouble->where;
    else
      m_problem->where = m_path;
  }

  Moment shifted(Moment at) const { return {at.seconds + m_shift}; }

  Moment moment(ObjectReader& reader, const char* key) {
    const auto text = reader.text(key).value_or("");
    const auto at = Moment::fromIso(text);
    if (!at)
      reader.fail(ProblemCode::OutOfRange, key,
                  {"'" + text + "'", "a date and time such as 2026-03-02T07:15:00Z"});
    return shifted(at.value_or(Moment{}));
  }

  void meta(const Json& json) {
    for (const auto& [key, value] : json.items()) {
      m_path = "meta." + key;
      if (!value.is_string())
        return void(m_problem =
                        problemAt(ProblemCode::WrongType, m_path, {"a text", exchange::typeName(value)}));
      if (key == "sample_newest" && m_how.shiftToToday) {
        constexpr std::int64_t day = 86400;
        if (const auto newest = Moment::fromIso(value.get<std::string>()))
          m_shift = (Moment::now().seconds / day - 1 - newest->seconds / day) * day;
        continue;
      }
      keep(m_store.setMeta(key, value.get<std::string>()));
    }
  }

  void sheet(const Json& json) {
    if (!json.is_string())
      return void(m_problem =
                      problemAt(ProblemCode::WrongType, m_path, {"a text", exchange::typeName(json)}));
    const auto kept = m_store.keepSheet(json.get<std::string>());
    if (!kept) keep(kept.problem());
  }

  static std::string knownKinds() {
    std::string out;
    for (const auto kind : allKinds()) {
      if (infoOf(kind).home != Home::Readings) out += (out.empty() ? "" : ", ") + std::string(code(kind));
    }
    return out;
  }

  void record(const Json& json) {
    ObjectReader reader(json, m_path, m_problem);
    const auto kindText = reader.text("kind").value_or("");
    const auto kind = kindFromCode(kindText);
    if (!kind || infoOf(*kind).home == Home::Readings)
      reader.fail(ProblemCode::NotOneOf, "kind", {kindText, knownKinds()});
    Record out;
    out.ref.uid = reader.text("uid").value_or("");
    if (out.ref.uid.empty()) reader.fail(ProblemCode::MissingKey, "uid", {"every record needs one"});
    const auto at = moment(reader, "changed_at");
    if (reader.has("binned_at")) out.binnedAt = moment(reader, "binned_at");
    if (const auto* body = reader.object("body"))
      out.body = *body;
    else
      reader.fail(ProblemCode::MissingKey, "body", {"every record needs one"});
    reader.finish();
    if (m_problem) return;
    out.ref.kind = *kind;
    if (auto trouble = checkRecord(out.ref.kind, out.body)) {
      trouble->where = "body." + trouble->where;
      return keep(trouble);
    }
    for (const auto* key : infoOf(out.ref.kind).moments)
      if (key && m_shift != 0 && out.body.contains(key))
        out.body[key] = shifted(*Moment::fromIso(out.body[key].get<std::string>())).iso();
    for (const auto* key : infoOf(out.ref.kind).days)
      if (key && m_shift != 0 && out.body.contains(key))
        out.body[key] = shifted(*Moment::fromIso(out.body[key].get<std::string>())).iso().substr(0, 10);
    keep(m_store.write(out, at));
  }

  void version(const Json& json) {
    ObjectReader reader(json, m_path, m_problem);
    Version v;
    v.thingUid = reader.text("thing").value_or("");
    v.number = static_cast<int>(reader.number("number").value_or(0));
    v.at = moment(reader, "at");
    v.who = reader.text("who").value_or("");
    v.why = reader.text("why").value_or("");
    v.name = reader.text("name").value_or("");
    const auto words = reader.text("words").value_or(""); // in files of versions before
    v.changes = core::changesFromLines(reader.text("changes").value_or(words));
    if (const auto* body = reader.object("body")) v.body = *body;
    reader.finish();
    if (!m_problem) keep(m_store.putVersion(v));
  }

  /// What was done, as a key with its values, or as a sentence (`words` in files of versions before).
  static core::Deed deed(ObjectReader& reader) {
    const auto words = reader.text("words").value_or("");
    const auto* did = reader.any("did");
    if (!did || did->is_string()) return {core::DeedCode::Told, {did ? did->get<std::string>() : words}};
    core::Deed out;
    const bool texts =
        did->is_array() && !did->empty() &&
        std::all_of(did->begin(), did->end(), [](const Json& value) { return value.is_string(); });
    const auto code = texts ? core::deedFromKey(did->front().get<std::string>()) : std::nullopt;
    if (!code) {
      reader.fail(ProblemCode::OutOfRange, "did",
                  {did->dump(), "what was done, such as [\"product_on\", \"...\"]"});
      return out;
    }
    out.code = *code;
    for (std::size_t i = 1; i < did->size(); ++i)
      out.values.push_back((*did)[i].get<std::string>());
    return out;
  }

  void step(const Json& json) {
    ObjectReader reader(json, m_path, m_problem);
    Step s;
    s.number = static_cast<std::int64_t>(reader.number("number").value_or(0));
    s.at = moment(reader, "at");
    s.who = reader.text("who").value_or("");
    s.deed = deed(reader);
    s.mergeKey = reader.text("merge_key").value_or("");
    const bool undone = reader.flag("undone").value_or(false);
    const auto* changes = reader.array("changes");
    for (std::size_t i = 0; changes && i < changes->size() && !m_problem; ++i) {
      ObjectReader row((*changes)[i], m_path + ".changes[" + std::to_string(i) + "]", m_problem);
      const auto kind = kindFromCode(row.text("kind").value_or(""));
      if (!kind) row.fail(ProblemCode::NotOneOf, "kind", {"", knownKinds()});
      RecordChange change{{kind.value_or(Kind::Formula), row.text("uid").value_or("")},
                          row.text("pointer").value_or(""),
                          {},
                          {}};
      if (const auto* before = row.any("before")) change.before = *before;
      if (const auto* after = row.any("after")) change.after = *after;
      if (kind == Kind::Reading) nameVessel(change.after, s.at);
      row.finish();
      s.changes.push_back(std::move(change));
    }
    reader.finish();
    if (m_problem) return;
    if (auto trouble = checkStep(s)) {
      trouble->where = m_path + "." + trouble->where;
      m_problem = trouble;
      return;
    }
    keep(m_store.putStep(s, undone));
  }

  /// A reading of an earlier version names its tank: that becomes a vessel.
  std::string vesselOf(const std::string& tank, Moment firstSeen) {
    const auto uid = vesselUidOf(tank);
    if (m_vessels.insert(uid).second)
      keep(m_store.write({{Kind::Vessel, uid}, Json{{"name", tank}}, {}}, firstSeen));
    return uid;
  }

  void nameVessel(Json& after, Moment at) {
    if (!after.is_object() || !after.contains("body") || !after["body"].contains("tank")) return;
    auto& body = after["body"];
    if (body["tank"].is_string()) body["vessel"] = vesselOf(body["tank"].get<std::string>(), at);
    body.erase("tank");
  }

  void reading(const Json& json) {
    constexpr std::size_t fields = 8;
    const bool marked = json.is_array() && json.size() == fields + 1 && json[fields].is_string() &&
                        isReadingMark(json[fields].get<std::string>());
    const bool right = json.is_array() && (json.size() == fields || marked) && json[0].is_number_integer() &&
                       json[1].is_string() && json[2].is_string() && json[3].is_string() &&
                       json[4].is_number() && json[5].is_string() && json[6].is_string();
    const auto at = right ? Moment::fromIso(json[3].get<std::string>()) : std::nullopt;
    if (!at)
      return void(m_problem = problemAt(ProblemCode::WrongType, m_path,
                                        {"[number, vessel, quantity, time, value, typed, import, binned] and "
                                         "a mark where one is doubted",
                                         exchange::typeName(json)}));
    const auto vessel = json[1].get<std::string>();
    Reading r{json[0].get<std::int64_t>(),
              m_version < 2 ? vesselOf(vessel, shifted(*at)) : vessel,
              json[2].get<std::string>(),
              shifted(*at),
              json[4].get<double>(),
              json[5].get<std::string>(),
              json[6].get<std::string>(),
              {},
              marked ? json[fields].get<std::string>() : std::string()};
    if (json[7].is_null()) return keep(m_store.addReadings({r}));
    const auto binned = json[7].is_string() ? Moment::fromIso(json[7].get<std::string>()) : std::nullopt;
    keep(
        m_store.write({{Kind::Reading, std::to_string(r.number)}, toJson(r), binned.value_or(Moment{})}, {}));
  }

  Store& m_store;
  ReadBookJson m_how;
  std::int64_t m_shift = 0;
  int m_version = formatVersion;   ///< of the file; it stands before the lists
  std::set<std::string> m_vessels; ///< made from the tanks of an earlier version
  std::string m_list, m_path;
  std::size_t m_index = 0;
  Trouble m_problem;
};

} // namespace

Trouble readBookJson(std::istream& text, const std::string& path, ReadBookJson how) {
  auto made = createStore(path);
  if (!made) return made.problem();
  auto store = std::move(made).value();
  auto trouble = store->begin();
  if (!trouble) trouble = Reader(*store, how).read(text);
  if (!trouble) trouble = store->commit();
  if (!trouble) return std::nullopt;
  store->rollback();
  store.reset();
  for (const auto* ending : {"", "-wal", "-shm"})
    QFile::remove(QString::fromStdString(path) + ending);
  return trouble;
}

Trouble readBookJson(const std::string& text, const std::string& path, ReadBookJson how) {
  std::istringstream stream(text);
  return readBookJson(stream, path, how);
}

} // namespace butte::book
