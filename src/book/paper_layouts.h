#pragma once
#include "book/store.h"
#include "memory/row_answers.h"
#include "table/mapping.h"

/// What was answered about the layout of other people's papers, kept in the book (docs/formats/book.md,
/// paper_layout), so that the next paper of that layout is not asked about again.
namespace butte::book {

/// The body of a table's layout. `name`: what a person finds it by, a file's name.
Json layoutBody(const std::string& name, const reading::ForeignTable& table,
                const reading::TableMapping& mapping);
/// The body of a water report's layout.
Json layoutBody(const std::string& name, const std::vector<std::string>& names,
                const std::vector<reading::RowAnswer>& answers);
/// Whether a body is a layout: of a table or of a report.
Trouble checkLayout(const Json& body);

/// A layout as it was kept; nothing where the body is another's.
struct TableLayout {
  std::vector<std::string> names; ///< of the header, then of the row of units
  reading::TableMapping mapping;
};
std::optional<TableLayout> mappingIn(const Json& body);
struct ReportLayout {
  std::vector<std::string> names;
  std::vector<reading::RowAnswer> answers;
};
std::optional<ReportLayout> answersIn(const Json& body);

template <class Answer> struct KnownLayout {
  Record record;
  Answer answer;
};
/// The mapping that was kept for a table of this header; nothing where there is none, or where it no longer
/// fits.
std::optional<KnownLayout<reading::TableMapping>> knownMapping(Store& store,
                                                               const reading::ForeignTable& table);
/// All that was kept of reports.
std::vector<KnownLayout<ReportLayout>> reportLayouts(Store& store);
/// The one that a report of these names is likeliest of; null where it is none of them.
const KnownLayout<ReportLayout>* likeliestOf(const std::vector<KnownLayout<ReportLayout>>& layouts,
                                             const std::vector<std::string>& names);

} // namespace butte::book
