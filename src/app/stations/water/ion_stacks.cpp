#include "stations/water/ion_stacks.h"

#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <QPainter>
#include <cmath>
#include <vector>

namespace butte::app {

using core::Ion;

namespace {

struct Band {
  Ion ion;
  const char *name, *colour;
};
// Cool tones for cations, warm ones for anions; every band carries its name.
const std::vector<Band> cationBands{
    {Ion::Ca, "Ca", "#5b7fa6"},   {Ion::Mg, "Mg", "#7d9455"},
    {Ion::Na, "Na", "#7f8fb0"},   {Ion::K, "K", "#3f8579"},
    {Ion::NH4, "NH₄", "#6f88a0"}, {Ion::H, QT_TRANSLATE_NOOP("butte", "acid"), "#5d6970"}};
const std::vector<Band> anionBands{{Ion::HCO3, "HCO₃", "#cf9d3f"},
                                   {Ion::Cl, "Cl", "#a0604f"},
                                   {Ion::SO4, "SO₄", "#c26a45"},
                                   {Ion::NO3, "NO₃", "#8a6284"},
                                   {Ion::H2PO4, "H₂PO₄", "#b58a2c"}};

constexpr double head = 22, foot = 6, barWidth = 80;

} // namespace

IonStacks::IonStacks(QWidget* parent) : QWidget(parent) {
  setObjectName("ionStacks");
  setAccessibleName(tr("ion balance in meq/L"));
}

void IonStacks::show(const core::Water& water) {
  const auto ions = core::ionBalance(water.milligramsPerLitre, water.alkalinityMeqPerL.value_or(0));
  if (ions == m_ions && !accessibleDescription().isEmpty()) return;
  m_ions = ions;
  const double cations = m_ions.cationsMeqPerL(), anions = m_ions.anionsMeqPerL();
  setAccessibleDescription(
      tr("cations %1, anions %2 meq/L").arg(localNumber(cations, 2), localNumber(anions, 2)));
  setToolTip(accessibleDescription());
  update();
}

void IonStacks::paintStack(QPainter& p, bool cations, double base, double perMeq) const {
  const auto& t = theme();
  const double x = cations ? width() / 2.0 - barWidth - 2 : width() / 2.0 + 2;
  double y = base, lastLabel = base + 20;
  for (const auto& band : cations ? cationBands : anionBands) {
    const double meq = m_ions.of(band.ion);
    if (meq <= 0.0005) continue;
    const double h = meq * perMeq;
    const QRectF r(x, y - h, barWidth, h);
    p.fillRect(r, QColor(band.colour));
    p.setPen(QPen(t.card, 1));
    p.drawLine(r.topLeft(), r.topRight());
    // Labels stand outside; thin bands push theirs up.
    const double middle = std::min(y - h / 2, lastLabel - 15);
    lastLabel = middle;
    const auto text = QString("%1  %2").arg(app::tr(band.name), localNumber(meq, meq < 0.095 ? 3 : 2));
    const QRectF label =
        cations ? QRectF(x - 128, middle - 9, 116, 18) : QRectF(x + barWidth + 12, middle - 9, 116, 18);
    p.setPen(t.inkSoft);
    p.drawLine(QPointF(cations ? x - 9 : x + barWidth + 9, middle),
               QPointF(cations ? x : x + barWidth, y - h / 2));
    p.setPen(t.ink);
    p.setFont(faceOf(13));
    p.drawText(label, (cations ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, text);
    y -= h;
  }
}

void IonStacks::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const double cations = m_ions.cationsMeqPerL(), anions = m_ions.anionsMeqPerL();
  const double most = std::max({cations, anions, 0.05});
  const double base = height() - foot, perMeq = (height() - head - foot) / most;
  p.setPen(t.ink);
  p.setFont(faceOf(13, true));
  p.drawText(QRectF(0, 0, width() / 2.0 - 8, head - 4), Qt::AlignRight | Qt::AlignVCenter,
             tr("cations %1").arg(localNumber(cations, 2)));
  p.drawText(QRectF(width() / 2.0 + 8, 0, width() / 2.0, head - 4), Qt::AlignLeft | Qt::AlignVCenter,
             tr("%1 meq/L anions").arg(localNumber(anions, 2)));
  paintStack(p, true, base, perMeq);
  paintStack(p, false, base, perMeq);
  const double gap = std::abs(cations - anions);
  if (gap * perMeq >= 2) {
    const bool shortCations = cations < anions;
    const bool tooMuch = gap > core::allowedImbalanceMeqPerL(cations, anions);
    const double x = shortCations ? width() / 2.0 - barWidth - 2 : width() / 2.0 + 2;
    const QRectF r(x, base - most * perMeq, barWidth, gap * perMeq);
    p.fillRect(r, QBrush(tooMuch ? t.red : t.line, tooMuch ? Qt::BDiagPattern : Qt::Dense6Pattern));
    p.setPen(QPen(tooMuch ? t.red : t.line, 1.5, Qt::DashLine));
    p.drawRect(r);
    if (tooMuch && r.height() > 16) {
      p.fillRect(QRectF(r.left() + 12, r.center().y() - 8, barWidth - 24, 16), t.card);
      p.setPen(t.red);
      p.setFont(faceOf(12, true));
      p.drawText(r, Qt::AlignCenter, "▲ " + localNumber(gap, 2));
    }
  }
  p.setPen(QPen(t.inkSoft, 1));
  p.drawLine(QPointF(width() / 2.0 - barWidth - 12, base), QPointF(width() / 2.0 + barWidth + 12, base));
}

} // namespace butte::app
