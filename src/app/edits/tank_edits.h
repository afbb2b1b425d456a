#pragma once
#include "amount.h"
#include "book/batch.h"
#include "book/reading.h"
#include "book/tank_line.h"
#include "book/vessel_facts.h"
#include "document/vessel_readings.h"
#include "formula_document.h"

#include <QLocale>
#include <QString>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace butte::app {

class BookDesk;

/// What a hand read of a vessel in one go; what is empty was not read.
struct TypedReadings {
  exchange::Amount ec, ph, level, temperature;
  std::string levelAs;                                          ///< "50 cm", where it was typed by its height
  std::string phBy = "ph";                                      ///< or "ph_drops", "ph_strip"
  std::vector<std::pair<std::string, exchange::Amount>> others; ///< by quantity
};

/// What was done to one vessel as it stands in the book; what was read of it is asked for by itself.
struct VesselLog {
  book::VesselFacts facts;
  std::vector<std::pair<book::Ref, book::TankLine>> lines; ///< standing, in the order of time
};

/// Whether most of a country lies south of the equator: how a new vessel's seasons begin.
bool isSouthern(QLocale::Territory territory);

/// Vessels and their logs in the book.
class TankEdits {
public:
  explicit TankEdits(BookDesk& desk) : m_desk(desk) {}

  /// By name.
  std::vector<book::RecordHead> vessels() const;
  core::Result<book::VesselFacts> facts(const std::string& uid) const;
  core::Result<VesselLog> log(const std::string& uid) const;
  core::Result<VesselReadings> readings(const std::string& uid) const;
  /// What each of these quantities read last.
  std::map<std::string, book::Reading> lastReadings(const std::string& uid) const;

  /// Whether a vessel is called so, however it is capitalised.
  bool isNamed(const QString& name) const;
  /// Gives the new vessel's uid.
  core::Result<std::string> makeVessel(const QString& name);
  /// A fact as it was typed; no digits (or no text) take it away.
  book::Trouble setAmount(const std::string& uid, const std::string& key, const exchange::Amount& amount);
  book::Trouble setText(const std::string& uid, const std::string& key, const QString& text);
  /// What fills it: a formula, its water alone, or a batch of it; one step.
  book::Trouble setFilling(const std::string& uid, const std::string& formulaUid, bool water,
                           const std::string& batchUid = {});
  book::Trouble fillWithBatch(const std::string& uid, const std::string& batchUid);
  book::Trouble setFlag(const std::string& uid, const std::string& key, bool on);
  /// Inner measures, for levels in cm; nothing takes them away.
  book::Trouble setMeasures(const std::string& uid, const std::optional<core::Vessel>& measures);

  /// One step in the book, at this moment, for all that was read. Errors: OutsideLimits by quantity.
  book::Trouble read(const std::string& uid, const TypedReadings& typed);
  /// A line of the log; `at` and `who` are filled in where they are empty. The formula it names gets a
  /// version where it has none given.
  book::Trouble tell(const book::TankLine& line) { return tellAll({line}); }
  /// All of them in one step, or none.
  book::Trouble tellAll(std::vector<book::TankLine> lines);
  /// The log as a table; and one read back: lines that stand there already are left out, those of a formula
  /// that this book does not know come from the vessel's own. Gives how many came in, in one step.
  std::string logTable(const std::string& uid) const;
  core::Result<std::size_t> bringIn(const std::string& uid, const std::string& csv);
  /// Says of a line what the vessel is filled with now: its formula, and the batch where one fills it.
  static void nameFilling(book::TankLine& line, const book::VesselFacts& facts);
  /// Batches that fill the vessel, or filled it by a line of its log, by uid.
  std::map<std::string, book::Batch> batchesOf(const VesselLog& log) const;
  std::optional<book::Batch> batch(const std::string& uid) const;
  /// The newest batches of the book, the newest first.
  std::vector<book::BatchHead> lastBatches(int most) const;
  book::Trouble strike(const book::Ref& line, const QString& what);

  /// A version of a formula, or where the number is 0 the formula as it stands; read once and kept.
  std::shared_ptr<const exchange::FormulaDocument> formula(const std::string& uid, int version) const;
  std::vector<book::RecordHead> formulas() const;

private:
  book::Trouble set(const std::string& uid, const std::string& key, const exchange::Json& value,
                    std::vector<std::string> told);
  core::Result<exchange::Json> bodyOf(const std::string& uid) const;

  BookDesk& m_desk;
  mutable std::map<std::pair<std::string, int>, std::shared_ptr<const exchange::FormulaDocument>> m_formulas;
};

} // namespace butte::app
