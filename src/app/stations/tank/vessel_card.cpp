#include "stations/tank/vessel_card.h"

#include "deed_words.h"
#include "paint/fitted_text.h"
#include "paint/hatch.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>

namespace butte::app {

namespace {
QString readAgo(std::int64_t seconds) {
  constexpr std::int64_t hour = 3600, day = 24 * hour;
  if (seconds < hour) return tr("read just now");
  if (seconds < day) return counted(seconds / hour, tr("read %1 hour ago"), tr("read %1 hours ago"));
  return counted(seconds / day, tr("read %1 day ago"), tr("read %1 days ago"));
}
} // namespace

VesselCard::VesselCard(std::string uid, QWidget* parent) : QAbstractButton(parent), m_uid(std::move(uid)) {
  setCheckable(true);
  setAutoExclusive(true);
  setFocusPolicy(Qt::StrongFocus);
}

void VesselCard::show(const book::VesselFacts& facts, const std::map<std::string, book::Reading>& last,
                      book::Moment now, const QString& trouble) {
  m_name = qtext(facts.name);
  QStringList readings;
  for (const auto* quantity : {"ec", "ph", "level"})
    if (const auto found = last.find(quantity); found != last.end())
      readings << (found->first == "ph" ? tr("pH %1").arg(readingText(found->second))
                                        : readingText(found->second));
  m_readings = readings.isEmpty() ? tr("nothing read yet") : readings.join(" · ");
  std::int64_t newest = 0;
  for (const auto& [quantity, reading] : last)
    newest = std::max(newest, reading.at.seconds);
  const auto crop = qtext(facts.crop);
  m_when = newest == 0      ? crop
           : crop.isEmpty() ? readAgo(now.seconds - newest)
                            : tr("%1 · %2").arg(readAgo(now.seconds - newest), crop);
  m_troubled = !trouble.isEmpty();
  if (m_troubled) m_when = trouble;
  m_share.reset();
  m_low.reset();
  const double full = facts.fullVolume().litres();
  const auto level = last.find("level");
  if (full > 0 && level != last.end()) m_share = std::clamp(level->second.value / full, 0.0, 1.0);
  if (full > 0 && facts.lowVolume() > core::Volume{}) m_low = facts.lowVolume().litres() / full;
  m_said = tr("%1: %2, %3").arg(m_name, m_readings, m_when);
  setAccessibleName(m_said);
  setToolTip(m_said);
  update();
}

void VesselCard::paintVessel(QPainter& p, const QRectF& room) const {
  const auto& t = theme();
  p.fillRect(room, t.page);
  if (m_share) {
    const QRectF wet(room.left(), room.bottom() - room.height() * *m_share, room.width(),
                     room.height() * *m_share);
    fillAsWater(p, wet);
  } else {
    p.setFont(faceOf(12));
    p.setPen(t.inkSoft);
    paintLine(p, room, Qt::AlignCenter, "?");
  }
  if (m_low) {
    const double y = room.bottom() - room.height() * *m_low;
    p.setPen(QPen(t.amber, 2));
    p.drawLine(QPointF(room.left() - 3, y), QPointF(room.left() + room.width() / 3, y));
  }
  p.setPen(QPen(t.inkSoft, 1.5));
  p.setBrush(Qt::NoBrush);
  p.drawPolyline(QPolygonF({room.topLeft(), room.bottomLeft(), room.bottomRight(), room.topRight()}));
}

void VesselCard::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(isChecked() ? t.accent : t.line, isChecked() ? 2 : 1));
  p.setBrush(t.card);
  p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 6, 6);
  if (hasFocus()) {
    p.setPen(QPen(t.accent, 1, Qt::DotLine));
    p.drawRoundedRect(QRectF(rect()).adjusted(4, 4, -4, -4), 4, 4);
  }
  paintVessel(p, QRectF(12, 9, 30, height() - 18));
  const double left = 54, room = width() - left - 8;
  const auto line = [&](double y, int size, bool bold, const QColor& ink, const QString& text) {
    p.setFont(faceOf(size, bold));
    p.setPen(ink);
    paintLine(p, QRectF(left, y, room, 18), Qt::AlignLeft | Qt::AlignVCenter,
              fittedText(p.fontMetrics(), text, static_cast<int>(room)));
  };
  line(4, 14, true, t.ink, m_name);
  line(22, 13, false, t.ink, m_readings);
  line(40, 12, m_troubled, m_troubled ? t.red : t.inkSoft, m_when);
}

} // namespace butte::app
