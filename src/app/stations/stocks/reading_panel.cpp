#include "stations/stocks/reading_panel.h"

#include "document/formula_editor.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int readingRows = 3;
}

ReadingPanel::ReadingPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : StockPanel(editor, units, parent), m_line(new PlainLabel), m_causes(new PlainLabel) {
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(6);
  grid->setVerticalSpacing(4);
  grid->addWidget(unitLabel(Kind::Dose), 0, 1);
  grid->addWidget(words(tr("the meter reads"), true), 0, 2);
  for (int i = 0; i < readingRows; ++i) {
    const auto path = "readings/" + std::to_string(i);
    grid->addWidget(words(tr("reading %1").arg(i + 1)), i + 1, 0);
    grid->addWidget(field(tr("dose of reading %1").arg(i + 1), QString("readingDose%1").arg(i),
                          path + "/ml_per_l", Kind::Dose, 0, 1000,
                          [this] {
                            return localFigure(m_editor.answer().stock.doseMlPerLitre *
                                               m_units.measures().oneVolume().litres());
                          }),
                    i + 1, 1);
    grid->addWidget(field(tr("reading %1").arg(i + 1), QString("readingEc%1").arg(i), path + "/ec",
                          Kind::Conductivity, 0, 30000, [] { return QString("—"); }),
                    i + 1, 2);
    grid->addWidget(unitLabel(Kind::Conductivity), i + 1, 3);
  }
  grid->setRowStretch(readingRows + 1, 1);
  for (auto* label : {m_line, m_causes}) {
    label->setWordWrap(true);
    label->setTextFormat(Qt::RichText);
    label->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    label->setFont(faceOf(12));
  }
  m_line->setObjectName("readingLine");
  m_causes->setObjectName("readingCauses");
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(24);
  row->addLayout(grid);
  row->addWidget(m_line, 2);
  row->addWidget(m_causes, 3);
}

void ReadingPanel::refresh() {
  const auto& document = m_editor.document();
  const auto& answer = m_editor.answer();
  if (!answer.readings) {
    m_line->setText(
        tr("Type what the meter read at one or more doses: the water alone is a dose of 0. Two tell "
           "base and slope."));
    m_causes->clear();
    return;
  }
  const auto& found = *answer.readings;
  QString text;
  for (std::size_t i = 0; i < found.expected.size(); ++i)
    text += tr("at %1: read <b>%2</b>, expected %3<br>")
                .arg(m_units.dose(document.dosing.readings[i].x),
                     m_units.text(document.dosing.readings[i].reading), m_units.text(found.expected[i]));
  if (found.line)
    text +=
        tr("The line through them: base <b>%1</b>, %2 for each %3.")
            .arg(m_units.text(found.line->base),
                 m_units.text(core::Conductivity::fromMilliSiemensPerCm(found.line->slope)), m_units.dose(1));
  if (found.curve)
    text += tr("<br>By the curve of this formula: the water reads <b>%1</b> and the stocks give <b>%2 "
               "%</b> of what they should (as if at 1:%3).")
                .arg(m_units.text(found.curve->base), localNumber(100 * found.curve->slope, 0),
                     localNumber(document.given.stock.factor / std::max(0.01, found.curve->slope), 0));
  m_line->setText(text);
  const auto& gap = found.lastGap;
  std::vector<std::string> names;
  for (const auto& tank : answer.stock.tanks)
    names.push_back(tank.tank.name);
  QString causes =
      tr("<b>The last reading %1.</b>")
          .arg(gap.read > gap.expected ? tr("is above what was expected") : tr("is below what was expected"));
  int number = 0;
  for (const auto& cause : found.causes) {
    if (cause.cause == core::ReadingCause::WithinMeter) {
      causes = "<b>" + QString::fromStdString(words::causeText(cause, gap, names)).toHtmlEscaped() + "</b>";
      break;
    }
    causes += QString("<br>%1. %2")
                  .arg(++number)
                  .arg(QString::fromStdString(words::causeText(cause, gap, names)).toHtmlEscaped());
  }
  m_causes->setText(
      causes +
      (number > 0
           ? tr("<br><span style='color:%1'>Each by itself would explain it; the likeliest first.</span>")
                 .arg(theme().inkSoft.name())
           : QString()));
}

} // namespace butte::app
