#pragma once
#include "amount.h"
#include "base/deed.h"
#include "book/batch.h"
#include "book/reading.h"
#include "json_fwd.h"

#include <QString>
#include <QStringList>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace butte::app {

class BookDesk;

/// One record of the book in hand, changed place by place: kept at once, bundled with the keys that follow.
class RecordEdits {
public:
  explicit RecordEdits(BookDesk& desk);
  ~RecordEdits();

  const book::Ref& ref() const { return m_ref; }

protected:
  using Deed = core::Deed;
  using DeedCode = core::DeedCode;

  void takeRecord(const book::Record& record);
  const exchange::Json& body() const { return *m_body; }
  std::string textAt(const std::string& pointer) const;
  exchange::Amount figureAt(const std::string& pointer) const;
  /// One place of the body gets a new value; null takes it away.
  book::Trouble set(const Deed& deed, const std::string& pointer, const exchange::Json& value);

  BookDesk& m_desk;

private:
  book::Ref m_ref;
  std::unique_ptr<exchange::Json> m_body;
};

/// A batch as it was mixed: what the scale showed, lots, readings, notes.
class BatchEdits : public RecordEdits {
public:
  using RecordEdits::RecordEdits;

  /// False when it is not in the book or does not read.
  bool load(const std::string& uid);
  const book::Batch& batch() const { return m_batch; }

  book::Trouble setActual(std::size_t line, const exchange::Amount& weight);
  book::Trouble setLot(std::size_t line, const QString& lot);
  book::Trouble setConductivityRead(const exchange::Amount& reading);
  book::Trouble setPhRead(const QString& digits);
  book::Trouble setWho(const QString& initials);
  book::Trouble setNote(const QString& text);

private:
  book::Trouble change(const Deed& deed, const std::string& pointer, const exchange::Json& value);
  book::Batch m_batch;
};

/// What is known of a thing beside its figures.
class ThingEdits : public RecordEdits {
public:
  using RecordEdits::RecordEdits;

  /// False when it is the same record with the same facts.
  bool take(const book::Record& record);

  /// "crop", "stage", "season", "from_week", "note".
  std::string fact(const std::string& key) const { return textAt("/" + key); }
  book::Trouble setFact(const std::string& key, const QString& text);
  exchange::Amount bag() const { return figureAt("/bag"); }
  book::Trouble setBag(const exchange::Amount& bag);
  exchange::Amount volume() const { return figureAt("/volume"); }
  book::Trouble setVolume(const exchange::Amount& volume);
  std::vector<std::string> hazards() const;
  book::Trouble setHazards(const std::vector<std::string>& codes);
  std::string colour() const { return textAt("/colour"); }
  book::Trouble setColour(const std::string& colour);
  std::string hatch() const { return textAt("/hatch"); }
  book::Trouble setHatch(const std::string& hatch);

  /// Of a paper's layout: what was answered, a line each.
  QStringList layoutSaid() const;

  std::size_t reportCount() const;
  std::string reportDate(std::size_t report) const;
  std::string laboratory(std::size_t report) const;
  book::Trouble setReportDate(std::size_t report, const QString& isoDate);
  book::Trouble setLaboratory(std::size_t report, const QString& name);

  /// What wears out at a source: every so many months, last changed on.
  struct Upkeep {
    std::string everyMonths, last;
  };
  Upkeep upkeep(const std::string& what) const;
  book::Trouble setUpkeep(const std::string& what, const Upkeep& upkeep);

private:
  book::Trouble setKnown(const std::string& fact, const std::string& shown, const std::string& pointer,
                         const exchange::Json& value);
};

/// A typed figure in the quantity's kept unit. Errors: those of convert(), OutsideLimits by the quantity.
core::Result<double> keptValue(const book::Quantity& quantity, const std::string& digits,
                               const std::string& unit);

/// Keeps what a meter said of the vessel of this name, which is made where there is none yet. `value` in the
/// quantity's own unit.
book::Trouble keepReading(BookDesk& desk, const std::string& vessel, const std::string& quantity,
                          double value, const exchange::Amount& typed);

/// Another figure in the place of one that was misread or mistyped; one step of undo.
book::Trouble correctReading(BookDesk& desk, const book::Reading& reading, double value,
                             const exchange::Amount& typed);
/// One that is none goes into the bin; `name` is what the bin calls it.
book::Trouble binReading(BookDesk& desk, const book::Reading& reading, const std::string& name);

} // namespace butte::app
