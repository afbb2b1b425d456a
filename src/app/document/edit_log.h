#pragma once
#include "book/book.h"
#include "edit.h"

#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace butte::app {

/// Where the edits of the formula in hand are kept, and how they are taken back.
class EditLog {
public:
  virtual ~EditLog() = default;
  /// Keeps an edit that the reader has accepted. With `gather` it may join the one before under its merge
  /// key.
  virtual book::Trouble keep(const exchange::Edit& edit, bool gather) = 0;
  virtual void endGathering() = 0;
  /// What would be taken back, or done again; nothing where there is none.
  virtual std::optional<core::Deed> undoable() = 0;
  virtual std::optional<core::Deed> redoable() = 0;
  /// The document afterwards; nothing when the step concerned something else or there was none.
  virtual core::Result<std::optional<exchange::Json>> stepOver(const exchange::Json& now, bool back) = 0;
  /// Undo and redo pass over what was done elsewhere in the book since.
  void keepToThis(bool only) { m_onlyThis = only; }

protected:
  bool m_onlyThis = false;
};

/// In memory, for a formula that is in no book.
class MemoryLog : public EditLog {
public:
  book::Trouble keep(const exchange::Edit& edit, bool gather) override;
  void endGathering() override { m_gathering = false; }
  std::optional<core::Deed> undoable() override;
  std::optional<core::Deed> redoable() override;
  core::Result<std::optional<exchange::Json>> stepOver(const exchange::Json& now, bool back) override;

private:
  std::vector<exchange::Edit> m_undo, m_redo;
  bool m_gathering = false;
};

/// In the farm book, across closing and opening.
class BookLog : public EditLog {
public:
  BookLog(book::Book& book, book::Ref ref) : m_book(book), m_ref(std::move(ref)) {}
  book::Trouble keep(const exchange::Edit& edit, bool gather) override;
  void endGathering() override { m_book.endGathering(); }
  std::optional<core::Deed> undoable() override { return m_book.undoable(of()); }
  std::optional<core::Deed> redoable() override { return m_book.redoable(of()); }
  core::Result<std::optional<exchange::Json>> stepOver(const exchange::Json& now, bool back) override;

private:
  std::optional<book::Ref> of() const { return m_onlyThis ? std::optional(m_ref) : std::nullopt; }
  book::Book& m_book;
  book::Ref m_ref;
};

} // namespace butte::app
