#include "stations/target/crops_matrix.h"

#include "document/formula_editor.h"
#include "paint/fitted_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/tr.h"
#include "words.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double headHeight = 22, leastRow = 86, mostRow = 150, gap = 6;
constexpr double titleHeight = 25, figureHeight = 19;
constexpr double mostOff = 40; // percent to the end of a bar; what is further off says so in its figure
} // namespace

CropsMatrix::CropsMatrix(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  setObjectName("cropsMatrix");
  connect(&units, &UnitsShown::changed, this, QOverload<>::of(&QWidget::update));
}

void CropsMatrix::show(const std::vector<exchange::DocumentCrop>& crops,
                       const core::ManyCropsAnswer* answer) {
  m_crops = crops;
  m_answer = answer && answer->crops.size() == crops.size() ? std::optional(*answer) : std::nullopt;
  m_columns.clear();
  for (const auto n : core::allNutrients) {
    const bool asked = std::any_of(crops.begin(), crops.end(), [n](const auto& crop) {
      return std::any_of(crop.rows.begin(), crop.rows.end(),
                         [n](const auto& row) { return row.nutrient == n; });
    });
    if (asked) m_columns.push_back(n);
  }
  QStringList rows;
  for (std::size_t crop = 0; crop < m_crops.size(); ++crop)
    rows << rowText(crop);
  setToolTip(rows.join("\n")); // what is shortened stands here whole
  setMinimumHeight(static_cast<int>(headHeight + (leastRow + gap) * static_cast<double>(crops.size()) + 8));
  update();
}

QRectF CropsMatrix::rowBox(std::size_t crop) const {
  const auto crops = static_cast<double>(std::max<std::size_t>(1, m_crops.size()));
  const double rowHeight = std::clamp((height() - headHeight) / crops - gap, leastRow, mostRow);
  return {0, headHeight + (rowHeight + gap) * static_cast<double>(crop), static_cast<double>(width()),
          rowHeight};
}

QPoint CropsMatrix::removeMark(std::size_t crop) const {
  return QPointF(width() - 14, rowBox(crop).top() + 14).toPoint();
}

QString CropsMatrix::headline(std::size_t crop) const {
  if (!m_answer) return "…";
  const auto& share = m_answer->crops[crop];
  const double ml = 1000 / m_editor.document().given.stock.factor * share.strength;
  auto words = tr("%1 of each tank (%2 % of the strongest)")
                   .arg(m_units.dose(ml), localNumber(100 * share.strength, 0));
  if (share.correction) {
    const auto& product = m_editor.document().given.request.shelf[*share.correction];
    words += tr(" + %1 of %2 per %3")
                 .arg(m_units.text(core::Concentration::fromGramsPerLitre(share.correctionGramsPerLitre) *
                                   m_units.measures().bulkVolume()),
                      QString::fromStdString(m_editor.nameOf(product.id)),
                      QString::fromStdString(m_units.measures().bulkVolumeName()));
  }
  return words;
}

QString CropsMatrix::rowText(std::size_t crop) const {
  QStringList parts{QString::fromStdString(m_crops[crop].name) + ": " + headline(crop)};
  for (std::size_t i = 0; m_answer && i < m_crops[crop].rows.size(); ++i) {
    const auto& row = m_crops[crop].rows[i];
    const double off = m_answer->crops[crop].deviationPercent[i];
    if (std::abs(off) > row.tolerancePercent)
      parts << QString("%1 %2%3 %")
                   .arg(QString::fromStdString(words::nutrientSymbol(row.nutrient)), off > 0 ? "+" : "−")
                   .arg(std::lround(std::abs(off)));
  }
  return parts.join(", ");
}

void CropsMatrix::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  for (std::size_t k = 0; k < m_crops.size(); ++k)
    paintRow(painter, k);
}

