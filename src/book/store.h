#pragma once
#include "base/result.h"
#include "reading.h"
#include "record.h"

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

namespace butte::book {

/// Which batches a list shows. Empty texts and unset values ask for nothing.
struct BatchFilter {
  std::string crop;
  std::string product; ///< part of a product's name
  std::string lot;     ///< part of a lot's mark
  std::string formulaUid;
  std::optional<Moment> from, before;
  std::optional<double> deviationAtLeast; ///< percent off plan, the worst weighing
  bool binned = false;
};

/// One line in a list of batches.
struct BatchHead {
  std::int64_t row = 0;
  std::string uid;
  Moment at;
  std::string formulaName, crop;
  int formulaVersion = 0;
  double litres = 0;
  std::optional<double> deviationPercent;  ///< of the worst weighing; nothing when nothing was weighed yet
  std::optional<double> ecPlanned, ecRead; ///< mS/cm at 25 degC
};

/// So much of a product went into a batch.
struct BatchUse {
  std::string batchUid;
  Moment at;
  std::string productId, productName;
  double grams = 0; ///< as weighed; as planned where the scale was not asked
  std::string lot;  ///< as typed (lot_marks.h)
  double batchLitres = 0;
  std::string crop, formulaUid, formulaName;
};

/// A stretch of time in the picture of batches.
struct BatchBucket {
  std::int64_t index = 0; ///< start = index * width
  std::string crop;
  int count = 0;
  std::optional<double> worstPercent;
};

/// Which readings a list or a picture shows. Empty texts and unset values ask for nothing.
struct ReadingFilter {
  std::string vesselUid, quantity;
  std::optional<Moment> from, before;
  std::optional<bool> doubted = {}; ///< those with a mark, or those without
};

/// Readings of a vessel that fall together in the picture; those that are doubted are left out.
struct ReadingBucket {
  std::string vesselUid;
  std::int64_t index = 0; ///< start = index * width
  int count = 0;
  double least = 0, most = 0, mean = 0; ///< in the quantity's kept unit
};

struct Hit {
  Ref ref;
  std::string name;
  std::string detail;
};

struct Counts {
  std::int64_t things = 0, batches = 0, readings = 0, versions = 0, steps = 0;
};

/// Where a book is kept. SQLite stands behind it now; a server database can later. One thread uses one store.
/// Reads give what was last written; writes outside begin() ... commit() stand for themselves.
class Store {
public:
  virtual ~Store() = default;

  virtual bool isReadOnly() const = 0;
  virtual Trouble begin() = 0;
  virtual Trouble commit() = 0;
  virtual void rollback() = 0;

  virtual core::Result<std::optional<std::string>> meta(const std::string& key) = 0;
  virtual Trouble setMeta(const std::string& key, const std::string& value) = 0;

  virtual core::Result<std::optional<Record>> read(const Ref& ref) = 0;
  /// Brings into being or replaces. `at` is when it was changed.
  virtual Trouble write(const Record& record, Moment at) = 0;
  /// Things (no batches, no readings) by name, or those in the bin.
  virtual core::Result<std::vector<RecordHead>> list(Kind kind, bool binned) = 0;
  virtual core::Result<std::vector<RecordHead>> bin() = 0;

  /// The newest step of this person that is (not) taken back; nothing when there is none. Steps under no name
  /// are everybody's, and who has no name may take back all.
  virtual core::Result<std::optional<Step>> lastDone(const std::string& who) = 0;
  virtual core::Result<std::optional<Step>> firstUndone(const std::string& who) = 0;
  /// The same of the steps that touch one thing, whatever came after elsewhere.
  virtual core::Result<std::optional<Step>> lastDoneOf(const std::string& who, const Ref& ref) = 0;
  virtual core::Result<std::optional<Step>> firstUndoneOf(const std::string& who, const Ref& ref) = 0;
  /// What they were alone, cheaply: a menu asks after every change.
  virtual core::Result<std::optional<core::Deed>> deedOfLastDone(const std::string& who) = 0;
  virtual core::Result<std::optional<core::Deed>> deedOfFirstUndone(const std::string& who) = 0;
  virtual core::Result<std::int64_t> addStep(const Step& step) = 0;
  virtual Trouble replaceStep(const Step& step) = 0;
  virtual Trouble markUndone(std::int64_t step, bool undone) = 0;
  /// What this person took back can't be done again: they went on otherwise.
  virtual Trouble dropUndone(const std::string& who) = 0;
  virtual core::Result<std::vector<Step>> steps(int newest) = 0;

