#include "stations/bench/run_gauge.h"

#include "paint/hatch.h"
#include "paint/theme.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>

namespace butte::app {

namespace {
constexpr double coarseShare = 0.9, coarsePlace = 0.45, finePlace = 0.9; // of what is wanted; of the width
} // namespace

RunGauge::RunGauge(QWidget* parent) : QWidget(parent) {
  setObjectName("runGauge");
  setAccessibleName(tr("how far the weight has come"));
  setFixedHeight(54);
}

double RunGauge::placeOf(double share) {
  if (share <= coarseShare) return std::max(0.0, share) / coarseShare * coarsePlace;
  const double fine = coarsePlace + (share - coarseShare) / (1 - coarseShare) * (finePlace - coarsePlace);
  return std::min(1.0, fine);
}

void RunGauge::show(double has, double wanted, double tolerance) {
  m_has = has;
  m_wanted = wanted > 0 ? wanted : 1;
  m_tolerance = tolerance;
  update();
}

void RunGauge::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  const QRectF bar(1, 6, width() - 2, height() - 12);
  p.fillRect(bar, t.card);
  const auto x = [&](double amount) { return bar.left() + placeOf(amount / m_wanted) * bar.width(); };
  const double low = x(m_wanted - m_tolerance), high = std::max(low + 3, x(m_wanted + m_tolerance));
  p.fillRect(QRectF(low, bar.top(), high - low, bar.height()), t.band);
  const bool over = m_has > m_wanted + m_tolerance;
  p.fillRect(QRectF(bar.left(), bar.top() + 8, x(m_has) - bar.left(), bar.height() - 16),
             over ? t.red : t.accent);
  p.fillRect(QRectF(x(m_wanted) - 1, bar.top() - 5, 3, bar.height() + 10), t.targetMark);
  p.setPen(t.line);
  p.drawRect(bar);
}

} // namespace butte::app
