#pragma once
#include "document/background.h"
#include "document/edit_log.h"
#include "document/overlay.h"
#include "formula_document.h"

#include <QObject>
#include <QString>
#include <memory>

namespace butte::app {

/// The formula in hand: what is given, what follows from it, and the way back.
///
/// Every edit goes through here as a value with its inverse; the answer is computed from scratch after each
/// one, so nothing shown is ever stale. An edit that the strict reader refuses changes nothing.
class FormulaEditor : public QObject {
  Q_OBJECT

public:
  explicit FormulaEditor(QObject* parent = nullptr);

  const exchange::Json& json() const { return m_json; }
  const exchange::FormulaDocument& document() const { return m_document; }
  const core::Answer& answer() const { return m_answer; }
  /// A search for few products is under way: the answer shown is the one before.
  bool isSearching() const { return m_searching; }

  /// What is laid over the formula to compare; nothing for none.
  const std::optional<Overlay>& overlay() const { return m_overlay; }
  void setOverlay(std::optional<Overlay> overlay);

  /// A formula that is in no book; undo starts anew. The text must have passed parseFormulaText().
  void load(const exchange::Json& json);
  /// A formula whose edits are kept in `log`. False when it does not read.
  bool bind(const exchange::Json& json, std::unique_ptr<EditLog> log);
  /// Before the log's book closes: edits are kept nowhere until the next bind().
  void letGo() { m_log = std::make_unique<MemoryLog>(); }
  /// The same formula, changed from elsewhere.
  void refresh(const exchange::Json& json);

  /// Makes an edit; nothing when it went well, else why it was refused.
  std::optional<core::Problem> apply(exchange::Edit edit);
  /// The usual edit: one place gets a new value.
  std::optional<core::Problem> set(const QString& words, const std::string& pointer,
                                   const exchange::Json& value, bool mergeWithLast = false);

  bool canUndo() const { return m_log->undoWords().has_value(); }
  bool canRedo() const { return m_log->redoWords().has_value(); }
  QString undoWords() const;
  QString redoWords() const;
  void undo();
  void redo();
  /// The next edit starts a new step of undo even where it would merge.
  void endMerging() { m_log->endGathering(); }
  /// While an edit of its own is under way: what is heard from the book meanwhile is known already.
  bool isApplying() const { return m_applying; }

  /// Position of a product in the document's shelf; -1 when there is none.
  int indexOf(const std::string& id) const;
  /// Grams of a product in the batch; nothing when it is switched off.
  std::optional<core::Mass> gramsOf(const std::string& id) const;
  /// What a product is called.
  std::string nameOf(const std::string& id) const;

signals:
  void changed();
  void loaded(); ///< another formula came into hand; changed() follows
  void overlayChanged();
  void refused(const QString& words);

private:
  bool adopt(const exchange::Json& json);
  void step(bool back);
  void searchFew();

  exchange::Json m_json;
  exchange::FormulaDocument m_document;
  core::Answer m_answer;
  std::unique_ptr<EditLog> m_log;
  std::optional<Overlay> m_overlay;
  Background m_background;
  bool m_applying = false, m_searching = false;
};

} // namespace butte::app
