#include "stations/water/acid_curve.h"

#include "document/formula_editor.h"
#include "paint/axes.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace butte::app {
namespace {

constexpr int curvePoints = 60;
constexpr double leastPh = 3, mostPh = 10;
constexpr int left = 34, right = 12, top = 6, bottom = 50;
constexpr double legendBelow = 41; // under the words of the axis

} // namespace

AcidCurve::AcidCurve(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  setObjectName("acidCurve");
  setMinimumHeight(199);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  auto* fresh = new WhileSeen(this, [this] { compute(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  fresh->outdate();
}

double AcidCurve::shownDose(double gramsPerLitre) const {
  const auto& product = m_editor.document().given.acid.product;
  const double amount =
      product && product->densityKgPerL ? gramsPerLitre / *product->densityKgPerL : gramsPerLitre;
  return amount / m_units.volumeIn(core::Volume::fromLitres(1));
}

/// The grower's readings, where they were made with the acid that the curve is of.
const core::OwnTitration* AcidCurve::readingsOfThisBottle() const {
  const auto& given = m_editor.document().given;
  if (!given.titration || !given.acid.product || given.titration->productId != given.acid.product->id)
    return nullptr;
  return &*given.titration;
}

void AcidCurve::compute() {
  const auto before = Drawn{m_closed, m_open, m_aim, m_x.most, m_dots};
  curves();
  describe();
  const auto& acid = m_editor.answer().acid;
  m_aim = {m_editor.document().given.acid.targetPh, acid.forWater ? acid.forWater->gramsPerLitre : 0};
  m_dots = dots();
  if (before != Drawn{m_closed, m_open, m_aim, m_x.most, m_dots}) update();
}

void AcidCurve::curves() {
  const auto& answer = m_editor.answer();
  const auto& plan = m_editor.document().given.acid;
  if (!plan.product || !answer.water.ph) {
    m_closed.clear();
    m_open.clear();
    m_asked.reset();
    return;
  }
  double most = answer.acid.forWater ? 1.4 * answer.acid.forWater->gramsPerLitre : 0;
  if (const auto* titration = readingsOfThisBottle()) {
    const double density = plan.product->densityKgPerL.value_or(1);
    for (const auto& reading : titration->readings)
      most = std::max(most, 1.1 * reading.dose * density);
  }
  // Water with next to nothing in it: a hair of acid, so that the steep fall is seen.
  most = std::max(most, 2e-5 / std::max(std::abs(answer.acid.productPerGram.alkalinityEq), 1e-4));
  m_x.least = 0;
  m_x.most = shownDose(most);
  m_y.least = leastPh;
  m_y.most = mostPh;
  const Asked asked{answer.water.solutesPerLitre, answer.acid.productPerGram, answer.water.waterKgPerLitre,
                    answer.water.temperature.celsius(), most};
  if (m_asked == asked) return;
  m_asked = asked;
  auto solution = core::titrated(answer.water);
  m_closed = core::titrationCurve(solution, answer.acid.productPerGram, most, curvePoints);
  solution.conditions.carbonDioxideAtm = core::airCarbonDioxideAtm;
  m_open = core::titrationCurve(solution, answer.acid.productPerGram, most, curvePoints);
}

void AcidCurve::describe() {
  if (m_closed.empty()) {
    m_description = tr("No curve: the water's alkalinity is not known");
  } else {
    m_description = tr("pH from %1 without acid to %2 at the end of the curve")
                        .arg(localNumber(m_closed.front().ph, 1), localNumber(m_closed.back().ph, 1));
    if (const auto& fit = m_editor.answer().acid.titration; fit && readingsOfThisBottle())
      m_description += tr(", with %1 own readings").arg(fit->readings.size());
  }
  setAccessibleName(tr("Titration curve"));
  setAccessibleDescription(m_description);
  setToolTip(
      tr("%1. Full line: as dosed, closed to the air. Dashed: after standing in air.").arg(m_description));
}

void AcidCurve::paintFrame(QPainter& p) const {
  const auto& t = theme();
  p.fillRect(QRectF(m_x.from, m_y.to, m_x.to - m_x.from, m_y.from - m_y.to), t.card);
  p.setFont(faceOf(11));
  const QRectF plot(m_x.from, m_y.to, m_x.to - m_x.from, m_y.from - m_y.to);
  paintRungs(p, plot, m_y, marksOf(m_y, 1), [](double ph) { return QString::number(ph); });
  p.drawText(QRectF(m_x.from + 5, m_y.to + 1, 30, 16), Qt::AlignLeft | Qt::AlignVCenter, "pH");
  const double step = roundStep(m_x.most, 5);
  paintTicks(p, plot, m_x, marksOf(m_x, step),
             [places = decimalsOf(step)](double dose) { return localNumber(dose, places); });
  const auto& product = m_editor.document().given.acid.product;
  const bool liquid = product && product->densityKgPerL;
  p.drawText(QRectF(m_x.from, m_y.from + 18, m_x.to - m_x.from, 15), Qt::AlignRight | Qt::AlignVCenter,
             tr("%1 per %2 of water").arg(liquid ? "mL" : "g", m_units.volumeUnitName()));
}

void AcidCurve::paintCurve(QPainter& p, const std::vector<core::TitrationPoint>& curve, bool open) const {
  QPainterPath path;
  bool first = true;
  for (const auto& point : curve) {
    const QPointF at(m_x.at(shownDose(point.gramsPerLitre)), m_y.at(std::clamp(point.ph, leastPh, mostPh)));
    first ? path.moveTo(at) : path.lineTo(at);
    first = false;
  }
  p.setPen(
      QPen(open ? theme().inkSoft : theme().accent, open ? 1.5 : 2.5, open ? Qt::DashLine : Qt::SolidLine));
  p.drawPath(path);
}

void AcidCurve::paintAim(QPainter& p) const {
  const auto& t = theme();
  const double target = m_editor.document().given.acid.targetPh;
  const double y = m_y.at(std::clamp(target, leastPh, mostPh));
  p.setPen(QPen(t.targetMark, 1.5, Qt::DotLine));
  const auto& dose = m_editor.answer().acid.forWater;
  const double x = dose ? m_x.at(shownDose(dose->gramsPerLitre)) : m_x.to;
  p.drawLine(QPointF(m_x.from, y), QPointF(x, y));
  if (!dose) return;
  p.drawLine(QPointF(x, y), QPointF(x, m_y.from));
  p.setBrush(t.targetMark);
  p.setPen(Qt::NoPen);
  p.drawEllipse(QPointF(x, y), 4.5, 4.5);
}

std::vector<AcidCurve::Dot> AcidCurve::dots() const {
  std::vector<Dot> out;
  const auto* titration = readingsOfThisBottle();
  if (!titration) return out;
  const auto& fit = m_editor.answer().acid.titration;
  const double litre = m_units.volumeIn(core::Volume::fromLitres(1));
  for (std::size_t i = 0; i < titration->readings.size(); ++i) {
    const auto& reading = titration->readings[i];
    const bool outlier = fit && i < fit->readings.size() && fit->readings[i].outlier;
    out.push_back({reading.dose / litre, reading.ph, outlier});
  }
  return out;
}

void AcidCurve::paintReadings(QPainter& p) const {
  const auto& t = theme();
  for (const auto& [dose, ph, outlier] : m_dots) {
    const QPointF at(m_x.at(dose), m_y.at(std::clamp(ph, leastPh, mostPh)));
    p.setPen(QPen(outlier ? t.red : t.ink, 2));
    p.setBrush(outlier ? Qt::NoBrush : QBrush(t.card));
    p.drawEllipse(at, 4, 4);
    if (!outlier) continue;
    p.setFont(faceOf(12, true));
    p.drawText(QRectF(at.x() + 5, at.y() - 18, 80, 16), Qt::AlignLeft, tr("left out"));
  }
}

void AcidCurve::paintLegend(QPainter& p) const {
  const auto& t = theme();
  p.setFont(faceOf(11));
  const double y = m_y.from + legendBelow;
  const auto entry = [&](double x, const QPen& pen, const QString& words) {
    p.setPen(pen);
    p.drawLine(QPointF(x, y), QPointF(x + 18, y));
    p.setPen(t.inkSoft);
    p.drawText(QRectF(x + 22, y - 8, 120, 16), Qt::AlignLeft | Qt::AlignVCenter, words);
  };
  entry(m_x.from - 30, QPen(t.accent, 2.5), tr("as dosed"));
  entry(m_x.from + 52, QPen(t.inkSoft, 1.5, Qt::DashLine), tr("after standing in air"));
}

void AcidCurve::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (m_closed.empty()) {
    p.setPen(theme().inkSoft);
    p.setFont(faceOf(13));
    p.drawText(rect().adjusted(20, 0, -20, 0), Qt::AlignCenter | Qt::TextWordWrap,
               tr("The curve appears once the water's alkalinity (HCO₃ or as CaCO₃) is typed, or your own "
                  "readings below."));
    return;
  }
  m_x.from = left;
  m_x.to = width() - right;
  m_y.from = height() - bottom;
  m_y.to = top;
  paintFrame(p);
  p.setClipRect(QRectF(m_x.from, m_y.to - 6, m_x.to - m_x.from + 6, m_y.from - m_y.to + 6));
  paintCurve(p, m_open, true);
  paintCurve(p, m_closed, false);
  paintAim(p);
  p.setClipping(false);
  paintReadings(p);
  paintLegend(p);
}

} // namespace butte::app
