#include "stations/formula/element_lanes.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/target_edits.h"
#include "formula_words.h"
#include "services/units_shown.h"
#include "wording/tr.h"
#include "words.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolTip>
#include <cmath>

namespace butte::app {

using core::Nutrient;

namespace {

constexpr double labelWidth = 62, figuresWidth = 196, headRoom = 18, microHeight = 40;
constexpr double fullShare = 0.78; ///< where the target stands in a lane: room to be over

const std::vector<Nutrient> majors{Nutrient::N,  Nutrient::NNitrate, Nutrient::NAmmonium, Nutrient::P,
                                   Nutrient::K,  Nutrient::Ca,       Nutrient::Mg,        Nutrient::S,
                                   Nutrient::Na, Nutrient::Cl,       Nutrient::Si};
const std::vector<Nutrient> micros{Nutrient::Fe, Nutrient::Mn, Nutrient::Zn,
                                   Nutrient::B,  Nutrient::Cu, Nutrient::Mo};

} // namespace

ElementLanes::ElementLanes(FormulaEditor& editor, QWidget* parent) : QWidget(parent), m_editor(editor) {
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setObjectName("elementLanes");
  setAccessibleName(tr("Elements in the feed"));
  connect(&editor, &FormulaEditor::changed, this, &ElementLanes::rebuild);
  connect(&editor, &FormulaEditor::overlayChanged, this, &ElementLanes::rebuild);
  rebuild();
}

ElementLanes::Lane ElementLanes::makeLane(Nutrient nutrient, bool small) const {
  const auto& request = m_editor.document().given.request;
  Lane lane;
  lane.nutrient = nutrient;
  lane.small = small;
  for (const auto& row : request.rows) {
    if (row.nutrient == nutrient) lane.target = &row;
  }
  for (const auto& source : m_editor.answer().contributions[static_cast<std::size_t>(nutrient)])
    lane.shares.push_back(
        {source.product ? request.shelf[*source.product].id : "", source.milligramsPerLitre});
  for (const auto& share : lane.shares)
    lane.result += share.milligramsPerLitre;
  lane.plusMinus = m_editor.answer().spread[static_cast<std::size_t>(nutrient)].plusMinus;
  for (const auto& level : m_editor.answer().harmful) {
    if (level.nutrient == nutrient) lane.harmful = &level;
  }
  if (m_editor.overlay()) lane.overlay = m_editor.overlay()->milligramsPerLitre.of(nutrient);
  const double wanted = lane.target ? lane.target->milligramsPerLitre : 0;
  // Without a target there is no "full": a fixed room shows how little or much it is.
  lane.scaleMax = wanted > 0 ? wanted / fullShare : std::max(lane.result * 1.3, small ? 0.1 : 60.0);
  if (lane.target) lane.scaleMax = std::max(lane.scaleMax, lane.target->bandHigh() * 1.02);
  return lane;
}

void ElementLanes::rebuild() {
  m_lanes.clear();
  for (const auto n : majors) {
    auto lane = makeLane(n, false);
    const bool always = n == Nutrient::NNitrate || n == Nutrient::NAmmonium || n == Nutrient::P ||
                        n == Nutrient::K || n == Nutrient::Ca || n == Nutrient::Mg || n == Nutrient::S;
    if (lane.target || (always && lane.result > 0) ||
        (lane.result > 1 && (n == Nutrient::Na || n == Nutrient::Cl)))
      m_lanes.push_back(lane);
  }
  for (const auto n : micros)
    m_lanes.push_back(makeLane(n, true));
  if (m_focused >= m_lanes.size()) m_focused = 0;
  layOut();
  updateChanged();
}

ElementLanes::Seen ElementLanes::seenOf(const Lane& lane) const {
  Seen out;
  out.words = laneText(lane.nutrient) + figureText(lane.result) + wantedWords(lane);
  const auto mark = [&](double x) { out.edges.push_back(static_cast<int>(std::lround(2 * x))); };
  for (const double edge : {lane.box.left(), lane.box.top(), lane.box.right(), lane.box.bottom()})
    mark(edge);
  double sum = 0;
  for (const auto& share : lane.shares) {
    mark(xOf(lane, sum += share.milligramsPerLitre));
    out.products.push_back(share.product);
  }
  mark(sum > lane.scaleMax * 1.0001 ? 1 : 0);
  for (const double edge : {lane.result - lane.plusMinus, lane.result + lane.plusMinus})
    mark(xOf(lane, edge));
  mark(lane.overlay ? xOf(lane, *lane.overlay) : -1);
  if (!lane.target) return out;
  for (const double edge : {lane.target->milligramsPerLitre, lane.target->bandLow(), lane.target->bandHigh()})
    mark(xOf(lane, edge));
  return out;
}

QRect ElementLanes::roomOf(const Lane& lane) const {
  const auto box = lane.small ? lane.box : QRectF(0, lane.box.top(), width(), lane.box.height());
  return box.toAlignedRect().adjusted(-2, -3, 2, 3);
}

void ElementLanes::updateChanged() {
  std::vector<Seen> seen;
  for (const auto& lane : m_lanes)
    seen.push_back(seenOf(lane));
  const bool all = seen.size() != m_seen.size() || m_head != headWords();
  m_head = headWords();
  if (all) update();
  for (std::size_t i = 0; !all && i < seen.size(); ++i) {
    if (!(seen[i] == m_seen[i])) update(roomOf(m_lanes[i]));
  }
  m_seen = std::move(seen);
}

void ElementLanes::layOut() {
  std::size_t large = 0;
  for (const auto& lane : m_lanes)
    large += !lane.small;
  const double room = height() - headRoom - microHeight - 8;
  const double step = large > 0 ? std::min(40.0, room / static_cast<double>(large)) : 0;
  double y = headRoom;
  std::size_t micro = 0;
  const double microWidth = (width() - labelWidth) / static_cast<double>(micros.size());
  for (auto& lane : m_lanes) {
    if (lane.small) {
      lane.box = QRectF(labelWidth + microWidth * static_cast<double>(micro++), height() - microHeight,
                        microWidth - 8, microHeight - 2);
    } else {
      lane.box = QRectF(labelWidth, y, width() - labelWidth - figuresWidth, step - 6);
      y += step;
    }
  }
}

double ElementLanes::xOf(const Lane& lane, double milligramsPerLitre) const {
  const double share = std::min(milligramsPerLitre / lane.scaleMax, 1.0);
  return lane.box.left() + share * lane.box.width();
}

const ElementLanes::Lane* ElementLanes::laneAt(const QPointF& at) const {
  for (const auto& lane : m_lanes) {
    if (at.y() >= lane.box.top() && at.y() <= lane.box.bottom() && (!lane.small || lane.box.contains(at)))
      return &lane;
  }
  return nullptr;
}

const ElementLanes::Share* ElementLanes::shareAt(const Lane& lane, double x) const {
  double sum = 0;
  for (const auto& share : lane.shares) {
    const double from = xOf(lane, sum), to = xOf(lane, sum += share.milligramsPerLitre);
    if (x >= from && x < to) return &share;
  }
  return nullptr;
}

void ElementLanes::light(const std::string& productId) {
  if (m_lit == productId) return;
  m_lit = productId;
  update();
}

QString ElementLanes::laneText(Nutrient nutrient) const {
  for (const auto& lane : m_lanes) {
    if (lane.nutrient != nutrient) continue;
    const auto name = QString::fromStdString(words::nutrientSymbol(nutrient));
    const auto figure =
        localFigure(lane.result) + (lane.plusMinus > 0 ? " ± " + localFigure(lane.plusMinus) : QString());
    if (lane.harmful)
      return tr("%1 %2 mg/L, HARMFUL above %3").arg(name, figure, localFigure(lane.harmful->harmfulAbove));
    if (!lane.target) return tr("%1 %2 mg/L, no target").arg(name, figure);
    const double off = lane.target->deviationPercent(lane.result);
    const auto verdict = lane.target->contains(lane.result)
                             ? tr("in band")
                             : QString("%1%2 %").arg(off > 0 ? "+" : "").arg(std::lround(off));
    return tr("%1 %2 of %3 mg/L, %4")
        .arg(name, figure, localFigure(lane.target->milligramsPerLitre), verdict);
  }
  return {};
}

QPoint ElementLanes::targetMark(Nutrient nutrient) const {
  for (const auto& lane : m_lanes) {
    if (lane.nutrient == nutrient && lane.target)
      return QPointF(xOf(lane, lane.target->milligramsPerLitre), lane.box.center().y()).toPoint();
  }
  return {};
}

void ElementLanes::moveTarget(Nutrient nutrient, double milligramsPerLitre) {
  TargetEdits(m_editor).moveTo(nutrient, milligramsPerLitre);
}

QPoint ElementLanes::bandEdge(Nutrient nutrient) const {
  for (const auto& lane : m_lanes) {
    if (lane.nutrient == nutrient && lane.target)
      return QPointF(xOf(lane, lane.target->bandHigh()), lane.box.center().y()).toPoint();
  }
  return {};
}

bool ElementLanes::onMark(const Lane& lane, double x) const {
  return lane.target && std::abs(x - xOf(lane, lane.target->milligramsPerLitre)) < 9;
}

bool ElementLanes::onBandEdge(const Lane& lane, double x) const {
  if (!lane.target || lane.small) return false;
  return std::abs(x - xOf(lane, lane.target->bandHigh())) < 6 ||
         std::abs(x - xOf(lane, std::max(0.0, lane.target->bandLow()))) < 6;
}

void ElementLanes::moveBand(Nutrient nutrient, double percent) {
  const double half = std::clamp(std::round(percent * 2) / 2, 0.5, 100.0);
  TargetEdits(m_editor).setTolerance(nutrient, QString::number(half));
}

/// What makes the figure uncertain, and what would help most.
QString ElementLanes::errorWords(Nutrient nutrient) const {
  const auto& spread = m_editor.answer().spread[static_cast<std::size_t>(nutrient)];
  if (spread.parts.empty()) return {};
  const auto& shelf = m_editor.document().given.request.shelf;
  QStringList lines{tr("± %1 mg/L in 19 of 20 mixes, from:").arg(localFigure(spread.plusMinus))};
  for (std::size_t i = 0; i < spread.parts.size() && i < 3; ++i)
    lines << QString("%1 ± %2").arg(QString::fromStdString(words::errorPartText(spread.parts[i], shelf)),
                                    localFigure(spread.parts[i].plusMinus));
  lines << tr("Halving the first leaves ± %1: %2.")
               .arg(localFigure(core::withHalved(spread, 0)),
                    QString::fromStdString(words::halvingText(spread.parts[0], shelf)));
  return lines.join("\n");
}

void ElementLanes::mousePressEvent(QMouseEvent* event) {
  const auto* lane = laneAt(event->position());
  if (!lane) return;
  m_focused = static_cast<std::size_t>(lane - m_lanes.data());
  const bool mark = onMark(*lane, event->position().x());
  if (mark || onBandEdge(*lane, event->position().x())) {
    (mark ? m_dragged : m_bandDragged) = lane->nutrient;
    m_dragScale = lane->scaleMax;
    m_dragBox = lane->box;
    m_editor.endMerging();
  }
  update();
}

void ElementLanes::mouseMoveEvent(QMouseEvent* event) {
  if (m_dragged) {
    const double share = std::clamp((event->position().x() - m_dragBox.left()) / m_dragBox.width(), 0.0, 1.0);
    return moveTarget(*m_dragged, share * m_dragScale);
  }
  if (m_bandDragged) {
    const double at = (event->position().x() - m_dragBox.left()) / m_dragBox.width() * m_dragScale;
    for (const auto& row : m_editor.document().given.request.rows) {
      if (row.nutrient == *m_bandDragged)
        return moveBand(*m_bandDragged, 100 * std::abs(at - row.milligramsPerLitre) / row.divisor());
    }
    return;
  }
  const auto* lane = laneAt(event->position());
  const auto* share = lane ? shareAt(*lane, event->position().x()) : nullptr;
  const double x = event->position().x();
  const bool mark = lane && onMark(*lane, x), edge = lane && !mark && onBandEdge(*lane, x);
  setCursor(mark ? Qt::SizeHorCursor : edge ? Qt::SplitHCursor : Qt::ArrowCursor);
  const auto product = share ? share->product : std::string();
  light(product);
  emit lit(product);
}

void ElementLanes::mouseReleaseEvent(QMouseEvent*) {
  m_dragged.reset();
  m_bandDragged.reset();
  m_editor.endMerging();
}

void ElementLanes::leaveEvent(QEvent*) {
  light("");
  emit lit("");
}

void ElementLanes::keyPressEvent(QKeyEvent* event) {
  if (m_lanes.empty()) return QWidget::keyPressEvent(event);
  const auto& lane = m_lanes[m_focused];
  const double step = event->modifiers() & Qt::ShiftModifier ? 0.05 : 0.01;
  switch (event->key()) {
  case Qt::Key_Up:
    m_focused = m_focused > 0 ? m_focused - 1 : m_lanes.size() - 1;
    break;
  case Qt::Key_Down:
    m_focused = (m_focused + 1) % m_lanes.size();
    break;
  case Qt::Key_Left:
  case Qt::Key_Right:
    if (lane.target)
      moveTarget(lane.nutrient,
                 lane.target->milligramsPerLitre * (event->key() == Qt::Key_Left ? 1 - step : 1 + step));
    return;
  case Qt::Key_Plus:
  case Qt::Key_Minus:
    if (lane.target)
      moveBand(lane.nutrient, lane.target->tolerancePercent + (event->key() == Qt::Key_Plus ? 0.5 : -0.5));
    return;
  default:
    return QWidget::keyPressEvent(event);
  }
  emit explained(laneText(m_lanes[m_focused].nutrient));
  update();
}

bool ElementLanes::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  auto* help = static_cast<QHelpEvent*>(event);
  const auto* lane = laneAt(help->pos());
  const auto* share = lane ? shareAt(*lane, help->pos().x()) : nullptr;
  if (!share) {
    const auto words = !lane           ? QString()
                       : lane->harmful ? QString::fromStdString(words::harmfulText(*lane->harmful))
                                       : errorWords(lane->nutrient);
    if (words.isEmpty())
      QToolTip::hideText();
    else
      QToolTip::showText(help->globalPos(), words);
    return true;
  }
  const auto name =
      share->product.empty() ? tr("the water") : QString::fromStdString(m_editor.nameOf(share->product));
  QToolTip::showText(help->globalPos(),
                     tr("%1 brings %2 mg/L of %3")
                         .arg(name, localFigure(share->milligramsPerLitre),
                              QString::fromStdString(words::nutrientName(lane->nutrient))));
  return true;
}

} // namespace butte::app
