#include "stations/shelf/agenda_picture.h"

#include "document/local_day.h"
#include "paint/theme.h"
#include "wording/agenda_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QApplication>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>

namespace butte::app {

using std::chrono::days;

namespace {
constexpr int daysPerWeek = 7, weeksShown = 2;
constexpr double gap = 4, headHeight = 20, cardHeight = 38, lateWidth = 210;
} // namespace

AgendaPicture::AgendaPicture(QWidget* parent) : QWidget(parent) {
  setObjectName("agenda");
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("what is to be done, day by day"));
}

void AgendaPicture::show(const SharedShelfStory& story) {
  m_story = story;
  m_dragged = -1;
  if (m_chosen >= static_cast<int>(m_story->agenda.due.size())) m_chosen = -1;
  layOut();
  QStringList said;
  for (const auto& due : m_story->agenda.due)
    said << tr("%1: %2").arg(dayWords(due.on), choreText(m_story->agenda.items[due.chore]));
  setAccessibleDescription(said.join("; "));
}

void AgendaPicture::choose(int due) {
  if (due >= static_cast<int>(m_story->agenda.due.size())) due = -1;
  m_chosen = due;
  update();
  emit picked(due);
}

double AgendaPicture::lateHeight() const {
  const auto late = std::count_if(m_story->agenda.due.begin(), m_story->agenda.due.end(),
                                  [&](const core::Due& due) { return due.on < m_story->today; });
  if (late == 0) return 0;
  const auto inRow = std::max(1, static_cast<int>(width() / (lateWidth + gap)));
  const auto rows = std::min<long>(2, (late + inRow - 1) / inRow);
  return headHeight + static_cast<double>(rows) * (cardHeight + gap) + gap;
}

QRectF AgendaPicture::roomOf(core::Day day) const {
  const auto place = (day - mondayOf(m_story->today)).count();
  if (place < 0 || place >= daysPerWeek * weeksShown) return {};
  const double top = lateHeight();
  const double wide = (width() - gap * (daysPerWeek - 1)) / daysPerWeek;
  const double tall = (height() - top - gap) / weeksShown;
  return {static_cast<double>(place % daysPerWeek) * (wide + gap),
          top + static_cast<double>(place / daysPerWeek) * (tall + gap), wide, tall};
}

void AgendaPicture::layOut() {
  m_cards.clear();
  m_more.clear();
  std::map<core::Day, int> inDay;
  int late = 0;
  const auto inRow = std::max(1, static_cast<int>(width() / (lateWidth + gap)));
  for (std::size_t i = 0; i < m_story->agenda.due.size(); ++i) {
    const auto& due = m_story->agenda.due[i];
    Card card{static_cast<int>(i), {}, choreText(m_story->agenda.items[due.chore]), due.on < m_story->today};
    if (card.isLate) {
      const int row = late / inRow, column = late % inRow;
      ++late;
      if (row > 1) continue;
      card.room =
          QRectF(column * (lateWidth + gap), headHeight + row * (cardHeight + gap), lateWidth, cardHeight);
    } else {
      const auto room = roomOf(due.on);
      if (room.isEmpty()) continue;
      const int place = inDay[due.on]++;
      card.room = QRectF(room.left() + 3, room.top() + headHeight + place * (cardHeight + 3),
                         room.width() - 6, cardHeight);
      if (card.room.bottom() > room.bottom() - 2) continue;
    }
    m_cards.push_back(std::move(card));
  }
  for (const auto& [day, count] : inDay) {
    const auto shown = std::count_if(m_cards.begin(), m_cards.end(), [&, on = day](const Card& card) {
      return !card.isLate && m_story->agenda.due[static_cast<std::size_t>(card.due)].on == on;
    });
    if (shown < count) m_more.emplace_back(day, count - static_cast<int>(shown));
  }
  update();
}

QRectF AgendaPicture::cardOf(int due) const {
  for (const auto& card : m_cards)
    if (card.due == due) return card.room;
  return {};
}

int AgendaPicture::cardAt(const QPointF& point) const {
  for (std::size_t i = 0; i < m_cards.size(); ++i)
    if (m_cards[i].room.contains(point)) return static_cast<int>(i);
  return -1;
}

std::optional<core::Day> AgendaPicture::dayAt(const QPointF& point) const {
  for (int place = 0; place < daysPerWeek * weeksShown; ++place) {
    const auto day = mondayOf(m_story->today) + days(place);
    if (roomOf(day).contains(point)) return day;
  }
  return std::nullopt;
}

