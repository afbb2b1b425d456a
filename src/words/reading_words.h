#pragma once
#include "label/label_text.h"
#include "report/report_text.h"

#include <string>
#include <string_view>

/// What was read from other people's paper, in a grower's words.
namespace butte::words {

/// Why a figure of a report was not taken: "may mean several things".
std::string whyUnplacedText(reading::WhyUnplaced why);
/// Machine-readable code of the same, for butte-cli.
std::string_view code(reading::WhyUnplaced why);

/// What a label leaves open.
std::string labelDoubtText(const reading::LabelDoubtFound& found);
std::string_view code(reading::LabelDoubt doubt);

} // namespace butte::words
