#include "stations/book/batch_list.h"

#include "document/book_desk.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>

namespace butte::app {

namespace {
constexpr int pageRows = 200;
constexpr double fullBarPercent = 6;
} // namespace

BatchModel::BatchModel(BookDesk& desk, QObject* parent) : QAbstractListModel(parent), m_desk(desk) {}

void BatchModel::show(const book::BatchFilter& filter) {
  beginResetModel();
  m_filter = filter;
  m_heads.clear();
  m_all = !m_desk.isOpen();
  endResetModel();
  if (canFetchMore({})) fetchMore({});
}

const book::BatchHead* BatchModel::head(const QModelIndex& index) const {
  const auto row = static_cast<std::size_t>(index.row());
  return index.isValid() && row < m_heads.size() ? &m_heads[row] : nullptr;
}

int BatchModel::rowOf(const std::string& uid) const {
  for (std::size_t i = 0; i < m_heads.size(); ++i) {
    if (m_heads[i].uid == uid) return static_cast<int>(i);
  }
  return -1;
}

int BatchModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(m_heads.size());
}

QVariant BatchModel::data(const QModelIndex& index, int role) const {
  const auto* batch = head(index);
  if (!batch || (role != Qt::DisplayRole && role != Qt::AccessibleTextRole)) return {};
  const auto off = batch->deviationPercent ? tr(", %1 % off plan").arg(localFigure(*batch->deviationPercent))
                                           : tr(", not weighed");
  return dayText(batch->at) + ", " + qtext(batch->formulaName) + off;
}

bool BatchModel::canFetchMore(const QModelIndex& parent) const {
  return !parent.isValid() && !m_all;
}

void BatchModel::fetchMore(const QModelIndex&) {
  if (m_all) return;
  const auto page = m_desk.book().store().batches(
      m_filter, m_heads.empty() ? std::nullopt : std::optional(m_heads.back()), pageRows);
  m_all = !page || page->size() < pageRows;
  if (!page || page->empty()) return;
  const int first = static_cast<int>(m_heads.size());
  beginInsertRows({}, first, first + static_cast<int>(page->size()) - 1);
  m_heads.insert(m_heads.end(), page->begin(), page->end());
  endInsertRows();
}

void BatchDelegate::paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const {
  const auto* batch = m_model.head(index);
  if (!batch) return;
  const auto& t = theme();
  const bool chosen = option.state & QStyle::State_Selected;
  const QRect r = option.rect;
  p->save();
  p->fillRect(r, chosen ? t.accent : t.card);
  p->setPen(t.line);
  p->drawLine(r.bottomLeft(), r.bottomRight());
  const QColor ink = chosen ? t.accentInk : t.ink, soft = chosen ? t.accentInk : t.inkSoft;
  const auto put = [&](int x, int width, const QString& text, bool bold, const QColor& colour,
                       Qt::Alignment side = Qt::AlignLeft) {
    const auto face = faceOf(13, bold);
    p->setFont(face);
    p->setPen(colour);
    p->drawText(QRect(r.x() + x, r.y(), width, r.height()), side | Qt::AlignVCenter,
                QFontMetrics(face).elidedText(text, Qt::ElideRight, width));
  };
  const int right = r.width();
  put(8, 92, dayText(batch->at), false, soft);
  put(104, right - 104 - 500,
      qtext(batch->formulaName) +
          (batch->formulaVersion > 0 ? QString(" · v%1").arg(batch->formulaVersion) : QString()),
      true, ink);
  put(right - 492, 104, qtext(batch->crop), false, soft);
  put(right - 390, 72, m_units.text(core::Volume::fromLitres(batch->litres)), false, ink, Qt::AlignRight);
  const auto ec = [&](const std::optional<double>& value) {
    return value ? m_units.digits(core::Conductivity::fromMilliSiemensPerCm(*value)) : QString("–");
  };
  put(right - 310, 162,
      "EC " + ec(batch->ecPlanned) + " → " + ec(batch->ecRead) + " " + m_units.conductivityUnitName(), false,
      ink, Qt::AlignRight);
  const bool off = batch->deviationPercent && *batch->deviationPercent > offPlanPercent;
  if (batch->deviationPercent) {
    const double share = std::min(1.0, *batch->deviationPercent / fullBarPercent);
    p->fillRect(QRectF(right - 138, r.y() + r.height() - 7, 128 * share, 4), off      ? t.amber
                                                                             : chosen ? t.accentInk
                                                                                      : t.inkSoft);
  }
  put(right - 138, 130,
      !batch->deviationPercent
          ? tr("not weighed")
          : tr("%1%2 % off plan").arg((off ? "▲ " : ""), localNumber(*batch->deviationPercent, 1)),
      off, off && !chosen ? t.amberInk : soft);
  p->restore();
}

} // namespace butte::app
