#pragma once
#include "edit.h"
#include "formula_document.h"

#include <QObject>
#include <QString>

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

  /// Replaces everything; undo starts anew. The text must have passed parseFormulaText().
  void load(const exchange::Json& json, bool unsaved);

  /// Makes an edit; nothing when it went well, else why it was refused.
  std::optional<core::Problem> apply(exchange::Edit edit);
  /// The usual edit: one place gets a new value.
  std::optional<core::Problem> set(const QString& words, const std::string& pointer,
                                   const exchange::Json& value, bool mergeWithLast = false);

  bool canUndo() const { return !m_undo.empty(); }
  bool canRedo() const { return !m_redo.empty(); }
  QString undoWords() const;
  QString redoWords() const;
  void undo();
  void redo();
  /// The next edit starts a new step of undo even where it would merge.
  void endMerging() { m_merging = false; }

  bool isUnsaved() const { return m_unsaved; }
  void markSaved();

  /// Position of a product in the document's shelf; -1 when there is none.
  int indexOf(const std::string& id) const;
  /// Grams of a product in the batch; nothing when it is switched off.
  std::optional<core::Mass> gramsOf(const std::string& id) const;
  /// What a product is called.
  std::string nameOf(const std::string& id) const;

signals:
  void changed();
  void refused(const QString& words);

private:
  bool adopt(const exchange::Json& json);
  void step(std::vector<exchange::Edit>& from, std::vector<exchange::Edit>& to, bool back);

  exchange::Json m_json;
  exchange::FormulaDocument m_document;
  core::Answer m_answer;
  std::vector<exchange::Edit> m_undo, m_redo;
  bool m_unsaved = false;
  bool m_merging = false;
};

} // namespace butte::app
