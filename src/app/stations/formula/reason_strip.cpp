#include "stations/formula/reason_strip.h"

#include "document/formula_editor.h"
#include "formula_words.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "solve/audit.h"
#include "stations/formula/mend_list.h"
#include "wording/before_mixing.h"
#include "wording/tr.h"
#include "words.h"

#include <QHBoxLayout>
#include <QScrollArea>
#include <algorithm>

namespace butte::app {

namespace {
QScrollArea* scrollingIn(QWidget* content) {
  auto* scroll = new QScrollArea;
  scroll->setWidget(content);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setStyleSheet("background: transparent;");
  return scroll;
}
} // namespace

ReasonStrip::ReasonStrip(FormulaEditor& editor, MendFinder& finder, QWidget* parent)
    : QFrame(parent), m_editor(editor), m_text(new WrappedLabel), m_mends(nullptr) {
  setObjectName("reasonStrip");
  m_text->setTextFormat(Qt::PlainText);
  m_text->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  m_text->setFont(faceOf(12));
  m_text->setContentsMargins(10, 6, 10, 6);
  m_text->setTextInteractionFlags(Qt::TextSelectableByMouse);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addWidget(scrollingIn(m_text), 3);
  m_mends = scrollingIn(new MendList(finder));
  row->addWidget(m_mends, 2);
  setFixedHeight(112);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  refresh();
}

/// With every weight typed this is an audit of somebody's sheet: the line that would explain it.
QStringList ReasonStrip::suspects() const {
  const auto& request = m_editor.document().given.request;
  const bool sheet =
      !request.shelf.empty() && std::all_of(request.shelf.begin(), request.shelf.end(),
                                            [](const auto& p) { return p.locked.has_value(); });
  QStringList lines;
  if (!sheet || m_editor.answer().solution.grams.size() != request.shelf.size()) return lines;
  const auto namer = [this](const std::string& id) { return m_editor.nameOf(id); };
  for (const auto& line : core::suspectLines(request, m_editor.answer().solution.grams)) {
    if (lines.size() < 2)
      lines << tr("A slip in the sheet? %1").arg(QString::fromStdString(words::suspectText(line, namer)));
  }
  return lines;
}

void ReasonStrip::refresh() {
  const auto& answer = m_editor.answer();
  const auto namer = [this](const std::string& id) { return m_editor.nameOf(id); };
  QStringList lines;
  if (!answer.checked)
    lines << tr("The independent check does not agree with this answer: do not weigh by it.");
  const auto before = beforeMixing(m_editor);
  lines << before.harmful << before.inFeed;
  if (answer.solution.status == core::SolveStatus::Impossible)
    lines << tr("No formula exists for what is given.");
  for (const auto& reason : answer.solution.reasons)
    lines << QString::fromStdString(words::reasonText(reason, namer));
  for (const auto& [warning, id] : answer.solution.warnings)
    lines << sentenceOf(words::solveWarningText(warning, namer(id)));
  lines << before.inTanks;
  for (const auto& notice : answer.stock.notices) {
    if (notice.kind == core::StockWarning::NotPlaced)
      lines << sentenceOf(words::stockNoticeText(notice, namer));
  }
  for (const auto remark : m_editor.answer().waters.water.remarks) {
    if (remark != core::WaterRemark::Pure) lines << sentenceOf(words::waterRemarkText(remark));
  }
  lines << suspects();
  const bool trouble = !lines.isEmpty();
  m_mends->setVisible(answer.solution.status == core::SolveStatus::Best);
  if (!trouble)
    lines << (m_editor.document().given.request.rows.empty()
                  ? tr("Choose a target (Ctrl+2) and put salts on the shelf at the right: the formula "
                       "appears as you type.")
                  : tr("Every element stands in its band."));
  m_text->setText(lines.join("\n"));
  const auto& t = theme();
  restyle(
      *this,
      QString(
          "#reasonStrip { background: %1; border: 1px solid %2; border-radius: 5px; } QLabel { color: %3; }")
          .arg((trouble ? t.amberFill : t.band).name(), (trouble ? t.amber : t.line).name(),
               (trouble ? t.amberInk : t.ink).name()));
}

} // namespace butte::app