void AgendaPicture::paintDay(QPainter& p, core::Day day) const {
  const auto& t = theme();
  const auto room = roomOf(day);
  const bool isToday = day == m_story->today, isPast = day < m_story->today;
  p.setPen(QPen(isToday ? t.accent : t.line, isToday ? 2 : 1));
  p.setBrush(isPast ? t.page : t.card);
  p.drawRoundedRect(room.adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
  p.setFont(faceOf(12, isToday));
  p.setPen(isPast ? t.inkSoft : t.ink);
  p.drawText(room.adjusted(6, 2, -4, 0), Qt::AlignLeft | Qt::AlignTop,
             isToday ? tr("today, %1").arg(QLocale().toString(dateOf(day), "d MMM")) : dayWords(day));
  for (const auto& [full, count] : m_more)
    if (full == day)
      p.drawText(room.adjusted(6, 0, -4, -2), Qt::AlignRight | Qt::AlignBottom, tr("+ %1").arg(count));
}

void AgendaPicture::paintCard(QPainter& p, const Card& card, const QRectF& room) const {
  const auto& t = theme();
  const bool isChosen = card.due == m_chosen;
  p.setBrush(isChosen ? t.accent : card.isLate ? t.amberFill : t.band);
  p.setPen(QPen(isChosen && hasFocus() ? t.amber : t.line, isChosen && hasFocus() ? 2 : 1));
  p.drawRoundedRect(room.adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
  p.setFont(faceOf(12, card.isLate));
  p.setPen(isChosen ? t.accentInk : card.isLate ? t.amberInk : t.ink);
  QTextOption wrap(Qt::AlignLeft | Qt::AlignVCenter);
  wrap.setWrapMode(QTextOption::WordWrap);
  const auto inside = room.adjusted(5, 1, -4, -1);
  auto text = card.text;
  // Two lines are what there is room for.
  const QFontMetrics metrics(p.font());
  while (text.size() > 4 &&
         metrics.boundingRect(QRect(0, 0, static_cast<int>(inside.width()), 1000), Qt::TextWordWrap, text)
                 .height() > inside.height())
    text = text.left(text.size() - 2 - (text.endsWith("…") ? 1 : 0)) + "…";
  p.drawText(inside, text, wrap);
}

void AgendaPicture::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (lateHeight() > 0) {
    p.setFont(faceOf(12, true));
    p.setPen(t.ink);
    p.drawText(QRectF(0, 0, width(), headHeight), Qt::AlignLeft | Qt::AlignVCenter, tr("▲ Late"));
  }
  for (int place = 0; place < daysPerWeek * weeksShown; ++place)
    paintDay(p, mondayOf(m_story->today) + days(place));
  for (const auto& card : m_cards)
    if (card.due != m_dragged) paintCard(p, card, card.room);
  for (const auto& card : m_cards)
    if (card.due == m_dragged) paintCard(p, card, card.room.translated(m_at - m_pressed));
}

void AgendaPicture::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  layOut();
}

void AgendaPicture::mousePressEvent(QMouseEvent* event) {
  const int card = cardAt(event->position());
  m_pressed = m_at = event->position();
  choose(card < 0 ? -1 : m_cards[static_cast<std::size_t>(card)].due);
}

void AgendaPicture::mouseMoveEvent(QMouseEvent* event) {
  if (!(event->buttons() & Qt::LeftButton) || m_chosen < 0) return;
  m_at = event->position();
  if (m_dragged < 0 && (m_at - m_pressed).manhattanLength() >= QApplication::startDragDistance())
    m_dragged = m_chosen;
  update();
}

void AgendaPicture::mouseReleaseEvent(QMouseEvent* event) {
  const int dragged = m_dragged;
  m_dragged = -1;
  update();
  if (dragged < 0) return;
  const auto day = dayAt(event->position());
  if (day && *day != m_story->agenda.due[static_cast<std::size_t>(dragged)].on)
    emit movedTo(dragged, dateOf(*day));
}

void AgendaPicture::mouseDoubleClickEvent(QMouseEvent* event) {
  const int card = cardAt(event->position());
  if (card >= 0) emit doneAsked(m_cards[static_cast<std::size_t>(card)].due);
}

void AgendaPicture::step(int by) {
  if (m_cards.empty()) return;
  int place = by > 0 ? -1 : static_cast<int>(m_cards.size());
  for (std::size_t i = 0; i < m_cards.size(); ++i)
    if (m_cards[i].due == m_chosen) place = static_cast<int>(i);
  place = std::clamp(place + by, 0, static_cast<int>(m_cards.size()) - 1);
  choose(m_cards[static_cast<std::size_t>(place)].due);
}

void AgendaPicture::keyPressEvent(QKeyEvent* event) {
  const bool moves = event->modifiers() & Qt::ControlModifier;
  const int by = event->key() == Qt::Key_Right || event->key() == Qt::Key_Down ? 1
                 : event->key() == Qt::Key_Left || event->key() == Qt::Key_Up  ? -1
                                                                               : 0;
  if (by != 0 && moves && m_chosen >= 0) {
    const auto& due = m_story->agenda.due[static_cast<std::size_t>(m_chosen)];
    const bool byWeek = event->key() == Qt::Key_Down || event->key() == Qt::Key_Up;
    emit movedTo(m_chosen, dateOf(std::max(due.on, m_story->today - days(by > 0 ? 1 : 0)) +
                                  days(by * (byWeek ? daysPerWeek : 1))));
    return;
  }
  if (by != 0) return step(by);
  const bool done =
      event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space;
  if (done && m_chosen >= 0) return emit doneAsked(m_chosen);
  QWidget::keyPressEvent(event);
}

bool AgendaPicture::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  const int card = cardAt(help->pos());
  if (card < 0)
    QToolTip::hideText();
  else
    QToolTip::showText(help->globalPos(), m_cards[static_cast<std::size_t>(card)].text.toHtmlEscaped(), this);
  return true;
}

} // namespace butte::app
