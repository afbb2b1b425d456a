#include "book_input.h"

#include "book/open_store.h"

#include <cstdlib>
#include <filesystem>
#include <system_error>

namespace butte::cli {

using namespace core;

PrivateFolder::PrivateFolder() {
  std::error_code none;
  auto made = (std::filesystem::temp_directory_path(none) / "butte-cli-XXXXXX").string();
  if (::mkdtemp(made.data())) m_path = made;
}

PrivateFolder::~PrivateFolder() {
  std::error_code none;
  if (!m_path.empty()) std::filesystem::remove_all(m_path, none);
}

Result<OpenShelf> openShelf(const std::string& path) {
  OpenShelf out;
  out.folder = std::make_unique<PrivateFolder>();
  auto store = book::openSnapshot(path, out.folder->path());
  if (!store) return store.problem();
  out.store = std::move(store).value();
  auto shelf = book::shelfBook(*out.store);
  if (!shelf) return shelf.problem();
  out.shelf = std::move(shelf).value();
  out.account = out.shelf.account();
  return out;
}

Result<book::Moment> momentFrom(const std::string& text, const char* where, book::Moment otherwise) {
  if (text.empty()) return otherwise;
  const auto at = book::Moment::fromIso(text);
  if (!at)
    return problemAt(ProblemCode::OutOfRange, where,
                     {"'" + text + "'", "a date and time such as 2026-03-02T07:15:00Z"});
  return *at;
}

Json moneyArray(const std::vector<Money>& money) {
  Json out = Json::array();
  for (const auto& one : money)
    out.push_back({{"currency", one.currency}, {"amount", one.amount}});
  return out;
}

Json costObject(const BatchCost& cost) {
  return {{"paid", moneyArray(cost.paid.money)},
          {"paid_unpriced_kg", cost.paid.unpriced.kilograms()},
          {"today", moneyArray(cost.today.money)},
          {"today_unpriced_kg", cost.today.unpriced.kilograms()}};
}

} // namespace butte::cli
