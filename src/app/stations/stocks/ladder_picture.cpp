#include "stations/stocks/ladder_picture.h"

#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>

namespace butte::app {

namespace {
constexpr double vesselWidth = 150, vesselRoom = 360; ///< the vessel, and with what is said beside it
constexpr double leastVesselRoom = 190, leastVesselWords = 124, leastMeter = 40;
constexpr double tallestRow = 40, shortestRow = 20, shortestRowOfTwo = 30;
constexpr double afterAmount = 18, afterName = 6, aroundMeter = 8, besideVessel = 12, beforeWords = 22;

double widthOf(const QString& text, int size, bool bold) {
  return std::ceil(QFontMetricsF(faceOf(size, bold)).horizontalAdvance(text)) + 2;
}
} // namespace

double LadderPicture::Columns::meterLeft() const {
  return amount + afterAmount + name + afterName;
}

/// As narrow as its words can stand.
LadderPicture::Columns LadderPicture::leastColumns() const {
  Columns out{leastVesselRoom, 0, 0, 0,
              std::max(widthOf(m_shown.first, 13, true), widthOf(m_shown.last, 13, true))};
  out.name = std::max(widthOf(m_shown.firstName, 13, false), widthOf(lastName(), 13, false));
  for (const auto& rung : m_shown.rungs) {
    out.amount = std::max(out.amount, widthOf(rung.amount, 16, true));
    out.name = std::max(out.name, widthOf(rung.name, 13, false));
    out.reading = std::max(out.reading, widthOf(rung.reading, 13, false));
  }
  for (const auto& rung : m_shown.rungs)
    out.name = std::max(out.name, widthOf(rung.trouble, 11, false) - out.amount - afterAmount);
  return out;
}

LadderPicture::Columns LadderPicture::columns() const {
  auto out = leastColumns();
  const double rest = width() - besideVessel - out.meterLeft() - leastMeter - aroundMeter - out.reading;
  out.room = std::clamp(rest, leastVesselRoom, vesselRoom);
  out.vessel = std::min(vesselWidth, out.room - beforeWords - std::max(leastVesselWords, out.room / 2));
  return out;
}

/// Two lines stand in a row whose amount is in trouble.
double LadderPicture::leastRow() const {
  const bool two = std::any_of(m_shown.rungs.begin(), m_shown.rungs.end(),
                               [](const Rung& rung) { return !rung.trouble.isEmpty(); });
  return two ? shortestRowOfTwo : shortestRow;
}

QString LadderPicture::lastName() {
  return tr("made up to the mark");
}

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
  m_columns = leastColumns();
  setMinimumWidth(static_cast<int>(std::ceil(m_columns.room + besideVessel + m_columns.meterLeft() +
                                             leastMeter + aroundMeter + m_columns.reading)));
  const double rows = static_cast<double>(m_shown.rungs.size()) + 2;
  setMinimumHeight(static_cast<int>(std::max(180.0, rows * leastRow())));
  update();
}

double LadderPicture::highest() const {
  double most = std::max(m_shown.finished, m_shown.before);
  for (const auto& rung : m_shown.rungs)
    most = std::max(most, rung.after);
  return most > 0 ? most : 1;
}

double LadderPicture::meterAt(const QRectF& row, double milliSiemens) const {
  const double left = m_columns.meterLeft();
  const double room = std::max(leastMeter, row.width() - left - m_columns.reading - aroundMeter);
  return row.left() + left + room * std::clamp(milliSiemens / highest(), 0.0, 1.0);
}

QRectF LadderPicture::nameRoom(const QRectF& row) const {
  return {row.left() + m_columns.amount + afterAmount, row.top(), m_columns.name, row.height()};
}

