#include "stations/book/compare_view.h"

#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <cmath>

namespace butte::app {

namespace {
constexpr int rowHeight = 24;
constexpr double sameShare = 0.003; // nearer than this both read the same
bool differs(const book::ComparedRow& row) {
  return row.left.has_value() != row.right.has_value() ||
         std::abs(row.left.value_or(0) - row.right.value_or(0)) >
             sameShare * std::max(row.left.value_or(0), row.right.value_or(0));
}
} // namespace

CompareView::CompareView(const UnitsShown& units, QWidget* parent) : QWidget(parent), m_units(units) {
  setObjectName("compareView");
  connect(&units, &UnitsShown::changed, this, [this] { update(); });
}

void CompareView::show(const SideBySide& sides) {
  m_sides = sides;
  const auto rows = std::max(m_sides.figures.products.size(), m_sides.figures.elements.size());
  setMinimumHeight(90 + static_cast<int>(rows) * rowHeight +
                   20 * static_cast<int>(std::min<qsizetype>(m_sides.changes.size(), 12)) + 30);
  setAccessibleName(
      tr("%1 beside %2: %3").arg(m_sides.leftName, m_sides.rightName, m_sides.changes.join("; ")));
  update();
}

QString CompareView::figures(const book::ComparedRow& row, bool mass) const {
  const auto one = [&](const std::optional<double>& value) {
    return !value ? QString("–") : mass ? m_units.text(core::Mass::fromGrams(*value)) : localFigure(*value);
  };
  return differs(row) ? one(row.left) + " → " + one(row.right) : one(row.left);
}

QStringList CompareView::rowTexts() const {
  QStringList out;
  for (const auto& row : m_sides.figures.products)
    out << qtext(row.name) + " " + figures(row, true);
  for (const auto& row : m_sides.figures.elements)
    out << qtext(row.name) + " " + figures(row, false) + " mg/L";
  return out;
}

int CompareView::paintRows(QPainter& p, const QString& title, const std::vector<book::ComparedRow>& rows,
                           bool mass, QRect column) const {
  const auto& t = theme();
  p.setFont(faceOf(13, true));
  p.setPen(t.ink);
  p.drawText(column.x(), column.y() + 14, title);
  const int nameWidth = mass ? 188 : 52, figureWidth = mass ? 138 : 112;
  const double room = column.width() - nameWidth - figureWidth - 16;
  int y = column.y() + 22;
  for (const auto& row : rows) {
    const double most = std::max({row.left.value_or(0), row.right.value_or(0), 1e-12});
    const bool other = differs(row);
    p.setFont(faceOf(12, other));
    p.setPen(other ? t.ink : t.inkSoft);
    p.drawText(QRect(column.x(), y, nameWidth - 6, rowHeight), Qt::AlignVCenter,
               p.fontMetrics().elidedText(qtext(row.name), Qt::ElideRight, nameWidth - 6));
    // Each row on its own scale: a trace element's change is as plain as potassium's.
    p.fillRect(QRectF(column.x() + nameWidth, y + 4, room * row.left.value_or(0) / most, 7), t.inkSoft);
    p.fillRect(QRectF(column.x() + nameWidth, y + 13, room * row.right.value_or(0) / most, 7),
               other ? t.amber : t.accent);
    p.drawText(QRect(column.right() - figureWidth, y, figureWidth, rowHeight),
               Qt::AlignRight | Qt::AlignVCenter, figures(row, mass));
    y += rowHeight;
  }
  return y;
}

void CompareView::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), t.card);
  const auto ec = [this](const std::optional<double>& value) {
    return value ? "EC " + m_units.text(core::Conductivity::fromMilliSiemensPerCm(*value)) : QString();
  };
  p.setFont(faceOf(14, true));
  p.fillRect(QRect(12, 14, 12, 12), t.inkSoft);
  p.setPen(t.ink);
  p.drawText(30, 25, m_sides.leftName + "   " + ec(m_sides.figures.leftEc));
  p.fillRect(QRect(12, 34, 12, 12), t.amber);
  p.fillRect(QRect(12, 40, 12, 6), t.accent);
  p.drawText(30, 45, m_sides.rightName + "   " + ec(m_sides.figures.rightEc));
  p.setFont(faceOf(11));
  p.setPen(t.inkSoft);
  p.drawText(QRect(width() - 330, 12, 318, 34), Qt::AlignRight | Qt::TextWordWrap,
             tr("Each row on its own scale. Amber: it differs.\nWeights in %1 of feed.")
                 .arg(m_units.text(core::Volume::fromLitres(1000))));
  const int half = width() / 2;
  const int a =
      paintRows(p, tr("weighed"), m_sides.figures.products, true, QRect(12, 60, half - 24, height()));
  const int b = paintRows(p, tr("in the feed, mg/L"), m_sides.figures.elements, false,
                          QRect(half + 6, 60, half - 20, height()));
  int y = std::max(a, b) + 12;
  p.setFont(faceOf(13));
  p.setPen(t.ink);
  constexpr int mostLines = 12;
  for (int i = 0; i < m_sides.changes.size() && i < mostLines; ++i, y += 20)
    p.drawText(QRect(12, y, width() - 24, 20), Qt::AlignVCenter,
               p.fontMetrics().elidedText("· " + m_sides.changes[i], Qt::ElideRight, width() - 24));
  if (m_sides.changes.isEmpty()) p.drawText(12, y + 14, tr("Nothing that changes the feed."));
}

} // namespace butte::app
