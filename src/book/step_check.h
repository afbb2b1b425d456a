#pragma once
#include "book/record.h"

namespace butte::book {

/// Whether a step can be done and taken back without stumbling: each change goes to a record's body or to its
/// place in the bin, and puts there what can stand there. A file may come from anywhere. Errors: OutOfRange
/// and WrongType, with the place ("changes[2].pointer").
Trouble checkStep(const Step& step);

} // namespace butte::book
