#pragma once
#include "book/batch.h"
#include "book/sqlite/database.h"
#include "book/store.h"

namespace butte::book {

/// The book in an SQLite file. Its tables are described in docs/formats/book.md.
class SqliteStore : public Store {
public:
  SqliteStore(std::unique_ptr<Database> database, bool readOnly)
      : m_db(std::move(database)), m_readOnly(readOnly) {}

  bool isReadOnly() const override { return m_readOnly; }
  Trouble begin() override;
  Trouble commit() override;
  void rollback() override;
  core::Result<std::optional<std::string>> meta(const std::string& key) override;
  Trouble setMeta(const std::string& key, const std::string& value) override;
  core::Result<std::optional<Record>> read(const Ref& ref) override;
  Trouble write(const Record& record, Moment at) override;
  core::Result<std::vector<RecordHead>> list(Kind kind, bool binned) override;
  core::Result<std::vector<RecordHead>> bin() override;
  core::Result<std::optional<Step>> lastDone(const std::string& who) override;
  core::Result<std::optional<Step>> firstUndone(const std::string& who) override;
  core::Result<std::optional<Step>> lastDoneOf(const std::string& who, const Ref& ref) override;
  core::Result<std::optional<Step>> firstUndoneOf(const std::string& who, const Ref& ref) override;
  core::Result<std::optional<core::Deed>> deedOfLastDone(const std::string& who) override;
  core::Result<std::optional<core::Deed>> deedOfFirstUndone(const std::string& who) override;
  core::Result<std::int64_t> addStep(const Step& step) override;
  Trouble replaceStep(const Step& step) override;
  Trouble markUndone(std::int64_t step, bool undone) override;
  Trouble dropUndone(const std::string& who) override;
  core::Result<std::vector<Step>> steps(int newest) override;
  core::Result<int> addVersion(const Version& version) override;
  core::Result<std::vector<Version>> versions(const std::string& thingUid) override;
  core::Result<std::optional<Version>> version(const std::string& thingUid, int number) override;
  core::Result<std::vector<BatchHead>> batches(const BatchFilter& filter,
                                               const std::optional<BatchHead>& after, int most) override;
  core::Result<std::int64_t> batchCount(const BatchFilter& filter) override;
  core::Result<std::vector<BatchBucket>> batchBuckets(const BatchFilter& filter,
                                                      std::int64_t widthSeconds) override;
  core::Result<std::vector<std::string>> cropsOfBatches() override;
  Trouble eachUse(const std::function<bool(const BatchUse&)>& visit) override;
  core::Result<std::string> keepSheet(const std::string& html) override;
  core::Result<std::optional<std::string>> sheet(const std::string& sha256) override;
  Trouble addReadings(const std::vector<Reading>& readings) override;
  core::Result<std::vector<Reading>> readings(const std::optional<Reading>& after, int most,
                                              const ReadingFilter& filter = {}) override;
  core::Result<std::vector<ReadingBucket>> readingBuckets(const ReadingFilter& filter,
                                                          std::int64_t widthSeconds) override;
  core::Result<std::vector<Reading>> lastOfEach(const ReadingFilter& filter,
                                                std::int64_t widthSeconds) override;
  core::Result<std::int64_t> nextReadingNumber() override;
  core::Result<bool> hasReading(const Reading& reading) override;
  core::Result<std::vector<Hit>> search(const std::string& words, int mostOfEach) override;
  core::Result<Counts> counts() override;
  Trouble eachRecord(Kind kind, const std::function<bool(const Record&, Moment)>& visit) override;
  Trouble eachVersion(const std::function<bool(const Version&)>& visit) override;
  Trouble eachStep(const std::function<bool(const Step&, bool)>& visit) override;
  Trouble eachReading(const std::function<bool(const Reading&, std::optional<Moment>)>& visit) override;
  Trouble eachSheet(const std::function<bool(const std::string&)>& visit) override;
  Trouble eachMeta(const std::function<bool(const std::string&, const std::string&)>& visit) override;
  Trouble putVersion(const Version& version) override;
  Trouble putStep(const Step& step, bool undone) override;
  Trouble copyTo(const std::string& path) override;
  Trouble checkWhole() override;

private:
  Trouble writeThing(const Record& record, Moment at);
  Trouble writeBatch(const Record& record, Moment at);
  Trouble writeWeights(std::int64_t row, const Batch& batch);
  Trouble writeReading(const Record& record);
  core::Result<std::optional<Record>> readThing(const Ref& ref);
  core::Result<std::optional<Record>> readBatch(const std::string& uid);
  core::Result<std::optional<Record>> readReading(const std::string& uid);
  core::Result<Batch> batchOfRow(const QSqlQuery& row);
  core::Result<std::optional<Step>> oneStep(Sql sql, const std::string& who);
  core::Result<std::optional<Step>> oneStepOf(Sql sql, const std::string& who, const Ref& ref);
  core::Result<std::optional<core::Deed>> oneDeed(Sql sql, const std::string& who);
  core::Problem damaged(const std::string& what) const;

  std::unique_ptr<Database> m_db;
  bool m_readOnly;
};

/// Text between the two worlds.
inline QString qt(const std::string& text) {
  return text.empty() ? QString("") : QString::fromStdString(text); // a null QString would be bound as NULL
}
inline std::string plain(const QVariant& value) {
  return value.toString().toStdString();
}
/// In place: g++ 12 takes a Record that is moved into an optional for uninitialised.
inline void fill(std::optional<Record>& out, const Ref& ref, Json body, std::optional<Moment> binnedAt) {
  auto& record = out.emplace();
  record.ref = ref;
  record.body = std::move(body);
  record.binnedAt = binnedAt;
}
QVariant orNull(const std::optional<Moment>& moment);
QVariant orNull(const std::optional<double>& value);
std::optional<Moment> momentOf(const QVariant& value);
std::optional<double> numberOf(const QVariant& value);

} // namespace butte::book
