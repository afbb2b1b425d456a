#include "stations/stocks/cold_panel.h"

#include "document/formula_editor.h"
#include "paint/fitted_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stock/cold_nights.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double usualNights[] = {5, 10, 15, 20}; // degC
constexpr double widestName = 210, headHeight = 22;
} // namespace

ColdPanel::ColdPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : StockPanel(editor, units, parent) {
  setObjectName("coldPanel");
  setAccessibleName(tr("what crystallises on cold nights"));
}

void ColdPanel::refresh() {
  const auto& document = m_editor.document();
  const auto& shelf = document.given.request.shelf;
  std::vector<core::Temperature> temperatures{document.given.stock.temperature};
  for (const double celsius : usualNights) {
    if (std::abs(celsius - temperatures[0].celsius()) > 0.05)
      temperatures.push_back(core::Temperature::fromCelsius(celsius));
  }
  std::sort(temperatures.begin(), temperatures.end());
  m_columns.clear();
  for (const auto t : temperatures)
    m_columns.push_back(m_units.text(t) +
                        (t == document.given.stock.temperature ? tr(" · the coldest night") : ""));
  m_lines.clear();
  QStringList spoken;
  for (const auto& content : m_editor.answer().stock.tanks) {
    if (content.items.empty()) continue;
    Line line{QString::fromStdString(words::tankTitle(shelf, content)), {}};
    for (const auto& night : core::coldNights(shelf, content, temperatures)) {
      Cell cell;
      cell.known = night.maxFactor.has_value();
      cell.head =
          night.maxFactor
              ? tr("clear to 1:%1").arg(QString::fromStdString(words::ceilingFigure(*night.maxFactor)))
              : tr("not known");
      if (content.tank.use == core::TankUse::Acid) cell.head = tr("stays mixed"), cell.known = true;
      QStringList falls;
      for (const auto& f : night.falls) {
        if (f.gramsPerLitre < 0.02) continue;
        falls << QString("%1 %2").arg(m_units.text(core::Concentration::fromGramsPerLitre(f.gramsPerLitre)),
                                      QString::fromStdString(f.product ? m_editor.nameOf(shelf[*f.product].id)
                                                                       : words::solidName(f.solid)));
      }
      cell.falls = !falls.isEmpty();
      cell.detail = falls.isEmpty()
                        ? (night.unknown.empty() || !night.maxFactor ? QString() : tr("some not known"))
                        : tr("▲ falls: %1").arg(falls.join(", "));
      cell.known = cell.known && cell.detail != tr("some not known");
      spoken << tr("%1 at %2: %3 %4").arg(line.tank, m_columns[line.cells.size()], cell.head, cell.detail);
      line.cells.push_back(cell);
    }
    m_lines.push_back(std::move(line));
  }
  setAccessibleDescription(spoken.join("; "));
  update();
}

void ColdPanel::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const auto& t = theme();
  const double nameWidth = std::min(widestName, width() / 4.0);
  const double each = (width() - nameWidth) / static_cast<double>(std::max<std::size_t>(1, m_columns.size()));
  p.setFont(faceOf(12, true));
  p.setPen(t.inkSoft);
  for (std::size_t c = 0; c < m_columns.size(); ++c)
    p.drawText(QRectF(nameWidth + each * static_cast<double>(c) + 6, 0, each - 8, headHeight),
               Qt::AlignLeft | Qt::AlignVCenter,
               fittedText(p.fontMetrics(), m_columns[c], static_cast<int>(each) - 8));
  const double h =
      std::min(52.0, (height() - headHeight) / static_cast<double>(std::max<std::size_t>(1, m_lines.size())));
  for (std::size_t l = 0; l < m_lines.size(); ++l) {
    const double y = headHeight + h * static_cast<double>(l);
    p.setFont(faceOf(13, true));
    p.setPen(t.ink);
    p.drawText(QRectF(0, y, nameWidth - 8, h), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap,
               m_lines[l].tank);
    for (std::size_t c = 0; c < m_lines[l].cells.size(); ++c) {
      const auto& cell = m_lines[l].cells[c];
      const QRectF box(nameWidth + each * static_cast<double>(c), y + 2, each - 4, h - 4);
      p.fillRect(box, cell.falls ? t.redFill : cell.known ? t.band : t.amberFill);
      p.setPen(cell.falls ? t.red : t.ink);
      p.setFont(faceOf(12, true));
      p.drawText(box.adjusted(6, 2, -4, 0), Qt::AlignLeft | Qt::AlignTop, cell.head);
      p.setFont(faceOf(11));
      p.drawText(box.adjusted(6, 18, -4, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, cell.detail);
    }
  }
}

} // namespace butte::app
