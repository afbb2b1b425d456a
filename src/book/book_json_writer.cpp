#include "book_json.h"

#include "kinds/kind_info.h"

#include <QSaveFile>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {

class Writer {
public:
  Writer(Store& store, QSaveFile& file) : m_store(store), m_file(file) {}

  Trouble write() {
    put("{\"format\": \"" + std::string(bookJsonName) +
        "\", \"version\": " + std::to_string(bookJsonVersion));
    Json meta = Json::object();
    auto trouble = m_store.eachMeta([&](const std::string& key, const std::string& value) {
      meta[key] = value;
      return true;
    });
    if (trouble) return trouble;
    put(",\n\"meta\": " + dumped(meta));
    begin("sheets");
    if ((trouble = m_store.eachSheet([&](const std::string& html) { return item(Json(html)); })))
      return trouble;
    end();
    begin("records");
    for (const auto kind : allKinds()) {
      if (infoOf(kind).home == Home::Readings) continue;
      if ((trouble = m_store.eachRecord(
               kind, [&](const Record& record, Moment at) { return item(recordJson(record, at)); })))
        return trouble;
    }
    end();
    begin("versions");
    if ((trouble = m_store.eachVersion([&](const Version& version) { return item(versionJson(version)); })))
      return trouble;
    end();
    begin("steps");
    if ((trouble =
             m_store.eachStep([&](const Step& step, bool undone) { return item(stepJson(step, undone)); })))
      return trouble;
    end();
    begin("readings");
    trouble = m_store.eachReading([&](const Reading& r, std::optional<Moment> binned) {
      auto row = Json::array({r.number, r.vesselUid, r.quantity, r.at.iso(), r.value, r.typed, r.importUid,
                              binned ? Json(binned->iso()) : Json()});
      if (!r.mark.empty()) row.push_back(r.mark);
      return item(row);
    });
    if (trouble) return trouble;
    end();
    put("}\n");
    return std::nullopt;
  }

private:
  static std::string dumped(const Json& json) {
    return json.dump(-1, ' ', false, Json::error_handler_t::replace);
  }
  void put(const std::string& text) { m_file.write(text.data(), static_cast<qint64>(text.size())); }
  void begin(const char* name) {
    put(std::string(",\n\"") + name + "\": [");
    m_first = true;
  }
  bool item(const Json& json) {
    put((m_first ? "\n" : ",\n") + dumped(json));
    m_first = false;
    return m_file.error() == QFileDevice::NoError;
  }
  void end() { put("\n]"); }

  static Json recordJson(const Record& record, Moment at) {
    Json out{{"kind", code(record.ref.kind)}, {"uid", record.ref.uid}, {"changed_at", at.iso()}};
    if (record.binnedAt) out["binned_at"] = record.binnedAt->iso();
    out["body"] = record.body;
    return out;
  }
  static Json versionJson(const Version& v) {
    return {{"thing", v.thingUid},
            {"number", v.number},
            {"at", v.at.iso()},
            {"who", v.who},
            {"why", v.why},
            {"name", v.name},
            {"changes", core::changeLines(v.changes)},
            {"body", v.body}};
  }
  /// ["product_held", "potassium sulfate", "22.7", "kg"]; a text where an older version kept a sentence.
  static Json didJson(const core::Deed& deed) {
    if (deed.code == core::DeedCode::Told) return deed.values.empty() ? std::string() : deed.values.front();
    Json out = Json::array({core::deedKey(deed.code)});
    for (const auto& value : deed.values)
      out.push_back(value);
    return out;
  }
  static Json stepJson(const Step& step, bool undone) {
    Json changes = Json::array();
    for (const auto& c : step.changes)
      changes.push_back({{"kind", code(c.ref.kind)},
                         {"uid", c.ref.uid},
                         {"pointer", c.pointer},
                         {"before", c.before},
                         {"after", c.after}});
    return {{"number", step.number},     {"at", step.at.iso()},        {"who", step.who},
            {"did", didJson(step.deed)}, {"merge_key", step.mergeKey}, {"undone", undone},
            {"changes", changes}};
  }

  Store& m_store;
  QSaveFile& m_file;
  bool m_first = true;
};

} // namespace

Trouble writeBookJson(Store& store, const std::string& path) {
  QSaveFile file(QString::fromStdString(path));
  const auto failed = [&] {
    return problemAt(ProblemCode::CantBeWritten, path, {file.errorString().toStdString()});
  };
  if (!file.open(QIODevice::WriteOnly)) return failed();
  if (auto trouble = Writer(store, file).write()) return trouble;
  if (file.error() != QFileDevice::NoError || !file.commit()) return failed();
  return std::nullopt;
}

} // namespace butte::book
