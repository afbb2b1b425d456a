#include "stations/shelf/product_plank.h"

#include "paint/fitted_text.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/shelf_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double nameWidth = 210, lastsWidth = 176, margin = 10;
constexpr double bagWidth = 30, bagHeight = 42, gap = 4;

/// A sack that is tied at the top.
QPainterPath sack(const QRectF& room) {
  const double neck = room.width() * 0.22, shoulder = room.height() * 0.2, round = room.width() * 0.14;
  const double middle = room.center().x(), top = room.top() + room.height() * 0.08;
  QPainterPath out;
  out.moveTo(middle - neck, top);
  out.quadTo(middle - neck * 0.7, top + shoulder * 0.5, room.left() + 1, top + shoulder);
  out.lineTo(room.left(), room.bottom() - round);
  out.quadTo(room.left(), room.bottom(), room.left() + round, room.bottom());
  out.lineTo(room.right() - round, room.bottom());
  out.quadTo(room.right(), room.bottom(), room.right(), room.bottom() - round);
  out.lineTo(room.right() - 1, top + shoulder);
  out.quadTo(middle + neck * 0.7, top + shoulder * 0.5, middle + neck, top);
  out.closeSubpath();
  return out;
}
} // namespace

ProductPlank::ProductPlank(std::string product, QWidget* parent)
    : QAbstractButton(parent), m_product(std::move(product)) {
  setCheckable(true);
  setAutoExclusive(true);
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  m_look = usualLook(m_product);
}

void ProductPlank::show(const ShelfStory& story, const UnitsShown& units) {
  const auto* product = story.of(m_product);
  if (!product) return;
  m_name = qtext(product->name);
  m_left = product->lots.empty() ? tr("no delivery told") : tr("%1 left").arg(sackText(product->left, units));
  m_used = product->need.from != core::NeedFrom::Nothing;
  m_lasts = product->lots.empty() && m_used ? QString("–") : lastsText(*product);
  const auto hurry = product->lots.empty() ? QString() : hurryText(*product);
  m_hasty = !hurry.isEmpty();
  m_below = m_hasty  ? hurry
            : m_used ? tr("%1 a week").arg(sackText(product->rate.perWeek, units))
                     : QString();
  m_bags.clear();
  bool past = false;
  for (const auto index : product->lots) {
    const auto& lot = story.shelf.coreLots[index];
    const double bags = lot.bag > core::Mass() ? story.account.lots[index].left / lot.bag : 0;
    constexpr double usualKg = 25, smallest = 0.5;
    const bool isPast = lot.bestBeforeSeconds && *lot.bestBeforeSeconds < story.now.seconds;
    const double size = std::clamp(std::cbrt(lot.bag.kilograms() / usualKg), smallest, 1.1);
    constexpr double crumbs = 0.004; // of a bag: swept off
    for (double rest = bags; rest > crumbs && m_bags.size() < 200; rest -= 1)
      m_bags.push_back({size, std::min(rest, 1.0), isPast});
    past = past || (isPast && bags > crumbs);
  }
  m_said = tr("%1: %2, %3, %4").arg(m_name, m_left, m_lasts, m_below);
  if (past) m_said += tr(", a bag past its date");
  setAccessibleName(m_said);
  setToolTip(
      tr("%1\n%2\nneed ahead: %3").arg(m_said, useText(*product, units), needFromText(product->need.from)));
  update();
}

void ProductPlank::paintBag(QPainter& p, const QRectF& room, const Bag& bag) const {
  const auto& t = theme();
  const auto path = sack(room);
  p.fillPath(path, t.page);
  p.save();
  p.setClipPath(path);
  constexpr double leastSeen = 3; // what is left is to be seen
  const double filled =
      std::max(room.height() * 0.8 * bag.share, leastSeen) + (bag.share >= 1 ? room.height() * 0.2 : 0);
  fillAs(p, QRectF(room.left(), room.bottom() - filled, room.width(), filled), m_look);
  p.restore();
  p.setPen(QPen(bag.isPast ? t.amber : t.inkSoft, bag.isPast ? 2.4 : 1.3));
  p.setBrush(Qt::NoBrush);
  p.drawPath(path);
  if (!bag.isPast) return;
  p.setFont(faceOf(14, true));
  p.setPen(t.ink);
  paintLine(p, room, Qt::AlignCenter, "!");
}

void ProductPlank::paintBags(QPainter& p, double left, double right) const {
  const double bottom = height() - 9;
  double x = left;
  for (std::size_t i = 0; i < m_bags.size(); ++i) {
    const double width = bagWidth * m_bags[i].size, tall = bagHeight * m_bags[i].size;
    constexpr double moreRoom = 40;
    const bool isLast = i + 1 == m_bags.size();
    if (x + width > right - (isLast ? 0 : moreRoom)) {
      p.setFont(faceOf(13, true));
      p.setPen(theme().ink);
      paintLine(p, QRectF(x, bottom - 20, right - x, 18), Qt::AlignLeft | Qt::AlignVCenter,
                tr("+ %1").arg(m_bags.size() - i));
      break;
    }
    paintBag(p, QRectF(x, bottom - tall, width, tall), m_bags[i]);
    x += width + gap;
  }
  p.setPen(QPen(theme().line, 3));
  p.drawLine(QPointF(left - 4, bottom + 2), QPointF(right, bottom + 2));
}

void ProductPlank::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(isChecked() ? t.accent : t.line, isChecked() ? 2 : 1));
  p.setBrush(t.card);
  p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 5, 5);
  if (hasFocus()) {
    p.setPen(QPen(t.accent, 1, Qt::DotLine));
    p.drawRoundedRect(QRectF(rect()).adjusted(4, 4, -4, -4), 4, 4);
  }
  const auto line = [&](const QRectF& room, int size, bool bold, const QColor& ink, const QString& text) {
    p.setFont(faceOf(size, bold));
    p.setPen(ink);
    paintLine(p, room, Qt::AlignLeft | Qt::AlignVCenter,
              fittedText(p.fontMetrics(), text, static_cast<int>(room.width())));
  };
  line(QRectF(margin, 8, nameWidth - margin, 20), 14, true, t.ink, m_name);
  line(QRectF(margin, 30, nameWidth - margin, 18), 13, false, t.inkSoft, m_left);
  const double right = width() - lastsWidth;
  paintBags(p, nameWidth + margin, right - margin);
  line(QRectF(right, 6, lastsWidth - margin, 24), 17, true, m_used ? t.ink : t.inkSoft, m_lasts);
  double at = right;
  if (m_hasty) {
    QPolygonF sign{QPointF(at + 7, 33), QPointF(at + 14, 46), QPointF(at, 46)};
    p.setPen(Qt::NoPen);
    p.setBrush(t.amber);
    p.drawPolygon(sign);
    at += 20;
  }
  line(QRectF(at, 30, width() - at - margin, 18), 13, m_hasty, m_hasty ? t.ink : t.inkSoft, m_below);
}

} // namespace butte::app
