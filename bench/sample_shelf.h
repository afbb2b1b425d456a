#pragma once
#include "book/store.h"

#include <functional>
#include <random>

namespace butte {

/// Deliveries that cover what the book's batches took, as a farm would buy them: an invented price list that
/// creeps upward, whole bags, a count here and a spill there; one salt nearly out, one bag past its date.
void addSampleShelf(book::Store& store, book::Moment now, std::mt19937& random,
                    const std::function<void(const book::Trouble&)>& must);

} // namespace butte
