#pragma once
#include "book/batch.h"
#include "book/bench_run.h"
#include "formula_document.h"
#include "run/run_order.h"
#include "run/run_state.h"

#include <QString>
#include <memory>
#include <optional>

namespace butte::app {

class BookDesk;
class FormulaEditor;

/// What a run at the bench is for.
enum class RunSort : int {
  Batch,   ///< vessels that are filled now
  Bags,    ///< weighed for later
  Practice ///< a bench that is none: nothing of it becomes a batch
};

/// A run at the bench: begun from the formula in hand, told event by event, each in the book before it counts
/// here; gone on with after whatever came between.
class BenchEdits {
public:
  explicit BenchEdits(BookDesk& desk) : m_desk(desk) {}

  /// Whether the formula as it stands has something that can be weighed here: tanks with salts, or one vessel
  /// that lacks some.
  static bool canBegin(const FormulaEditor& editor);
  book::Trouble begin(const FormulaEditor& editor);
  /// So many bags of each salt can be asked for.
  static std::size_t mostBags(const FormulaEditor& editor);
  book::Trouble beginBags(const FormulaEditor& editor, std::size_t count);
  /// Salts for a vessel that is kept (weightsFor()).
  book::Trouble beginWeights(const FormulaEditor& editor, const std::string& vessel, core::Volume holds,
                             const std::vector<core::Mass>& grams, const book::ForTank& forTank);
  book::Trouble beginPractice(const FormulaEditor& editor, std::uint64_t seed);
  /// The newest run of its sort in the book that is not finished.
  static std::optional<book::Ref> unfinished(BookDesk& desk, RunSort sort);
  book::Trouble goOn(const book::Ref& ref);
  void leave() { m_open = false; }

  bool isOpen() const { return m_open; }
  const book::Ref& ref() const { return m_ref; }
  QString name() const { return QString::fromStdString(m_run.name); }
  RunSort sort() const;
  /// In effect: what came in another's place is in it.
  const core::RunPlan& plan() const { return m_plan; }
  /// As it was begun.
  const core::RunPlan& firstPlan() const { return m_first; }
  /// Of a practice run only.
  const book::Practice& practice() const { return *m_run.practice; }
  const core::RunState& state() const { return m_state; }
  const std::vector<core::RunEvent>& events() const { return m_run.events; }
  /// What the hand is at: the next thing, or what is weighed while that dissolves.
  core::RunNext at() const;
  bool canWeighMeanwhile() const;
  bool isMeanwhile() const { return m_meanwhile && canWeighMeanwhile(); }
  /// Until it is weighed, or the other is clear.
  void weighMeanwhile(bool on) { m_meanwhile = on; }
  QString nameOf(std::size_t product) const;
  /// The version of the formula that is made.
  const exchange::FormulaDocument& document() const { return *m_document; }

  /// Refused where it can't follow; in the file when this returns.
  book::Trouble tell(const core::RunDeed& deed) { return tellAll({deed}); }
  /// All of them or none, in one step.
  book::Trouble tellAll(const std::vector<core::RunDeed>& deeds);
  /// What truly happened at a practice bench.
  book::Trouble tellTruth(const core::TrueDeed& deed);
  core::OrderSchool order() const;
  /// Before anything is told.
  book::Trouble setOrder(core::OrderSchool school);
  bool canBeReordered() const { return m_run.events.empty() && sort() != RunSort::Bags; }
  /// The newest event that can be struck.
  std::optional<std::size_t> lastStanding() const;
  /// Whether an event counts: neither struck nor a strike.
  std::vector<bool> standing() const;

  /// The batch with what was really weighed, and its lots. The run then ends.
  core::Result<book::Ref> finish();
  /// Of bags and practice: its end is told, and it stays open to be looked at.
  book::Trouble endWithoutBatch();
  /// The vessel that kept salts were weighed for, by its name; empty where there is none.
  QString tankName() const;
  /// That goes into it with the salts.
  core::Volume tankWater() const;
  /// Its log has them already.
  bool isInTankLog() const;
  /// What was really weighed, and the water that goes with it, into the vessel's log; one step.
  book::Trouble logIntoTank();

private:
  book::Trouble beginWith(const FormulaEditor& editor, const core::RunPlan& plan, book::BenchRun run = {});
  book::Trouble takePlan();
  /// Who it was handed over to, else who sits at this desk.
  std::string whoseHand() const;
  book::Trouble takeState();
  std::string lotsOf(std::size_t product, std::size_t vessel) const;
  void fillWeights(book::Batch& batch) const;

  BookDesk& m_desk;
  bool m_open = false, m_meanwhile = false;
  book::Ref m_ref;
  book::BenchRun m_run;
  std::optional<exchange::FormulaDocument> m_document; ///< the version that is made
  core::RunPlan m_first, m_plan;
  core::RunState m_state;
};

} // namespace butte::app
