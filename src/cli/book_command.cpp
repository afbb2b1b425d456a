/// The command line of the verbs over a farm's book.
#include "book_command.h"

#include "book_verbs.h"

#include <CLI/CLI.hpp>
#include <memory>

namespace butte::cli {

namespace {

constexpr const char* shelfKeys =
    "BOOK is a farm's book; it is only read. Prints of each product its lots, what is left, its use, the "
    "need "
    "of the\n"
    "weeks ahead with its band (9 in 10), the weeks until it runs out, and the cheapest whole bags.\n";
constexpr const char* costKeys =
    "BOOK is a farm's book; it is only read. Prints what batches cost by the lots that they took (first in,\n"
    "first out) and at today's prices, by crop, month and product; prices over time; what a kilogram of "
    "each\n"
    "element costs from each product. Currencies are never converted.\n";

struct Asked {
  ShelfAsked shelf;
  CostAsked cost;
};

} // namespace

std::function<std::optional<core::Result<Outcome>>()> addBookVerbs(CLI::App& app) {
  const auto asked = std::make_shared<Asked>();
  auto* shelfVerb = app.add_subcommand("shelf", "What is on a farm's shelf, how long it does, what to buy");
  shelfVerb->footer(shelfKeys);
  shelfVerb->add_option("BOOK", asked->shelf.book, "the book's file")->required();
  shelfVerb->add_option("--weeks", asked->shelf.weeks, "weeks ahead that the shelf is to do (8)");
  shelfVerb->add_option("--currency", asked->shelf.currency, "orders in this one (that of the newest price)");
  shelfVerb->add_option("--at", asked->shelf.at, "as of this time (now)");
  auto* costVerb = app.add_subcommand("cost", "What a farm's batches cost");
  costVerb->footer(costKeys);
  costVerb->add_option("BOOK", asked->cost.book, "the book's file")->required();
  costVerb->add_option("--from", asked->cost.from, "batches from this time on");
  costVerb->add_option("--before", asked->cost.before, "batches before this time");
  costVerb->add_option("--crop", asked->cost.crop, "batches of this crop alone");
  costVerb->add_option("--at", asked->cost.at, "prices as of this time (now)");
  return [asked, shelfVerb, costVerb]() -> std::optional<core::Result<Outcome>> {
    if (*shelfVerb) return shelf(asked->shelf);
    if (*costVerb) return cost(asked->cost);
    return std::nullopt;
  };
}

} // namespace butte::cli
