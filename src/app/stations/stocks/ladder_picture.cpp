#include "stations/stocks/ladder_picture.h"

#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>

namespace butte::app {

namespace {
constexpr double vesselWidth = 150, vesselRoom = 360; ///< the vessel, and with what is said beside it
constexpr double tallestRow = 40, amountWidth = 104, rungNameWidth = 236, readingWidth = 112;
constexpr double meterLeft = amountWidth + rungNameWidth + 24;
} // namespace

LadderPicture::LadderPicture(QWidget* parent) : QWidget(parent) {
  setObjectName("ladder");
  setAccessibleName(tr("the vessel, salt by salt"));
  setMinimumHeight(180);
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Expanding);
}

void LadderPicture::show(Shown shown) {
  if (shown == m_shown) return;
  m_shown = std::move(shown);
  QStringList words{m_shown.first};
  for (const auto& level : m_shown.levels)
    words << level.words;
  for (const auto& rung : m_shown.rungs)
    words << rung.amount + " " + rung.name + ", " + rung.reading +
                 (rung.trouble.isEmpty() ? QString() : ", " + rung.trouble);
  words << m_shown.last;
  setAccessibleDescription(words.join("; "));
  update();
}

double LadderPicture::highest() const {
  double most = std::max(m_shown.finished, m_shown.before);
  for (const auto& rung : m_shown.rungs)
    most = std::max(most, rung.after);
  return most > 0 ? most : 1;
}

double LadderPicture::meterAt(const QRectF& row, double milliSiemens) const {
  const double room = std::max(40.0, row.width() - meterLeft - readingWidth - 8);
  return row.left() + meterLeft + room * std::clamp(milliSiemens / highest(), 0.0, 1.0);
}

void LadderPicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  paintVessel(p, QRectF(0, 6, vesselRoom, height() - 12));
  const QRectF side(vesselRoom + 12, 0, width() - vesselRoom - 12, height());
  const double rows = static_cast<double>(m_shown.rungs.size()) + 2;
  const double h = std::min(tallestRow, side.height() / rows);
  paintEnd(p, QRectF(side.left(), 0, side.width(), h), m_shown.firstName, m_shown.first, m_shown.before);
  for (std::size_t i = 0; i < m_shown.rungs.size(); ++i)
    paintRung(p, QRectF(side.left(), h * static_cast<double>(i + 1), side.width(), h), i);
  paintEnd(p, QRectF(side.left(), h * (rows - 1), side.width(), h), tr("made up to the mark"), m_shown.last,
           m_shown.finished);
}

void LadderPicture::paintVessel(QPainter& p, const QRectF& room) const {
  const auto& t = theme();
  const QRectF inside(room.left() + 6, room.top(), vesselWidth, room.height() - 6);
  const auto heightOf = [&](double share) { return inside.bottom() - 0.94 * inside.height() * share; };
  p.fillRect(inside, t.card);
  const double full = m_shown.levels.empty() ? 0 : m_shown.levels.back().share;
  fillAsWater(p, QRectF(inside.left(), heightOf(full), inside.width(), inside.bottom() - heightOf(full)));
  if (m_shown.present > 0) {
    auto feed = t.accent;
    feed.setAlpha(70);
    p.fillRect(QRectF(inside.left(), heightOf(m_shown.present), inside.width(),
                      inside.bottom() - heightOf(m_shown.present)),
               feed);
  }
  p.setPen(QPen(t.inkSoft, 3));
  p.drawPolyline(QPolygonF{inside.topLeft(), inside.bottomLeft(), inside.bottomRight(), inside.topRight()});
  p.setFont(faceOf(12));
  double free = room.bottom();
  for (const auto& level : m_shown.levels) {
    const double y = heightOf(level.share);
    p.setPen(QPen(t.ink, 1.4, level.share < full ? Qt::DashLine : Qt::SolidLine));
    p.drawLine(QPointF(inside.left(), y), QPointF(inside.right() + 12, y));
    // Words of levels that stand close keep clear of one another.
    const QRectF words(inside.right() + 16, 0, room.right() - inside.right() - 16, 34);
    const double top = std::min(y - 17, free - 34);
    free = top;
    p.setPen(t.ink);
    p.drawText(QRectF(words.left(), top, words.width(), words.height()),
               Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap, level.words);
  }
}

void LadderPicture::paintEnd(QPainter& p, const QRectF& row, const QString& name, const QString& reading,
                             double at) const {
  const auto& t = theme();
  const double x = meterAt(row, at);
  p.setPen(t.inkSoft);
  p.setFont(faceOf(13));
  paintLine(p, QRectF(row.left() + amountWidth + 18, row.top(), rungNameWidth, row.height()),
            Qt::AlignLeft | Qt::AlignVCenter, name);
  p.setPen(QPen(t.accent, 2));
  p.drawLine(QPointF(x, row.top() + 4), QPointF(x, row.bottom() - 4));
  p.setPen(t.ink);
  p.setFont(faceOf(13, true));
  paintReading(p, row, x, x, reading);
}

/// Behind its place on the meter's way; before it where there is no room.
void LadderPicture::paintReading(QPainter& p, const QRectF& row, double from, double x,
                                 const QString& reading) const {
  const bool fits = x + 6 + QFontMetrics(p.font()).horizontalAdvance(reading) <= row.right();
  const QRectF behind(x + 6, row.top(), row.right() - x - 6, row.height());
  const double start = row.left() + meterLeft - rungNameWidth / 2;
  const QRectF before(start, row.top(), from - 6 - start, row.height());
  paintLine(p, fits ? behind : before, (fits ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter, reading);
}

void LadderPicture::paintRung(QPainter& p, const QRectF& row, std::size_t index) const {
  const auto& t = theme();
  const auto& rung = m_shown.rungs[index];
  const double before = index == 0 ? m_shown.before : m_shown.rungs[index - 1].after;
  const double from = meterAt(row, before), to = meterAt(row, rung.after);
  p.setPen(rung.trouble.isEmpty() ? t.ink : t.amber);
  p.setFont(faceOf(row.height() > 26 ? 16 : 13, true));
  paintLine(p, QRectF(row.left(), row.top(), amountWidth, row.height()), Qt::AlignRight | Qt::AlignVCenter,
            rung.amount);
  fillAs(p, QRectF(row.left() + amountWidth + 6, row.top() + 4, 8, row.height() - 8), rung.look);
  p.setFont(faceOf(13));
  const QRectF name(row.left() + amountWidth + 18, row.top(), rungNameWidth, row.height());
  const bool two = !rung.trouble.isEmpty() && row.height() > 30;
  p.setPen(t.ink);
  paintLine(p, two ? QRectF(name.left(), name.top(), name.width(), name.height() / 2) : name,
            Qt::AlignLeft | Qt::AlignVCenter,
            QFontMetrics(p.font()).elidedText(rung.name, Qt::ElideRight, static_cast<int>(rungNameWidth)));
  if (two) {
    p.setFont(faceOf(11));
    p.setPen(t.amber);
    paintLine(p,
              QRectF(name.left(), name.center().y(), std::max(name.width(), from - name.left() - 8),
                     name.height() / 2),
              Qt::AlignLeft | Qt::AlignVCenter, rung.trouble);
  }
  p.setPen(t.line);
  p.drawLine(QPointF(from, row.top() - 4), QPointF(from, row.top() + 5));
  fillAs(p, QRectF(from, row.top() + row.height() / 2 - 6, std::max(2.0, to - from), 12), rung.look);
  p.setPen(t.ink);
  p.setFont(faceOf(13));
  paintReading(p, row, from, to, rung.reading);
}

} // namespace butte::app
