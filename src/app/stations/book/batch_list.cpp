#include "stations/book/batch_list.h"

#include "document/book_desk.h"
#include "paint/fitted_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QAbstractItemView>
#include <QPainter>

namespace butte::app {

namespace {
constexpr int pageRows = 200;
constexpr double fullBarPercent = 6;
constexpr int leastWidth = 400;
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
  if (!batch || (role != Qt::DisplayRole && role != Qt::AccessibleTextRole && role != Qt::ToolTipRole))
    return {};
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

QSize BatchDelegate::sizeHint(const QStyleOptionViewItem& option, const QModelIndex&) const {
  constexpr int oneLine = 30, twoLines = 48;
  return {leastWidth, isNarrow(option) ? twoLines : oneLine};
}

/// Where name and figures do not go into one line, the figures stand below.
bool BatchDelegate::isNarrow(const QStyleOptionViewItem& option) {
  constexpr int roomForOneLine = 760;
  const auto* view = qobject_cast<const QAbstractItemView*>(option.widget);
  return view && view->viewport()->width() < roomForOneLine;
}

QString BatchDelegate::figures(const book::BatchHead& batch) const {
  const auto ec = [&](const std::optional<double>& value) {
    return value ? m_units.digits(core::Conductivity::fromMilliSiemensPerCm(*value)) : QString("–");
  };
  return m_units.text(core::Volume::fromLitres(batch.litres)) + " · EC " + ec(batch.ecPlanned) + " → " +
         ec(batch.ecRead) + " " + m_units.conductivityUnitName();
}

void BatchDelegate::paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const {
  const auto* batch = m_model.head(index);
  if (!batch) return;
  const auto& t = theme();
  const bool chosen = option.state & QStyle::State_Selected, narrow = isNarrow(option);
  const QRect r = option.rect;
  p->save();
  p->fillRect(r, chosen ? t.accent : t.card);
  p->setPen(t.line);
  p->drawLine(r.bottomLeft(), r.bottomRight());
  const QColor ink = chosen ? t.accentInk : t.ink, soft = chosen ? t.accentInk : t.inkSoft;
  const QRect above = narrow ? QRect(r.x(), r.y() + 2, r.width(), r.height() / 2 - 2) : r;
  const QRect below = narrow ? above.translated(0, above.height()) : r;
  const auto put = [&](const QRect& line, int x, int width, const QString& text, bool bold,
                       const QColor& colour, Qt::Alignment side = Qt::AlignLeft) {
    const auto face = faceOf(13, bold);
    p->setFont(face);
    p->setPen(colour);
    p->drawText(QRect(line.x() + x, line.y(), width, line.height()), side | Qt::AlignVCenter,
                fittedText(QFontMetrics(face), text, width));
  };
  constexpr int dayWidth = 96, cropWidth = 104, figuresWidth = 270, offWidth = 130, nameFrom = dayWidth + 8;
  constexpr int roomForCrop = 940;
  const bool crop =
      r.width() >= roomForCrop; // its shape stands in the picture above, its name mostly in the formula's
  const int offFrom = r.width() - offWidth - 8;
  put(above, 8, dayWidth, dayText(batch->at), false, soft);
  const int nameWidth =
      (narrow ? offFrom : offFrom - (crop ? cropWidth + 8 : 0) - figuresWidth - 16) - nameFrom - 8;
  put(above, nameFrom, nameWidth,
      qtext(batch->formulaName) +
          (batch->formulaVersion > 0 ? QString(" · v%1").arg(batch->formulaVersion) : QString()),
      true, ink);
  if (narrow) {
    put(below, 8, dayWidth - 8, qtext(batch->crop), false, soft);
    put(below, nameFrom, r.width() - nameFrom - 8, figures(*batch), false, ink);
  } else {
    if (crop) put(r, offFrom - figuresWidth - cropWidth - 16, cropWidth, qtext(batch->crop), false, soft);
    put(r, offFrom - figuresWidth - 12, figuresWidth, figures(*batch), false, ink, Qt::AlignRight);
  }
  const bool off = batch->deviationPercent && *batch->deviationPercent > offPlanPercent;
  if (batch->deviationPercent) {
    const double share = std::min(1.0, *batch->deviationPercent / fullBarPercent);
    p->fillRect(QRectF(offFrom, above.bottom() - 6, (offWidth - 2) * share, 4), off      ? t.amber
                                                                                : chosen ? t.accentInk
                                                                                         : t.inkSoft);
  }
  put(above, offFrom, offWidth,
      !batch->deviationPercent
          ? tr("not weighed")
          : tr("%1%2 % off plan").arg((off ? "▲ " : ""), localNumber(*batch->deviationPercent, 1)),
      off, off && !chosen ? t.amberInk : soft);
  p->restore();
}

} // namespace butte::app