  virtual core::Result<int> addVersion(const Version& version) = 0;                     ///< gives its number
  virtual core::Result<std::vector<Version>> versions(const std::string& thingUid) = 0; ///< newest first
  virtual core::Result<std::optional<Version>> version(const std::string& thingUid, int number) = 0;

  /// Newest first; `after` is the last line of the page before.
  virtual core::Result<std::vector<BatchHead>> batches(const BatchFilter& filter,
                                                       const std::optional<BatchHead>& after, int most) = 0;
  virtual core::Result<std::int64_t> batchCount(const BatchFilter& filter) = 0;
  virtual core::Result<std::vector<BatchBucket>> batchBuckets(const BatchFilter& filter,
                                                              std::int64_t widthSeconds) = 0;
  virtual core::Result<std::vector<std::string>> cropsOfBatches() = 0;

  /// What went into the batches that stand, in the order of time, one product of one tank at a time.
  virtual Trouble eachUse(const std::function<bool(const BatchUse&)>& visit) = 0;

  /// Sheets are kept once each, named by what is in them (SHA-256, hex).
  virtual core::Result<std::string> keepSheet(const std::string& html) = 0;
  virtual core::Result<std::optional<std::string>> sheet(const std::string& sha256) = 0;

  virtual Trouble addReadings(const std::vector<Reading>& readings) = 0;
  /// Newest first; `after` is the last one of the page before.
  virtual core::Result<std::vector<Reading>> readings(const std::optional<Reading>& after, int most,
                                                      const ReadingFilter& filter = {}) = 0;
  /// Of one quantity, vessel by vessel in the order of time.
  virtual core::Result<std::vector<ReadingBucket>> readingBuckets(const ReadingFilter& filter,
                                                                  std::int64_t widthSeconds) = 0;
  /// Of one vessel and quantity, in the order of time: of each stretch of so many seconds the last one that
  /// is not doubted.
  virtual core::Result<std::vector<Reading>> lastOfEach(const ReadingFilter& filter,
                                                        std::int64_t widthSeconds) = 0;
  virtual core::Result<std::int64_t> nextReadingNumber() = 0;
  /// Whether this vessel has a reading of this quantity at this very time.
  virtual core::Result<bool> hasReading(const Reading& reading) = 0;

  virtual core::Result<std::vector<Hit>> search(const std::string& words, int mostOfEach) = 0;
  virtual core::Result<Counts> counts() = 0;

  /// Every record and version in a fixed order, one at a time: for export. A visitor that returns false ends
  /// it.
  virtual Trouble eachRecord(Kind kind,
                             const std::function<bool(const Record&, Moment changedAt)>& visit) = 0;
  virtual Trouble eachVersion(const std::function<bool(const Version&)>& visit) = 0;
  virtual Trouble eachStep(const std::function<bool(const Step&, bool undone)>& visit) = 0;
  virtual Trouble
  eachReading(const std::function<bool(const Reading&, std::optional<Moment> binned)>& visit) = 0;
  virtual Trouble eachSheet(const std::function<bool(const std::string& html)>& visit) = 0;
  virtual Trouble eachMeta(const std::function<bool(const std::string&, const std::string&)>& visit) = 0;
  /// A version or step as it was exported, number included.
  virtual Trouble putVersion(const Version& version) = 0;
  virtual Trouble putStep(const Step& step, bool undone) = 0;

  /// A whole, consistent copy while in use. The target must not exist.
  virtual Trouble copyTo(const std::string& path) = 0;
  /// Reads every page and checks that all fits together.
  virtual Trouble checkWhole() = 0;
};

} // namespace butte::book
