#include "stations/book/vessels_now.h"

#include "deed_words.h"
#include "document/book_desk.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>

namespace butte::app {

namespace {
constexpr int nameHeight = 28, lineHeight = 48, gapBelow = 12;
constexpr std::int64_t day = 86400, week = 7 * day;

/// "29 Nov 08:10"; of another year the day with it.
QString lately(book::Moment at) {
  const auto when = QDateTime::fromSecsSinceEpoch(at.seconds);
  return when.date().year() == QDate::currentDate().year() ? QLocale().toString(when, "d MMM HH:mm")
                                                           : dayText(at);
}
} // namespace

VesselsNow::VesselsNow(BookDesk& desk, QWidget* parent) : QWidget(parent), m_desk(desk) {
  setObjectName("vesselsNow");
  setAccessibleName(tr("what every vessel read last"));
}

std::vector<VesselsNow::Line> VesselsNow::linesOf(const std::string& vesselUid) const {
  auto& store = m_desk.book().store();
  std::vector<Line> out;
  for (const auto& quantity : book::quantities()) {
    book::ReadingFilter filter{vesselUid, std::string(quantity.code), {}, {}};
    const auto last = store.readings(std::nullopt, 1, filter);
    if (!last || last->empty()) continue;
    const auto& reading = last->front();
    filter.from = book::Moment{reading.at.seconds - week};
    filter.before = book::Moment{reading.at.seconds + 1};
    double least = reading.value, most = reading.value;
    if (const auto days = store.readingBuckets(filter, day))
      for (const auto& bucket : *days)
        least = std::min(least, bucket.least), most = std::max(most, bucket.most);
    Line line{qtext(words::quantityName(filter.quantity)), readingText(reading),
              readingValueText(quantity.code, least), readingValueText(quantity.code, most), reading.at};
    if (most > least) line.share = (reading.value - least) / (most - least);
    out.push_back(line);
  }
  return out;
}

void VesselsNow::reload() {
  m_vessels.clear();
  if (m_desk.isOpen()) {
    if (const auto heads = m_desk.book().store().list(book::Kind::Vessel, false))
      for (const auto& head : *heads)
        if (auto lines = linesOf(head.ref.uid); !lines.empty())
          m_vessels.push_back({qtext(head.name), std::move(lines)});
  }
  int height = 0;
  for (const auto& vessel : m_vessels)
    height += nameHeight + lineHeight * static_cast<int>(vessel.lines.size()) + gapBelow;
  setFixedHeight(height);
  describe();
  update();
}

void VesselsNow::describe() {
  QStringList out;
  for (const auto& vessel : m_vessels)
    for (const auto& line : vessel.lines)
      out << tr("%1: %2 %3 on %4, in the week before %5 to %6")
                 .arg(vessel.name, line.quantity, line.value, whenText(line.at), line.least, line.most);
  setAccessibleDescription(out.join("; "));
}

void VesselsNow::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  double y = 0;
  for (const auto& vessel : m_vessels) {
    p.setPen(theme().ink);
    p.setFont(faceOf(15, true));
    paintLine(p, QRectF(0, y, width(), nameHeight), Qt::AlignLeft | Qt::AlignVCenter,
              p.fontMetrics().elidedText(vessel.name, Qt::ElideRight, width()));
    if (y == 0) {
      p.setFont(faceOf(11));
      p.setPen(theme().inkSoft);
      paintLine(p, QRectF(0, y, width(), nameHeight), Qt::AlignRight | Qt::AlignVCenter,
                tr("least and most of the week"));
    }
    y += nameHeight;
    for (const auto& line : vessel.lines) {
      paintLineOf(p, QRectF(0, y, width(), lineHeight - 4), line);
      y += lineHeight;
    }
    y += gapBelow;
  }
}

void VesselsNow::paintLineOf(QPainter& p, const QRectF& row, const Line& line) const {
  const auto& t = theme();
  p.fillRect(row, t.card);
  const QRectF inside = row.adjusted(8, 2, -8, -2);
  p.setPen(t.inkSoft);
  p.setFont(faceOf(12));
  const QRectF upper(inside.left(), inside.top(), inside.width(), 20);
  const QRectF lower(inside.left(), inside.top() + 22, inside.width(), 16);
  paintLine(p, upper, Qt::AlignLeft | Qt::AlignVCenter, line.quantity);
  paintLine(p, upper, Qt::AlignRight | Qt::AlignVCenter, lately(line.at));
  const double nameRoom = p.fontMetrics().horizontalAdvance(line.quantity) + 10;
  p.setPen(t.ink);
  p.setFont(faceOf(16, true));
  paintLine(p, upper.adjusted(nameRoom, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, line.value);
  if (line.share < 0) return;
  p.setFont(faceOf(11));
  p.setPen(t.inkSoft);
  const double leastWidth = p.fontMetrics().horizontalAdvance(line.least) + 8,
               mostWidth = p.fontMetrics().horizontalAdvance(line.most) + 8;
  paintLine(p, lower, Qt::AlignLeft | Qt::AlignVCenter, line.least);
  paintLine(p, lower, Qt::AlignRight | Qt::AlignVCenter, line.most);
  const QRectF way(lower.left() + leastWidth, lower.center().y() - 2, lower.width() - leastWidth - mostWidth,
                   4);
  p.fillRect(way, t.line);
  p.setPen(Qt::NoPen);
  p.setBrush(t.accent);
  p.drawEllipse(QPointF(way.left() + line.share * way.width(), way.center().y()), 6, 6);
}

} // namespace butte::app
