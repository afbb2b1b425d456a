#include "stations/bench/deviation_picture.h"

#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <QFontMetrics>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double edgePercent = 10, bandPercent = 2;
constexpr int rowGap = 6, partGap = 12, leastScale = 140, dot = 5, headRows = 1;

/// "+3.4 %"; what rounds to nothing has no sign.
QString signedPercent(double percent) {
  constexpr double nothing = 0.05;
  constexpr double manifold = 100;
  const double shown = std::abs(percent) < nothing ? 0 : percent;
  return (shown > 0 ? QString("+") : QString()) + localNumber(shown, std::abs(shown) < manifold ? 1 : 0) +
         " %";
}

/// "+3.4 % ± 1.0 %"; without the +- where it is not known.
QString offText(const DeviationPicture::Row& row) {
  const auto off = signedPercent(row.percent);
  return row.plusMinusPercent > 0 ? tr("%1 ± %2 %").arg(off, localNumber(row.plusMinusPercent, 1)) : off;
}
} // namespace

DeviationPicture::DeviationPicture(QWidget* parent) : QWidget(parent) {
  setAccessibleName(tr("how far each element is from its plan"));
}

void DeviationPicture::show(std::vector<Row> rows) {
  m_rows = std::move(rows);
  QStringList told;
  for (const auto& row : m_rows)
    told << QString("%1: %2, %3").arg(row.name, row.figures, offText(row));
  setAccessibleDescription(told.join("; "));
  setToolTip(told.join("\n"));
  updateGeometry();
  update();
}

int DeviationPicture::rowHeight() const {
  return fontMetrics().height() + rowGap;
}

int DeviationPicture::nameWidth() const {
  int out = 0;
  for (const auto& row : m_rows)
    out = std::max(out, fontMetrics().horizontalAdvance(row.name));
  return out + partGap;
}

int DeviationPicture::figuresWidth() const {
  int out = 0;
  for (const auto& row : m_rows)
    out = std::max(out, fontMetrics().horizontalAdvance(row.figures + "   " + offText(row)));
  return out + partGap;
}

QSize DeviationPicture::sizeHint() const {
  return minimumSizeHint() + QSize(leastScale, 0);
}

QSize DeviationPicture::minimumSizeHint() const {
  return {nameWidth() + figuresWidth() + leastScale,
          rowHeight() * (static_cast<int>(m_rows.size()) + headRows)};
}

void DeviationPicture::paintEvent(QPaintEvent*) {
  if (m_rows.empty()) return;
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const int left = nameWidth(), right = width() - figuresWidth(), high = rowHeight();
  const auto x = [&](double percent) {
    const double share = (std::clamp(percent, -edgePercent, edgePercent) + edgePercent) / (2 * edgePercent);
    return left + share * (right - left);
  };
  const int bottom = high * (static_cast<int>(m_rows.size()) + headRows);
  p.fillRect(QRectF(x(-bandPercent), high, x(bandPercent) - x(-bandPercent), bottom - high), t.band);
  p.setPen(t.inkSoft);
  const auto metrics = fontMetrics();
  const bool namesMiddle = (right - left) / 2 > metrics.horizontalAdvance(signedPercent(edgePercent)) +
                                                    metrics.horizontalAdvance(tr("as planned")) / 2 + partGap;
  for (const double mark : {-edgePercent, 0.0, edgePercent}) {
    const QRectF room(x(mark) - 40, 0, 80, high);
    const auto align = mark < 0 ? Qt::AlignLeft : mark > 0 ? Qt::AlignRight : Qt::AlignHCenter;
    const QRectF at = mark < 0 ? room.translated(40, 0) : mark > 0 ? room.translated(-40, 0) : room;
    p.drawText(at, align | Qt::AlignVCenter,
               mark != 0     ? signedPercent(mark)
               : namesMiddle ? tr("as planned")
                             : QString());
    p.drawLine(QPointF(x(mark), high), QPointF(x(mark), bottom));
  }
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    const auto& row = m_rows[i];
    const int top = high * (static_cast<int>(i) + headRows);
    const double y = top + high / 2.0;
    const bool off = std::abs(row.percent) > std::max(bandPercent, row.plusMinusPercent);
    p.setPen(t.ink);
    p.drawText(QRectF(0, top, left, high), Qt::AlignLeft | Qt::AlignVCenter, row.name);
    p.drawText(QRectF(right + partGap, top, figuresWidth() - partGap, high),
               Qt::AlignRight | Qt::AlignVCenter, row.figures + "   " + offText(row));
    const auto colour = off ? t.red : t.accent;
    p.setPen(QPen(colour, 2));
    p.drawLine(QPointF(x(row.percent - row.plusMinusPercent), y),
               QPointF(x(row.percent + row.plusMinusPercent), y));
    p.setBrush(colour);
    const double at = x(row.percent);
    if (std::abs(row.percent) <= edgePercent) {
      off ? p.drawRect(QRectF(at - dot, y - dot, 2 * dot, 2 * dot)) : p.drawEllipse(QPointF(at, y), dot, dot);
    } else {
      const double way = row.percent > 0 ? 1 : -1; // beyond the edge
      p.drawPolygon(QPolygonF({{at, y}, {at - way * 2 * dot, y - dot}, {at - way * 2 * dot, y + dot}}));
    }
  }
}

} // namespace butte::app