void LadderPicture::paintEvent(QPaintEvent*) {
  m_columns = columns();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  paintVessel(p, QRectF(0, 6, m_columns.room, height() - 12));
  const double sideLeft = m_columns.room + besideVessel;
  const QRectF side(sideLeft, 0, width() - sideLeft, height());
  const double rows = static_cast<double>(m_shown.rungs.size()) + 2;
  const double h = std::min(tallestRow, side.height() / rows);
  paintEnd(p, QRectF(side.left(), 0, side.width(), h), m_shown.firstName, m_shown.first, m_shown.before);
  for (std::size_t i = 0; i < m_shown.rungs.size(); ++i)
    paintRung(p, QRectF(side.left(), h * static_cast<double>(i + 1), side.width(), h), i);
  paintEnd(p, QRectF(side.left(), h * (rows - 1), side.width(), h), lastName(), m_shown.last,
           m_shown.finished);
}

void LadderPicture::paintVessel(QPainter& p, const QRectF& room) const {
  const auto& t = theme();
  const QRectF inside(room.left() + 6, room.top(), m_columns.vessel, room.height() - 6);
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
    const QRectF words(inside.right() + 16, 0, room.right() - inside.right() - 16, room.height());
    constexpr int how = Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap;
    const double high = p.fontMetrics().boundingRect(words.toRect(), how, level.words).height() + 2;
    const double top = std::min(y - high / 2, free - high);
    free = top;
    p.setPen(t.ink);
    p.drawText(QRectF(words.left(), top, words.width(), high), how, level.words);
  }
}

void LadderPicture::paintEnd(QPainter& p, const QRectF& row, const QString& name, const QString& reading,
                             double at) const {
  const auto& t = theme();
  const double x = meterAt(row, at);
  p.setPen(t.inkSoft);
  p.setFont(faceOf(13));
  paintLine(p, nameRoom(row), Qt::AlignLeft | Qt::AlignVCenter, name);
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
  const double start = nameRoom(row).right();
  const QRectF before(start, row.top(), from - 6 - start, row.height());
  paintLine(p, fits ? behind : before, (fits ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter, reading);
}

void LadderPicture::paintRung(QPainter& p, const QRectF& row, std::size_t index) const {
  const auto& t = theme();
  const auto& rung = m_shown.rungs[index];
  const double before = index == 0 ? m_shown.before : m_shown.rungs[index - 1].after;
  const double from = meterAt(row, before), to = meterAt(row, rung.after);
  const bool two = !rung.trouble.isEmpty() && row.height() >= shortestRowOfTwo;
  const double lineHeight = two ? row.height() / 2 : row.height();
  p.setPen(rung.trouble.isEmpty() ? t.ink : t.amber);
  p.setFont(faceOf(lineHeight > 18 ? 16 : 13, true));
  paintLine(p, QRectF(row.left(), row.top(), m_columns.amount, lineHeight), Qt::AlignRight | Qt::AlignVCenter,
            rung.amount);
  const auto name = nameRoom(row);
  fillAs(p, QRectF(name.left() - 12, row.top() + 4, 8, lineHeight - (two ? 4 : 8)), rung.look);
  p.setFont(faceOf(13));
  p.setPen(t.ink);
  paintLine(p, QRectF(name.left(), name.top(), name.width(), lineHeight), Qt::AlignLeft | Qt::AlignVCenter,
            rung.name);
  if (two) {
    p.setFont(faceOf(11));
    p.setPen(t.amber);
    // Under its name; from further left on where it is longer.
    const bool fits = QFontMetricsF(p.font()).horizontalAdvance(rung.trouble) <= name.width();
    const QRectF below(row.left(), row.top() + lineHeight, name.right() - row.left(), lineHeight);
    paintLine(p, fits ? below.adjusted(name.left() - row.left(), 0, 0, 0) : below,
              (fits ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter, rung.trouble);
  }
  p.setPen(t.line);
  p.drawLine(QPointF(from, row.top() - 4), QPointF(from, row.top() + 5));
  fillAs(p, QRectF(from, row.top() + row.height() / 2 - 6, std::max(2.0, to - from), 12), rung.look);
  p.setPen(t.ink);
  p.setFont(faceOf(13));
  paintReading(p, row, from, to, rung.reading);
}

} // namespace butte::app
