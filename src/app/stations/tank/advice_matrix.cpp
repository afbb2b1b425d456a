#include "stations/tank/advice_matrix.h"

#include "paint/fitted_text.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "paint/time_picture.h"
#include "services/units_shown.h"
#include "stations/tank/tank_words.h"
#include "wording/tr.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

using core::Nutrient;

namespace {
constexpr int choiceLine = 25, choiceHead = 19;
constexpr double choiceTitle = 168;

QString offText(double percent) {
  const auto whole = std::lround(percent);
  if (whole == 0) return QString("0");
  return (whole > 0 ? "+" : "−") + localNumber(static_cast<double>(std::labs(whole)), 0);
}
} // namespace

AdviceMatrix::AdviceMatrix(UnitsShown& units, QWidget* parent) : QWidget(parent), m_units(units) {
  setObjectName("adviceMatrix");
  setAccessibleName(tr("what could be done now"));
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Minimum);
}

QSize AdviceMatrix::sizeHint() const {
  return {720, choiceHead + choiceLine * static_cast<int>(std::max<std::size_t>(m_lines.size(), 4)) + 2};
}

QSize AdviceMatrix::minimumSizeHint() const {
  constexpr double leastColumn = 47;
  return {static_cast<int>(choiceTitle + leastColumn * static_cast<double>(m_columns.size())),
          sizeHint().height()};
}

void AdviceMatrix::clear() {
  m_lines.clear();
  m_chosen = -1;
  describe();
}

void AdviceMatrix::makeColumns(const TankStory& story) {
  m_columns.clear();
  for (const auto& row : story.request.rows)
    if (!isTraceElement(row.nutrient) && row.nutrient != Nutrient::Si && row.nutrient != Nutrient::NUrea)
      m_columns.push_back({shortName(row.nutrient), row.nutrient, Column::Kind::Element,
                           row.milligramsPerLitre, row.tolerancePercent});
  for (const auto& cap : story.request.caps)
    m_columns.push_back(
        {shortName(cap.nutrient), cap.nutrient, Column::Kind::Cap, cap.milligramsPerLitre, 0});
  m_columns.push_back({tr("EC"), {}, Column::Kind::Ec, 0, 0});
  m_columns.push_back({tr("pH"), {}, Column::Kind::Ph, 0, 0});
}

AdviceMatrix::Cell AdviceMatrix::cellOf(const Column& column, const core::FeedContent& then,
                                        const core::FeedContent& week,
                                        const std::optional<core::ReservoirReadings>& reads,
                                        const std::optional<core::ReservoirReadings>& readsLater,
                                        const TankStory& story) const {
  Cell out;
  if (column.kind == Column::Kind::Ec) {
    if (reads) out.now = m_units.digits(reads->at25);
    if (readsLater) out.later = m_units.digits(readsLater->at25);
  } else if (column.kind == Column::Kind::Ph) {
    if (reads) {
      out.now = localNumber(reads->ph, 1);
      out.side = reads->ph < story.request.lowPh ? -1 : reads->ph > story.request.highPh ? 1 : 0;
    }
    if (readsLater) out.later = localNumber(readsLater->ph, 1);
  } else if (column.kind == Column::Kind::Cap) {
    const auto of = [&](const core::FeedContent& content) {
      return content.milligramsPerLitre.of(column.nutrient);
    };
    out.now = localNumber(of(then), 0);
    out.later = localNumber(of(week), 0);
    out.side = of(then) > column.wanted ? 1 : 0;
  } else {
    const auto off = [&](const core::FeedContent& content) {
      const double wanted = column.wanted > 0 ? column.wanted : 1;
      return 100 * (content.milligramsPerLitre.of(column.nutrient) - column.wanted) / wanted;
    };
    out.now = offText(off(then));
    out.later = offText(off(week));
    out.side = off(then) < -column.band ? -1 : off(then) > column.band ? 1 : 0;
  }
  return out;
}

void AdviceMatrix::show(const TankStory& story) {
  m_lines.clear();
  makeColumns(story);
  const auto stands = story.request.stands.perLitre();
  Line now{tr("As it stands"), {}, {}};
  std::optional<core::ReservoirReadings> reads;
  if (const auto* at = story.now(); at && at->at25 && at->ph)
    reads =
        core::ReservoirReadings{at->ph->value, core::Conductivity::fromMilliSiemensPerCm(at->at25->value)};
  if (stands)
    for (const auto& column : m_columns) {
      auto cell = cellOf(column, *stands, *stands, reads, reads, story);
      cell.later.clear();
      now.cells.push_back(std::move(cell));
    }
  m_lines.push_back(std::move(now));
  for (const auto& advice : story.advice) {
    Line line{adviceTitle(advice.kind), notOpenWords(advice, story), {}};
    if (advice.notOpen == core::NotOpen::None)
      for (const auto& column : m_columns)
        line.cells.push_back(
            cellOf(column, advice.after, advice.inAWeek, advice.reads, advice.readsInAWeek, story));
    m_lines.push_back(std::move(line));
  }
  if (m_chosen >= static_cast<int>(story.advice.size())) m_chosen = -1;
  describe();
}

void AdviceMatrix::describe() {
  QStringList said;
  for (int i = 0; i + 1 < static_cast<int>(m_lines.size()); ++i)
    said << lineText(i);
  setAccessibleDescription(said.join(". "));
  updateGeometry();
  update();
}

