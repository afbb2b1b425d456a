#include "stations/bench/practice/practice_picture.h"

#include "paint/theme.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>

namespace butte::app {

namespace {

constexpr int textHigh = 22, most = 4, displaySize = 17;

core::Mass sumOf(const std::vector<core::Mass>& masses) {
  core::Mass out;
  for (const auto mass : masses)
    out = out + mass;
  return out;
}

} // namespace

PracticePicture::PracticePicture(QWidget* parent) : QWidget(parent) {
  setAccessibleName(tr("the practice bench as you see it"));
}

void PracticePicture::show(const core::RunPlan& plan, const core::TrueState& state, core::Mass wantedInCup,
                           const QString& display) {
  m_display = display;
  const auto cup = sumOf(state.cup);
  m_cup = wantedInCup > core::Mass{} ? std::clamp(cup / wantedInCup, 0.0, 1.3) : cup > core::Mass{} ? 1 : 0;
  m_vessels.clear();
  QStringList told{tr("on the scale: %1").arg(display)};
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    const auto& there = state.vessels[v];
    core::Mass planned;
    for (const auto& step : plan.vessels[v].steps)
      planned = planned + step.planned;
    const auto in = sumOf(there.in), undissolved = sumOf(there.undissolved);
    Vessel one{qtext(plan.vessels[v].name), std::clamp(there.water / plan.vessels[v].volume, 0.0, 1.1), 0, 0};
    if (planned > core::Mass{}) one.strong = std::clamp((in - undissolved) / planned, 0.0, 1.0);
    if (!there.looksClear() && in > core::Mass{}) one.grains = std::max(0.05, undissolved / in);
    told << (one.grains > 0 ? tr("%1: grains on its floor") : tr("%1: clear")).arg(one.name);
    m_vessels.push_back(one);
  }
  setAccessibleDescription(told.join("; "));
  setToolTip(told.join("\n")); // names whole
  update();
}

void PracticePicture::paintScale(QPainter& p, const QRectF& room) const {
  const auto& t = theme();
  const QRectF base(room.left() + 8, room.bottom() - 44, room.width() - 16, 38);
  p.setPen(t.line);
  p.setBrush(t.card);
  p.drawRoundedRect(base, 5, 5);
  p.setPen(t.ink);
  p.setFont(faceOf(displaySize, true));
  p.drawText(base, Qt::AlignCenter, m_display);
  const QRectF pan(room.left() + 16, base.top() - 6, room.width() - 32, 5);
  p.fillRect(pan, t.inkSoft);
  const QRectF cup(room.center().x() - 34, pan.top() - 66, 68, 64);
  QPolygonF shape(
      {cup.topLeft(), cup.topRight(), {cup.right() - 10, cup.bottom()}, {cup.left() + 10, cup.bottom()}});
  const double high = (cup.height() - 6) * std::min(m_cup, 1.0);
  p.save();
  QPainterPath clip;
  clip.addPolygon(shape);
  p.setClipPath(clip);
  p.fillRect(QRectF(cup.left(), cup.bottom() - high, cup.width(), high), m_cup > 1.02 ? t.amber : t.inkSoft);
  p.restore();
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(t.ink, 2));
  p.drawPolyline(QPolygonF({cup.topLeft(), shape[3], shape[2], cup.topRight()}));
}

void PracticePicture::paintVessel(QPainter& p, const QRectF& room, const Vessel& vessel) const {
  const auto& t = theme();
  const QRectF body(room.left() + 8, room.top() + 6, room.width() - 16, room.height() - textHigh - 10);
  const double mark = body.top() + body.height() * 0.12;
  const double top = body.bottom() - (body.bottom() - mark) * vessel.full;
  auto water = t.water;
  constexpr double faint = 0.25;
  water.setAlphaF(static_cast<float>(faint + (1 - faint) * vessel.strong));
  if (vessel.full > 0) p.fillRect(QRectF(body.left(), top, body.width(), body.bottom() - top), water);
  p.setBrush(t.ink);
  p.setPen(Qt::NoPen);
  const int grains = static_cast<int>(vessel.grains * 60);
  for (int i = 0; i < grains; ++i) { // a pattern that stands still
    const double x = body.left() + 4 + ((i * 37) % 97) / 97.0 * (body.width() - 8);
    const double y = body.bottom() - 4 - ((i * 53) % 89) / 89.0 * std::min(26.0, body.height() * 0.25);
    p.drawRect(QRectF(x, y, 3, 3));
  }
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(t.ink, 2));
  p.drawPolyline(QPolygonF({body.topLeft(), body.bottomLeft(), body.bottomRight(), body.topRight()}));
  p.setPen(QPen(t.targetMark, 1, Qt::DashLine));
  p.drawLine(QPointF(body.left(), mark), QPointF(body.right(), mark));
  p.setPen(t.ink);
  p.setFont(faceOf(13));
  p.drawText(QRectF(room.left(), body.bottom() + 4, room.width(), textHigh), Qt::AlignCenter,
             fontMetrics().elidedText(vessel.name, Qt::ElideRight, static_cast<int>(room.width()) - 4));
}

void PracticePicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const int shown = std::min(most, static_cast<int>(m_vessels.size()));
  const double scale = width() * 0.36, each = (width() - scale) / std::max(1, shown);
  paintScale(p, QRectF(0, 0, scale, height()));
  for (int i = 0; i < shown; ++i)
    paintVessel(p, QRectF(scale + i * each, 0, each, height()), m_vessels[static_cast<std::size_t>(i)]);
}

} // namespace butte::app
