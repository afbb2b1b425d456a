#include "edits/paper_memory.h"

#include "book/paper_layouts.h"
#include "column_words.h"
#include "document/book_desk.h"
#include "water_words.h"
#include "wording/tr.h"

namespace butte::app {

using book::Kind;
using exchange::Json;

namespace {

/// Changes the layout that is known, or makes it. What can't be kept is asked again the next time, no more.
void keepLayout(BookDesk& desk, const std::optional<book::Record>& known, Json body) {
  if (!desk.isOpen() || desk.isReadOnly()) return;
  auto& book = desk.book();
  const core::Deed deed{core::DeedCode::LayoutKept, {body.value("name", std::string())}};
  if (!known) {
    static_cast<void>(book.create(Kind::PaperLayout, body, deed));
    return;
  }
  for (const auto* own : {"name", "note"}) { // as a person has called it since
    if (known->body.contains(own)) body[own] = known->body[own];
  }
  if (body != known->body) static_cast<void>(book.replaceBody(known->ref, body, deed));
}

QString answerText(const reading::RowAnswer& answer) {
  if (answer.leftOut) return tr("left out");
  if (answer.why == reading::WhyUnplaced::WhichFigure && answer.choice)
    return tr("figure %1 of %2").arg(*answer.choice + 1).arg(answer.of);
  if (answer.why == reading::WhyUnplaced::UnclearNumber && answer.choice)
    return *answer.choice == 0 ? tr("the comma parts thousands") : tr("the comma is the decimal mark");
  return QString::fromStdString(words::reportKeyName(answer.key));
}

} // namespace

PaperMemory::PaperMemory(BookDesk& desk) : m_desk(desk) {
  connect(&desk, &BookDesk::bookOpened, this, &PaperMemory::forget);
  connect(&desk, &BookDesk::changed, this, [this](const std::vector<book::Ref>& refs) {
    const auto isLayout = [](const book::Ref& ref) { return ref.kind == Kind::PaperLayout; };
    if (std::any_of(refs.begin(), refs.end(), isLayout)) forget();
  });
}

std::optional<reading::TableMapping> PaperMemory::mapping(const reading::ForeignTable& table) const {
  if (!m_desk.isOpen()) return std::nullopt;
  const auto known = book::knownMapping(m_desk.book().store(), table);
  return known ? std::optional(known->answer) : std::nullopt;
}

void PaperMemory::keep(const QString& name, const reading::ForeignTable& table,
                       const reading::TableMapping& mapping) {
  if (!m_desk.isOpen()) return;
  const auto known = book::knownMapping(m_desk.book().store(), table);
  keepLayout(m_desk, known ? std::optional(known->record) : std::nullopt,
             book::layoutBody(name.toStdString(), table, mapping));
}

std::vector<reading::RowAnswer> PaperMemory::answers(const reading::ReportText& read) const {
  if (!m_desk.isOpen() || read.unplaced.empty()) return {};
  if (!m_reports) m_reports = book::reportLayouts(m_desk.book().store());
  const auto* known = book::likeliestOf(*m_reports, reading::layoutNames(read));
  return known ? known->answer.answers : std::vector<reading::RowAnswer>();
}

void PaperMemory::keep(const QString& name, const reading::ReportText& read,
                       const reading::RowsAnswered& answered) {
  const auto answers = reading::answersToKeep(read, answered);
  if (!m_desk.isOpen() || answers.empty()) return;
  const auto names = reading::layoutNames(read);
  const auto reports = book::reportLayouts(m_desk.book().store());
  const auto* known = book::likeliestOf(reports, names);
  keepLayout(m_desk, known ? std::optional(known->record) : std::nullopt,
             book::layoutBody(name.toStdString(), names, answers));
}

QStringList layoutSaid(const book::Record& layout) {
  QStringList out;
  if (const auto table = book::mappingIn(layout.body)) {
    out << QString::fromStdString(words::tableOfText(table->mapping.table));
    for (std::size_t i = 0; i < table->mapping.columns.size(); ++i) {
      const auto& column = table->mapping.columns[i];
      const auto* field = reading::fieldNamed(table->mapping.table, column.field);
      auto line = "“" + QString::fromStdString(i < table->names.size() ? table->names[i] : "?") + "”: ";
      line += field ? QString::fromStdString(words::fieldText(table->mapping.table, column.field))
                    : tr("passed over");
      if (field && !column.unit.empty())
        line += ", " + QString::fromStdString(words::columnUnitText(*field, column.unit, column.per));
      out << line;
    }
    if (!table->mapping.nameForAll.empty())
      out << tr("all of “%1”").arg(QString::fromStdString(table->mapping.nameForAll));
  }
  if (const auto report = book::answersIn(layout.body)) {
    for (const auto& answer : report->answers)
      out << "“" + QString::fromStdString(answer.name) + "”: " + answerText(answer);
  }
  return out;
}

} // namespace butte::app
