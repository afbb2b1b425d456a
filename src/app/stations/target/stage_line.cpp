#include "stations/target/stage_line.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/target_edits.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "target/scale_target.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

namespace butte::app {

StageLine::StageLine(FormulaEditor& editor, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_desk(desk) {
  setObjectName("stageLine");
  setFixedHeight(62);
  auto* fresh = new WhileSeen(this, [this] { lookUp(); });
  connect(&desk, &BookDesk::changed, this, [fresh](const std::vector<book::Ref>& refs) {
    if (std::any_of(refs.begin(), refs.end(), [](const auto& ref) { return ref.kind == book::Kind::Target; }))
      fresh->outdate();
  });
  connect(&editor, &FormulaEditor::changed, this, [this, fresh] {
    if (m_editor.document().crop != m_crop) return fresh->outdate();
    for (auto& stage : m_stages)
      stage.inUse = qtext(m_editor.document().targetName) == stage.name;
    update();
  });
  connect(&desk, &BookDesk::bookOpened, fresh, &WhileSeen::outdate);
  fresh->outdate();
}

void StageLine::lookUp() {
  m_stages.clear();
  m_crop = m_editor.document().crop;
  for (const auto& known : stagesOf(m_desk, m_crop)) {
    Stage stage;
    stage.ref = known.ref;
    stage.name = known.name;
    stage.fromWeek = known.fromWeek;
    stage.milliSiemensPerCm = core::conductivityOfTarget(known.rows, 0).value_or(0);
    stage.inUse = qtext(m_editor.document().targetName) == stage.name;
    m_stages.push_back(stage);
  }
  update();
}

QString StageLine::text() const {
  QStringList parts;
  for (const auto& stage : m_stages)
    parts << tr("%1 from week %2").arg(stage.name, localNumber(stage.fromWeek, 0));
  return parts.join(", ");
}

/// Stages share the line by their weeks; the last one runs as long as a middling one.
QRectF StageLine::boxOf(std::size_t index) const {
  const double first = m_stages.front().fromWeek, last = m_stages.back().fromWeek;
  const double tail =
      std::max(2.0, (last - first) / static_cast<double>(std::max<std::size_t>(1, m_stages.size() - 1)));
  // Stages that begin in one week still get a readable width.
  const double evenly = width() / static_cast<double>(m_stages.size());
  const auto left = [&](std::size_t i) {
    const double byTime = i >= m_stages.size() ? 1 : (m_stages[i].fromWeek - first) / (last - first + tail);
    if (last <= first) return evenly * static_cast<double>(i);
    return 0.6 * byTime * width() + 0.4 * evenly * static_cast<double>(i);
  };
  double strongest = 0.1;
  for (const auto& stage : m_stages)
    strongest = std::max(strongest, stage.milliSiemensPerCm);
  const double high = 34 + 14 * m_stages[index].milliSiemensPerCm / strongest;
  return {left(index), height() - 14 - high, left(index + 1) - left(index) - 2, high};
}

QPoint StageLine::stageAt(int index) const {
  return boxOf(static_cast<std::size_t>(index)).center().toPoint();
}

/// In one line or in two.
void StageLine::paintName(QPainter& painter, const QRectF& room, const QString& words) {
  const auto needs = painter.fontMetrics().boundingRect(room.toRect(), Qt::TextWordWrap, words);
  const bool fits = needs.height() <= room.height() && needs.width() <= room.width();
  if (fits) return painter.drawText(room, Qt::AlignVCenter | Qt::TextWordWrap, words);
  painter.drawText(room, Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(room.width())));
}

void StageLine::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter painter(this);
  painter.setFont(faceOf(12));
  if (m_stages.empty()) {
    painter.setPen(t.inkSoft);
    painter.drawText(rect(), Qt::AlignVCenter | Qt::TextWordWrap,
                     m_crop.empty() ? tr("Keep a target with its crop, stage and week: the stages then "
                                         "stand here as a line in time.")
                                    : tr("No target of %1 is in the book yet: keep this one with its "
                                         "stage and week, and it stands here.")
                                          .arg(qtext(m_crop)));
    return;
  }
  for (std::size_t i = 0; i < m_stages.size(); ++i) {
    const auto& stage = m_stages[i];
    const auto box = boxOf(i);
    painter.fillRect(box, stage.inUse ? t.accent : t.card);
    painter.setPen(t.line);
    painter.drawRect(box);
    painter.setPen(stage.inUse ? t.accentInk : t.ink);
    painter.setFont(faceOf(12, stage.inUse));
    const auto words = QString("%1 · EC %2").arg(stage.name, localNumber(stage.milliSiemensPerCm, 1));
    paintName(painter, box.adjusted(6, 0, -4, 0), words);
    painter.setPen(t.inkSoft);
    painter.setFont(faceOf(11));
    painter.drawText(QRectF(box.left(), height() - 14, box.width(), 14), Qt::AlignVCenter,
                     tr("week %1").arg(localNumber(stage.fromWeek, 0)));
  }
}

void StageLine::mousePressEvent(QMouseEvent* event) {
  for (std::size_t i = 0; i < m_stages.size(); ++i) {
    if (boxOf(i).contains(event->position())) return emit chosen(m_stages[i].ref);
  }
}

} // namespace butte::app
