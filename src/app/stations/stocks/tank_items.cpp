#include "stations/stocks/tank_items.h"

#include "paint/hatch.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <QApplication>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr int smallest = 10; // dots of a name that would not go in otherwise
constexpr double tallest = 24, lowest = 14, wideBar = 40, narrowBar = 14, narrowRow = 300;
} // namespace

bool TankItems::Row::operator==(const Row& other) const {
  const auto pixels = [](const Row& r) { // of the bar, in halves; beyond its end only the colour tells
    if (!r.saturation) return -1L;
    return *r.saturation > 1 ? 1000L
                             : std::lround(2 * wideBar * *r.saturation) + (*r.saturation > 0.9 ? 500L : 0L);
  };
  return product == other.product && look == other.look && weight == other.weight && name == other.name &&
         knows == other.knows && byHand == other.byHand && falls == other.falls &&
         pixels(*this) == pixels(other);
}

TankItems::TankItems(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::OpenHandCursor);
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Expanding);
  setAccessibleName(tr("salts of the tank"));
  m_hint = tr(
      "Drag a salt into another tank (with Ctrl half of it), or left and right keys. Double-click, or "
      "Backspace: back to where the rules put it. The bar says how near it is to falling out on the coldest "
      "night.");
}

void TankItems::show(std::vector<Row> rows) {
  if (rows == m_rows) return;
  const bool otherRoom = rows.size() != m_rows.size();
  m_rows = std::move(rows);
  m_inHand = std::clamp(m_inHand, 0, std::max(0, static_cast<int>(m_rows.size()) - 1));
  QStringList words;
  for (const auto& r : m_rows)
    words << r.weight + " " + r.name + (r.falls ? tr(", falls out") : "");
  setAccessibleDescription(words.join("; "));
  setToolTip(m_hint + "\n\n" + words.join("\n"));
  if (otherRoom) updateGeometry(); // else every key would lay the whole page out anew
  update();
}

double TankItems::rowHeight() const {
  const auto n = std::max<std::size_t>(1, m_rows.size());
  return std::clamp(height() / static_cast<double>(n), lowest, tallest);
}

int TankItems::rowAt(double y) const {
  const int row = static_cast<int>(y / rowHeight());
  return row >= 0 && row < static_cast<int>(m_rows.size()) ? row : -1;
}

QPoint TankItems::rowMiddle(const std::string& product) const {
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    if (m_rows[i].product == product)
      return {width() / 2, static_cast<int>(rowHeight() * (static_cast<double>(i) + 0.5))};
  }
  return {-1, -1};
}

QSize TankItems::minimumSizeHint() const {
  return {170, static_cast<int>(lowest * static_cast<double>(std::max<std::size_t>(1, m_rows.size())))};
}

double TankItems::widestWeight(int size) const {
  const QFontMetrics bold(faceOf(size, true));
  int widest = 0;
  for (const auto& r : m_rows)
    widest = std::max(widest, bold.horizontalAdvance(r.weight));
  return widest + 2;
}

void TankItems::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const auto& t = theme();
  const double h = rowHeight();
  const int size = h > 19 ? 12 : h > 15 ? 11 : 10;
  const double barWidth = width() < narrowRow ? narrowBar : wideBar;
  const double weightWidth = widestWeight(size);
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    const auto& r = m_rows[i];
    const QRectF row(0, h * static_cast<double>(i), width(), h - 1);
    if (hasFocus() && static_cast<int>(i) == m_inHand) {
      p.setPen(QPen(t.accent, 1, Qt::DotLine));
      p.drawRect(row.adjusted(0, 0, -1, 0));
    }
    fillAs(p, QRectF(2, row.top() + 2, 10, row.height() - 4), r.look);
    p.setPen(r.falls ? t.red : t.ink);
    p.setFont(faceOf(size, true));
    paintLine(p, QRectF(16, row.top(), weightWidth, row.height()), Qt::AlignRight | Qt::AlignVCenter,
              r.weight);
    const QRectF name(16 + weightWidth + 6, row.top(), width() - weightWidth - barWidth - 30, row.height());
    const auto text = (r.falls ? "▲ " : "") + r.name + (r.byHand ? tr(" (by hand)") : "");
    auto face = faceOf(size, r.byHand);
    for (int smaller = size; smaller >= smallest; --smaller) {
      face = faceOf(smaller, r.byHand);
      if (QFontMetrics(face).horizontalAdvance(text) <= name.width()) break;
    }
    p.setFont(face);
    paintLine(p, name, Qt::AlignLeft | Qt::AlignVCenter,
              QFontMetrics(face).elidedText(text, Qt::ElideRight, static_cast<int>(name.width())));
    const QRectF bar(width() - barWidth - 4, row.top() + row.height() / 2 - 3, barWidth, 6);
    if (r.saturation) {
      p.fillRect(bar, t.line);
      p.fillRect(QRectF(bar.left(), bar.top(), bar.width() * std::min(1.0, *r.saturation), bar.height()),
                 *r.saturation > 1     ? t.red
                 : *r.saturation > 0.9 ? t.amber
                                       : t.accent);
    } else if (!r.knows) {
      p.setPen(t.inkSoft);
      p.setFont(faceOf(10));
      const auto room = bar.adjusted(barWidth == wideBar ? -12 : -2, -6, 2, 6);
      paintLine(p, room, Qt::AlignCenter, barWidth == wideBar ? tr("not known") : QString("?"));
    }
  }
}

void TankItems::mousePressEvent(QMouseEvent* event) {
  const int row = rowAt(event->position().y());
  m_pressed = row >= 0;
  m_dragged = false;
  if (row >= 0) m_inHand = row;
  m_from = event->position().toPoint();
  update();
}

void TankItems::mouseMoveEvent(QMouseEvent* event) {
  if (!m_pressed) return;
  if ((event->position().toPoint() - m_from).manhattanLength() >= QApplication::startDragDistance()) {
    m_dragged = true;
    setCursor(Qt::ClosedHandCursor);
  }
  if (m_dragged) emit dragging(event->globalPosition().toPoint());
}

void TankItems::mouseReleaseEvent(QMouseEvent* event) {
  const bool dragged = m_dragged;
  m_pressed = m_dragged = false;
  setCursor(Qt::OpenHandCursor);
  if (!dragged) return;
  emit dragging({});
  emit dropped(m_rows[static_cast<std::size_t>(m_inHand)].product, event->globalPosition().toPoint(),
               event->modifiers() & Qt::ControlModifier);
}

void TankItems::mouseDoubleClickEvent(QMouseEvent* event) {
  const int row = rowAt(event->position().y());
  if (row >= 0 && m_rows[static_cast<std::size_t>(row)].byHand)
    emit toRules(m_rows[static_cast<std::size_t>(row)].product);
}

void TankItems::keyPressEvent(QKeyEvent* event) {
  if (m_rows.empty()) return QWidget::keyPressEvent(event);
  const auto& row = m_rows[static_cast<std::size_t>(m_inHand)];
  const bool half = event->modifiers() & Qt::ControlModifier;
  switch (event->key()) {
  case Qt::Key_Up:
  case Qt::Key_Down:
    m_inHand = std::clamp(m_inHand + (event->key() == Qt::Key_Down ? 1 : -1), 0,
                          static_cast<int>(m_rows.size()) - 1);
    return update();
  case Qt::Key_Left:
    return emit stepped(row.product, -1, half);
  case Qt::Key_Right:
    return emit stepped(row.product, 1, half);
  case Qt::Key_Backspace:
    return emit toRules(row.product);
  default:
    QWidget::keyPressEvent(event);
  }
}

} // namespace butte::app