void CropsMatrix::paintRow(QPainter& painter, std::size_t crop) const {
  const auto& t = theme();
  const auto box = rowBox(crop);
  painter.fillRect(box, t.card);
  painter.setPen(t.line);
  painter.drawRect(box.adjusted(0, 0, -1, -1));
  painter.setPen(t.ink);
  painter.setFont(faceOf(13, true));
  const auto name = QString::fromStdString(m_crops[crop].name);
  const double nameWidth = painter.fontMetrics().horizontalAdvance(name) + 12;
  painter.drawText(box.adjusted(8, 4, -30, 0), Qt::AlignTop, name);
  painter.setFont(faceOf(12));
  painter.setPen(t.inkSoft);
  const auto room = box.adjusted(8 + nameWidth, 5, -30, 0);
  painter.drawText(room, Qt::AlignTop,
                   fittedText(painter.fontMetrics(), headline(crop), static_cast<int>(room.width())));
  painter.setPen(t.ink);
  painter.drawText(QRectF(box.right() - 24, box.top() + 4, 20, 20), Qt::AlignCenter, "×");
  if (!m_answer || m_columns.empty()) return;
  const double cell = (box.width() - 16) / static_cast<double>(m_columns.size());
  for (std::size_t i = 0; i < m_crops[crop].rows.size(); ++i) {
    const auto& row = m_crops[crop].rows[i];
    const auto column = std::find(m_columns.begin(), m_columns.end(), row.nutrient) - m_columns.begin();
    const double off = m_answer->crops[crop].deviationPercent[i];
    paintCell(painter,
              {box.left() + 8 + cell * static_cast<double>(column), box.top() + titleHeight, cell - 3,
               box.height() - titleHeight - 3},
              off, row.tolerancePercent);
  }
  if (crop > 0) return;
  painter.setFont(faceOf(12, true));
  painter.setPen(t.ink);
  for (std::size_t c = 0; c < m_columns.size(); ++c)
    painter.drawText(QRectF(8 + cell * static_cast<double>(c), 2, cell - 3, 18), Qt::AlignCenter,
                     QString::fromStdString(words::nutrientSymbol(m_columns[c])));
}

/// From the target in the middle up or down to what the crop gets; the band lies behind it.
void CropsMatrix::paintCell(QPainter& painter, const QRectF& room, double off, double tolerance) {
  const auto& t = theme();
  const bool inside = std::abs(off) <= tolerance + 1e-9;
  const QRectF plot = room.adjusted(0, 0, 0, -figureHeight);
  const double middle = plot.center().y();
  const auto high = [&](double percent) {
    return std::min(std::abs(percent), mostOff) / mostOff * plot.height() / 2;
  };
  painter.fillRect(QRectF(plot.left(), middle - high(tolerance), plot.width(), 2 * high(tolerance)), t.band);
  const double length = high(off);
  const QRectF bar(plot.center().x() - 7, off > 0 ? middle - length : middle, 14, length);
  painter.fillRect(bar, inside ? t.inkSoft : t.amber);
  painter.setPen(QPen(t.ink, 1.5));
  painter.drawLine(QPointF(plot.left() + 2, middle), QPointF(plot.right() - 2, middle));
  painter.setFont(faceOf(12, !inside));
  painter.setPen(inside ? t.inkSoft : t.amberInk);
  const auto text =
      std::abs(off) < 0.5
          ? QString("0")
          : QString("%1%2").arg(off > 0 ? "+" : "−").arg(std::min(999L, std::lround(std::abs(off))));
  painter.drawText(QRectF(room.left(), plot.bottom(), room.width(), figureHeight), Qt::AlignCenter, text);
}

void CropsMatrix::mousePressEvent(QMouseEvent* event) {
  for (std::size_t k = 0; k < m_crops.size(); ++k) {
    if (QRectF(rowBox(k).right() - 28, rowBox(k).top(), 28, 28).contains(event->position()))
      return emit removeAsked(k);
  }
}

} // namespace butte::app