QString AdviceMatrix::lineText(int advice) const {
  const auto& line = m_lines[static_cast<std::size_t>(advice) + 1];
  if (!line.closed.isEmpty()) return tr("%1: %2").arg(line.title, line.closed);
  QStringList cells;
  for (std::size_t c = 0; c < line.cells.size(); ++c)
    cells << tr("%1 %2").arg(m_columns[c].name, line.cells[c].now);
  return tr("%1: %2").arg(line.title, cells.join(", "));
}

void AdviceMatrix::choose(int advice) {
  const int last = std::max(static_cast<int>(m_lines.size()) - 2, -1); // the first is no choice
  m_chosen = std::clamp(advice, -1, last);
  update();
  emit picked(m_chosen);
}

QRectF AdviceMatrix::lineRoom(int line) const {
  return QRectF(0, choiceHead + line * choiceLine, width(), choiceLine);
}

double AdviceMatrix::columnWidth() const {
  const auto count = static_cast<double>(std::max<std::size_t>(m_columns.size(), 1));
  return (width() - choiceTitle - 6) / count;
}

int AdviceMatrix::adviceAt(const QPointF& point) const {
  const int line = static_cast<int>((point.y() - choiceHead) / choiceLine);
  return point.y() < choiceHead || line >= static_cast<int>(m_lines.size()) ? -1 : line - 1;
}

void AdviceMatrix::mousePressEvent(QMouseEvent* event) {
  choose(adviceAt(event->position()));
}

void AdviceMatrix::mouseDoubleClickEvent(QMouseEvent* event) {
  choose(adviceAt(event->position()));
  if (m_chosen >= 0) emit taken(m_chosen);
}

void AdviceMatrix::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Down)
    choose(m_chosen + 1);
  else if (event->key() == Qt::Key_Up)
    choose(m_chosen - 1);
  else if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && m_chosen >= 0)
    emit taken(m_chosen);
  else
    QWidget::keyPressEvent(event);
}

void AdviceMatrix::paintLineOf(QPainter& p, int index) const {
  const auto& t = theme();
  const auto& line = m_lines[static_cast<std::size_t>(index)];
  const auto room = lineRoom(index);
  if (index > 0 && index - 1 == m_chosen) {
    p.setPen(QPen(t.accent, hasFocus() ? 2 : 1));
    p.setBrush(t.card);
    p.drawRoundedRect(room.adjusted(1, 1, -1, -1), 4, 4);
  }
  const bool open = line.closed.isEmpty();
  p.setFont(faceOf(13, index > 0 && open));
  p.setPen(open ? t.ink : t.inkSoft);
  paintLine(p, QRectF(6, room.top(), choiceTitle - 8, room.height()), Qt::AlignLeft | Qt::AlignVCenter,
            fittedText(p.fontMetrics(), line.title, static_cast<int>(choiceTitle - 8)));
  p.setFont(faceOf(12));
  if (!open) {
    const double wide = width() - choiceTitle - 8;
    return paintLine(p, QRectF(choiceTitle, room.top(), wide, room.height()),
                     Qt::AlignLeft | Qt::AlignVCenter,
                     fittedText(p.fontMetrics(), tr("— %1").arg(line.closed), static_cast<int>(wide)));
  }
  const double wide = columnWidth();
  for (std::size_t c = 0; c < line.cells.size(); ++c) {
    const auto& cell = line.cells[c];
    const QRectF box(choiceTitle + static_cast<double>(c) * wide, room.top(), wide - 3, room.height());
    if (cell.side != 0) {
      p.fillRect(box.adjusted(0, 2, 0, -2), t.amberFill);
      p.setPen(t.amberInk);
    } else {
      p.setPen(t.ink);
    }
    p.setFont(faceOf(12, true));
    const QRectF upper(box.left(), box.top() + 1, box.width() - 2, 14);
    paintLine(p, upper, Qt::AlignRight | Qt::AlignVCenter,
              (cell.side > 0   ? "▲"
               : cell.side < 0 ? "▼"
                               : "") +
                  cell.now);
    if (cell.later.isEmpty()) continue;
    p.setFont(faceOf(10));
    p.setPen(cell.side != 0 ? t.amberInk : t.inkSoft);
    paintLine(p, QRectF(box.left(), box.top() + 14, box.width() - 2, 11), Qt::AlignRight | Qt::AlignVCenter,
              cell.later);
  }
}

void AdviceMatrix::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (m_lines.empty()) return;
  p.setFont(faceOf(12));
  p.setPen(t.inkSoft);
  paintLine(p, QRectF(6, 0, choiceTitle, choiceHead), Qt::AlignLeft | Qt::AlignVCenter,
            tr("What now: % off target"));
  const double wide = columnWidth();
  for (std::size_t c = 0; c < m_columns.size(); ++c) {
    const auto& column = m_columns[c];
    auto name = column.name;
    paintLine(p, QRectF(choiceTitle + static_cast<double>(c) * wide, 0, wide - 5, choiceHead),
              Qt::AlignRight | Qt::AlignVCenter, name);
  }
  for (int i = 0; i < static_cast<int>(m_lines.size()); ++i)
    paintLineOf(p, i);
}

} // namespace butte::app
