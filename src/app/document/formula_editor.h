#pragma once
#include "base/deed.h"
#include "base/problem.h"
#include "document/background.h"
#include "document/overlay.h"
#include "formula_document.h"
#include "json_fwd.h"

#include <QObject>
#include <QString>
#include <memory>

namespace butte::exchange {
struct Edit;
}

namespace butte::app {

class EditLog;

/// The formula in hand: what is given, what follows from it, and the way back.
///
/// Every edit goes through here as a value with its inverse; the answer is computed from scratch after each
/// one, so nothing shown is ever stale. An edit that the strict reader refuses, or that does not compute,
/// changes nothing and is kept nowhere. Panels read document() and answer() and change the formula through
/// app/edits.
class FormulaEditor : public QObject {
  Q_OBJECT

public:
  explicit FormulaEditor(QObject* parent = nullptr);
  ~FormulaEditor() override;

  /// The document as it stands in files; for app/edits and for writing it out.
  const exchange::Json& json() const { return *m_json; }
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
  void letGo();
  /// The same formula, changed from elsewhere.
  void refresh(const exchange::Json& json);

  /// Makes an edit; nothing when it went well, else why it was refused.
  std::optional<core::Problem> apply(const exchange::Edit& edit);
  /// The usual edit: one place gets a new value; null takes the place away. With `merge` it joins the one
  /// before at the same place into one step of undo.
  std::optional<core::Problem> set(const core::Deed& deed, const std::string& pointer,
                                   const exchange::Json& value, bool merge = false);

  bool canUndo() const;
  bool canRedo() const;
  QString undoWords() const;
  QString redoWords() const;
  /// False where it was refused; why was said.
  /// Undo and redo keep to this formula: what was done elsewhere since is passed over.
  void keepUndoHere(bool here);
  bool isUndoKeptHere() const { return m_undoHere; }
  bool undo();
  bool redo();
  /// The next edit starts a new step of undo even where it would merge.
  void endMerging();
  /// While an edit of its own is under way: what is heard from the book meanwhile is known already.
  bool isApplying() const { return m_applying; }

  /// Position of a product in the document's shelf; -1 when there is none.
  int indexOf(const std::string& id) const;
  /// Place among the products that are computed with; -1 for one that is off.
  int shelfIndexOf(const std::string& id) const;
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
  struct Worked;
  static core::Result<Worked> workedOut(exchange::Json json);
  void adopt(Worked worked);
  std::optional<core::Problem> adoptWorked(const exchange::Json& json);
  bool step(bool back);
  void searchFew();

  std::unique_ptr<exchange::Json> m_json;
  exchange::FormulaDocument m_document;
  core::Answer m_answer;
  bool m_undoHere = false;
  std::unique_ptr<EditLog> m_log;
  std::optional<Overlay> m_overlay;
  Background m_background;
  bool m_applying = false, m_searching = false;
};

} // namespace butte::app
