#pragma once
#include "base/result.h"
#include "owner.h"
#include "store.h"

#include <QObject>
#include <QTimer>
#include <deque>
#include <memory>

namespace butte::book {

/// Whether the caller has read what a step leaves strictly already: once for an edit is enough.
enum class Checked { Not, ByCaller };

/// One farm's book: everything kept, every step undoable, also after closing and opening again.
///
/// A finished edit is one transaction. While a hand is still typing in a field its edits gather for a moment
/// and are kept together; kept() tells when they are safe. When the disk refuses, what was typed waits and is
/// tried again; nothing is thrown away.
class Book : public QObject {
  Q_OBJECT

public:
  /// Who may write in it: we, with the mark that says so, or somebody else, and we only look at it.
  struct Hold {
    std::unique_ptr<Ownership> mine;
    std::optional<Owner> other;
  };
  /// A store that is open; open_book.h finds and opens one. `place` is what messages call it: a file's path.
  Book(std::string place, std::unique_ptr<Store> store, Hold hold);
  ~Book() override;

  const std::string& place() const { return m_place; }
  bool isReadOnly() const { return m_store->isReadOnly(); }
  /// Who writes in this book while we only look at it.
  const std::optional<Owner>& heldBy() const { return m_hold.other; }
  /// A problem when nothing can be written.
  Trouble refusal() const;
  /// Why nothing can be written, in words; empty when it can.
  std::string readOnlyWords() const;
  std::string farm();
  /// Made-up data to look at and to play with.
  bool isSample();
  void setWho(const std::string& initials) { m_who = initials; }
  const std::string& who() const { return m_who; }

  /// For lists and searches. What is still gathering is kept first.
  Store& store();
  core::Result<std::optional<Record>> record(const Ref& ref);

  /// Keeps a step at once. A step that would leave a record broken is refused and changes nothing.
  Trouble apply(Step step, Checked checked = Checked::Not);
  /// Keeps it a moment later, together with those that follow under the same merge key: one step of undo.
  Trouble applyGathering(Step step, Checked checked = Checked::Not);
  /// The next edit is a new step of undo even under the same key.
  void endGathering();
  /// Keeps now what is gathering. Trouble when it can't be kept; it then waits.
  Trouble flush();
  bool isWaiting() const { return !m_queue.empty(); }

  /// Writes into the store beside the steps of undo, in one transaction: for what comes by itself, readings
  /// of loggers. Nothing is written where `work` gives a problem. Tells of no change.
  Trouble writeBeside(const std::function<Trouble(Store&)>& work);

  core::Result<Ref> create(Kind kind, const Json& body, const core::Deed& deed);
  Trouble moveToBin(const Ref& ref, const std::string& name);
  Trouble takeFromBin(const Ref& ref, const std::string& name);
  Trouble replaceBody(const Ref& ref, const Json& body, const core::Deed& deed);

  /// What would be taken back, or done again; nothing where there is none. Steps of others stay: a person
  /// takes back their own (and those that nobody put a name to). What others built on is a BookConflict.
  /// With `of`: of the steps that touch that thing, whatever was done elsewhere since.
  std::optional<core::Deed> undoable(const std::optional<Ref>& of = {});
  std::optional<core::Deed> redoable(const std::optional<Ref>& of = {});
  /// The things that the next undo (or redo) changes.
  std::vector<Ref> touchedBy(bool back);
  /// The step that was taken back or done again; nothing when there was none.
  core::Result<std::optional<Step>> undo(const std::optional<Ref>& of = {}) { return stepOver(true, of); }
  core::Result<std::optional<Step>> redo(const std::optional<Ref>& of = {}) { return stepOver(false, of); }

  /// Keeps the thing as it stands as a version. When the newest version is the same and no name is given,
  /// that one stands. Gives the version's number.
  core::Result<int> makeVersion(const Ref& ref, const std::string& why, const std::string& name = {});

  /// A whole copy while in use.
  Trouble copyTo(const std::string& path);

signals:
  void changed(const std::vector<butte::book::Ref>& refs);
  void kept();
  void gathering();
  void troubled(const core::Problem& problem);
  void copyNotMade(const core::Problem& problem); ///< the daily one; the book itself is well

private:
  /// A step on its way into the file.
  struct Waiting {
    Step step;
    Checked checked = Checked::Not;
    /// What stands in the file where the step changes it, where that is no longer `before`: an earlier part
    /// of the same step has been kept.
    std::vector<Json> stands;
  };
  void flushAloud();
  /// A transaction, once it is sure that the book is still this program's to write in.
  Trouble beginWriting();
  Trouble writeStep(Waiting& waiting);
  Trouble writeChanges(const Waiting& waiting, bool back);
  core::Result<std::optional<Step>> stepOver(bool back, const std::optional<Ref>& of);
  core::Result<std::optional<Step>> nextStep(bool back, const std::optional<Ref>& of);

  std::string m_place, m_who;
  Hold m_hold;
  std::unique_ptr<Store> m_store;
  std::deque<Waiting> m_queue;
  std::optional<Waiting> m_open; ///< the newest kept step, while later edits may still merge into it
  QTimer m_gather, m_retry, m_beat;
};

} // namespace butte::book
