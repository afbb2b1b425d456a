#include "stations/formula/reason_strip.h"

#include "document/formula_editor.h"
#include "edits/shelf_edits.h"
#include "formula_words.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "stations/formula/mend_list.h"
#include "wording/before_mixing.h"
#include "wording/tr.h"
#include "words.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
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

ReasonStrip::ReasonStrip(FormulaEditor& editor, MendFinder& finder, UnitsShown& units, QWidget* parent)
    : QFrame(parent), m_editor(editor), m_units(units), m_text(new WrappedLabel), m_mends(nullptr) {
  setObjectName("reasonStrip");
  m_text->setObjectName("reasons");
  m_text->setTextFormat(Qt::PlainText);
  m_text->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  m_text->setFont(faceOf(12));
  m_text->setContentsMargins(10, 6, 10, 6);
  m_text->setTextInteractionFlags(Qt::TextSelectableByMouse);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  column->addWidget(makeSlipRow());
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  row->addWidget(scrollingIn(m_text), 3);
  m_mends = scrollingIn(new MendList(finder));
  row->addWidget(m_mends, 2);
  column->addLayout(row, 1);
  setFixedHeight(112);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  refresh();
}

QWidget* ReasonStrip::makeSlipRow() {
  m_slipRow = new QWidget;
  auto* row = new QHBoxLayout(m_slipRow);
  row->setContentsMargins(10, 4, 6, 0);
  m_slip = new WrappedLabel;
  m_slip->setObjectName("sheetSlip");
  m_slip->setTextFormat(Qt::PlainText);
  m_slip->setFont(faceOf(12, true));
  m_take = new QPushButton;
  m_take->setObjectName("takeWhatFits");
  m_take->setStyleSheet("padding: 1px 8px;");
  connect(m_take, &QPushButton::clicked, this, &ReasonStrip::takeWhatFits);
  row->addWidget(m_slip, 1);
  row->addWidget(m_take, 0, Qt::AlignTop);
  return m_slipRow;
}

/// With every weight typed this is an audit of somebody's sheet: the line that would explain it.
std::optional<core::SuspectLine> ReasonStrip::suspect() const {
  const auto& request = m_editor.document().given.request;
  const bool sheet =
      !request.shelf.empty() && std::all_of(request.shelf.begin(), request.shelf.end(),
                                            [](const auto& p) { return p.locked.has_value(); });
  if (!sheet || m_editor.answer().solution.grams.size() != request.shelf.size()) return std::nullopt;
  auto lines = core::suspectLines(request, m_editor.answer().solution.grams);
  return lines.empty() ? std::nullopt : std::optional(std::move(lines.front()));
}

/// A weight as its row takes it: what a known slip makes of the typed digits whole, a best fit in as many as
/// mean something.
QString ReasonStrip::inRow(core::Mass mass, bool exact) const {
  constexpr int asTyped = 7;
  const double value = m_units.massIn(mass);
  return exact ? QString::number(value, 'g', asTyped) : QString::fromStdString(words::digits(value));
}

/// The verdict on a sheet comes before everything that follows from its slip.
void ReasonStrip::refreshSlip() {
  const auto line = suspect();
  m_slipRow->setVisible(line.has_value());
  if (!line) return;
  const bool known = line->slip != core::SheetSlip::Unknown;
  const auto shown = [&](core::Mass mass) { return inRow(mass, known) + " " + m_units.massUnit(); };
  const auto namer = [this](const std::string& id) { return m_editor.nameOf(id); };
  const auto written = [&](core::Mass mass) { return shown(mass).toStdString(); };
  m_slip->setText(
      tr("A slip in the sheet? %1").arg(QString::fromStdString(words::suspectText(*line, namer, written))));
  m_take->setText(tr("Take %1").arg(shown(line->fits)));
  m_take->setAccessibleName(
      tr("take %1 of %2").arg(shown(line->fits), QString::fromStdString(m_editor.nameOf(line->product))));
}

void ReasonStrip::takeWhatFits() {
  const auto line = suspect();
  if (!line) return;
  const auto digits = inRow(line->fits, line->slip != core::SheetSlip::Unknown).toStdString();
  ShelfEdits(m_editor).hold(line->product, {digits, m_units.massUnit().toStdString()}, false);
}

void ReasonStrip::refresh() {
  refreshSlip();
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
  lines << before.inTanks << before.unsure;
  for (const auto& notice : answer.stock.notices) {
    if (notice.kind == core::StockWarning::NotPlaced)
      lines << sentenceOf(words::stockNoticeText(notice, namer));
  }
  for (const auto remark : m_editor.answer().waters.water.remarks) {
    if (remark != core::WaterRemark::Pure && remark != core::WaterRemark::Estimated)
      lines << sentenceOf(words::waterRemarkText(remark));
  }
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
