#include "open_book.h"

#include "open_store.h"

#include <QFileInfo>

namespace butte::book {

using core::ProblemCode;

core::Result<std::unique_ptr<Book>> openBook(const std::string& path, const std::string& snapshotFolder,
                                             bool takeOver) {
  if (const QFileInfo info(QString::fromStdString(path)); info.exists() && !info.isFile())
    return core::problemAt(ProblemCode::NotABook, path); // no mark beside a device or a folder
  auto mark = OwnerMark::take(path, takeOver);
  if (auto* mine = std::get_if<std::unique_ptr<OwnerMark>>(&mark)) {
    auto store = openStore(path, OpenFor::Writing);
    if (store)
      return std::make_unique<Book>(path, std::move(store).value(), Book::Hold{std::move(*mine), {}});
    if (store.problem().code != ProblemCode::BookNotWritable) return store.problem();
    mark = Owner{};
  }
  auto snapshot = openSnapshot(path, snapshotFolder);
  if (!snapshot) return snapshot.problem();
  return std::make_unique<Book>(path, std::move(snapshot).value(),
                                Book::Hold{nullptr, std::get<Owner>(mark)});
}

core::Result<std::unique_ptr<Book>> createBook(const std::string& path, const std::string& farm) {
  auto store = createStore(path);
  if (!store) return store.problem();
  auto mark = OwnerMark::take(path);
  Book::Hold hold;
  if (auto* mine = std::get_if<std::unique_ptr<OwnerMark>>(&mark)) hold.mine = std::move(*mine);
  auto& fresh = **store;
  if (const auto trouble = fresh.setMeta("farm", farm)) return *trouble;
  if (const auto trouble = fresh.setMeta("made", Moment::now().iso())) return *trouble;
  return std::make_unique<Book>(path, std::move(store).value(), std::move(hold));
}

} // namespace butte::book
