#include "document/batch_record.h"

#include "book/batch_plan.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"

namespace butte::app {

core::Result<book::Ref> recordBatch(BookDesk& desk, const FormulaEditor& editor, const QString& sheetHtml) {
  const auto version = desk.makeVersion("used");
  if (!version) return version.problem();
  auto batch = book::plannedBatch(editor.document(), editor.answer());
  batch.at = book::Moment::now();
  batch.formulaUid = desk.inHand().uid;
  batch.formulaVersion = *version;
  batch.who = desk.initials().toStdString();
  const auto sheet = desk.book().store().keepSheet(sheetHtml.toStdString());
  if (!sheet) return sheet.problem();
  batch.sheet = *sheet;
  return desk.book().create(book::Kind::Batch, toJson(batch),
                            {core::DeedCode::BatchKept, {batch.formulaName}});
}

} // namespace butte::app
