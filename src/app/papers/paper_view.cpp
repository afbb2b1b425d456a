#include "papers/paper_view.h"

#include "paint/theme.h"
#include "wording/tr.h"

#include <QPaintEvent>
#include <QPainter>
#include <algorithm>

namespace butte::app {

namespace {

constexpr double margin = 10, between = 14;

QRectF roomOfWord(const reading::SetWord& word) {
  return {word.left, word.top, word.right - word.left, word.bottom - word.top};
}

} // namespace

PaperView::PaperView(QWidget* parent) : QWidget(parent) {
  setObjectName("paperView");
  setAccessibleName(tr("the paper as it looks"));
}

void PaperView::show(const scan::Paper& paper) {
  m_pages.clear();
  m_marks.clear();
  m_text = paper.readings.empty() ? reading::LaidOut() : paper.readings.front();
  for (const auto& picture : paper.pages)
    m_pages.push_back({picture, {}, 0, 1, {}});
  for (const auto& word : m_text.words) {
    if (word.page < m_pages.size()) m_pages[word.page].text |= roomOfWord(word);
  }
  layOut();
}

void PaperView::mark(const reading::ReportText& read) {
  std::vector<reading::Place> sure, asks;
  for (const auto& row : read.read)
    sure.push_back(row.place);
  for (const auto& row : read.unplaced)
    if (row.why != reading::WhyUnplaced::NotNeeded) asks.push_back(row.place);
  markLines(sure, asks);
}

void PaperView::markLines(const std::vector<reading::Place>& sure, const std::vector<reading::Place>& asks) {
  m_marks.clear();
  for (const auto* places : {&sure, &asks}) {
    for (const auto& place : *places) {
      std::size_t page = 0;
      const auto room = roomOf(place, page);
      if (!room.isNull() && page < m_pages.size()) m_marks.push_back({page, room, places == &asks});
    }
  }
  update();
}

/// The room it says; else the words that stand there; of a place without any, the whole line.
QRectF PaperView::roomOf(const reading::Place& place, std::size_t& page) const {
  if (place.room) {
    page = place.room->page;
    return {QPointF(place.room->left, place.room->top), QPointF(place.room->right, place.room->bottom)};
  }
  QRectF out;
  for (const auto& word : m_text.words) {
    if (word.to <= place.from || word.from >= place.to) continue;
    out |= roomOfWord(word);
    page = word.page;
  }
  const auto line = static_cast<std::size_t>(std::max(1, place.line) - 1);
  if (!out.isNull() || line >= m_text.strips.size()) return out;
  const auto& strip = m_text.strips[line];
  page = strip.page;
  return {strip.left, strip.top, strip.right - strip.left, strip.bottom - strip.top};
}

void PaperView::layOut() {
  double top = margin;
  for (auto& page : m_pages) {
    const auto whole = QRectF(page.picture.rect());
    const double air = whole.width() * 0.015;
    if (page.text.isEmpty()) page.text = whole;
    page.text = page.text.adjusted(-air, -air, air, air).intersected(whole);
    const double wide = std::max(1.0, width() - 2 * margin);
    page.scale = std::min(1.0, wide / std::max(1.0, page.text.width()));
    page.top = top;
    const auto size = (page.text.size() * page.scale).toSize();
    page.shown = QPixmap::fromImage(page.picture.copy(page.text.toAlignedRect())
                                        .scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation));
    top += size.height() + between;
  }
  setMinimumHeight(static_cast<int>(top));
  update();
  emit moved();
}

void PaperView::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  if (event->size().width() != event->oldSize().width()) layOut();
}

QRectF PaperView::onView(std::size_t page, const QRectF& room) const {
  const auto& p = m_pages[page];
  return {margin + (room.left() - p.text.left()) * p.scale, p.top + (room.top() - p.text.top()) * p.scale,
          room.width() * p.scale, room.height() * p.scale};
}

int PaperView::lineTop(int line) const {
  const auto at = static_cast<std::size_t>(std::max(1, line) - 1);
  if (at >= m_text.strips.size()) return 0;
  const auto& strip = m_text.strips[at];
  if (strip.page >= m_pages.size()) return 0;
  return static_cast<int>(onView(strip.page, {0, strip.top, 1, 1}).top());
}

int PaperView::lineHeight(int line) const {
  const auto at = static_cast<std::size_t>(std::max(1, line) - 1);
  if (at >= m_text.strips.size() || m_text.strips[at].page >= m_pages.size()) return 16;
  const auto& strip = m_text.strips[at];
  return std::max(8, static_cast<int>((strip.bottom - strip.top) * m_pages[strip.page].scale));
}

QRectF PaperView::roomOfFigure(const reading::Place& place, const std::string& figure) const {
  for (const auto& word : m_text.words) {
    const bool inside = word.from >= place.from && word.to <= place.to;
    if (inside && m_text.text.compare(word.from, word.to - word.from, figure) == 0) return roomOfWord(word);
  }
  return {};
}

QPixmap PaperView::around(const reading::Place& place, const std::string& figure, int height) const {
  std::size_t page = 0;
  auto room = roomOf(place, page);
  // A whole line would be too small to read there.
  constexpr double longest = 7;
  if (room.width() > longest * room.height() && !figure.empty()) room = roomOfFigure(place, figure);
  if (room.isNull() || page >= m_pages.size() || room.width() > longest * room.height()) return {};
  const double air = room.height() * 0.35;
  const auto cut = room.adjusted(-2 * air, -air, 2 * air, air).toAlignedRect();
  const auto piece = m_pages[page].picture.copy(cut);
  constexpr int widest = 150;
  return QPixmap::fromImage(
      piece.scaled(QSize(widest, height), Qt::KeepAspectRatio, Qt::SmoothTransformation));
}

void PaperView::paintEvent(QPaintEvent* event) {
  QPainter painter(this);
  painter.fillRect(event->rect(), theme().card);
  for (const auto& page : m_pages) {
    const QRectF room(QPointF(margin, page.top), QSizeF(page.shown.size()));
    if (room.intersects(QRectF(event->rect()))) painter.drawPixmap(room.topLeft(), page.shown);
  }
  painter.setRenderHint(QPainter::Antialiasing);
  for (const auto& mark : m_marks) {
    const auto room = onView(mark.page, mark.room).adjusted(-2, -1, 2, 2);
    if (mark.asks) {
      auto shade = theme().amber;
      shade.setAlpha(70);
      painter.fillRect(room, shade);
    }
    painter.setPen(QPen(mark.asks ? theme().amber : theme().accent, 2));
    painter.drawLine(room.bottomLeft(), room.bottomRight());
  }
}

} // namespace butte::app
