#include "stations/book/thing_list.h"

#include "paint/theme.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>

namespace butte::app {

void ThingModel::show(std::vector<book::RecordHead> heads, const book::Ref& inHand) {
  beginResetModel();
  m_heads = std::move(heads);
  m_inHand = inHand;
  endResetModel();
}

const book::RecordHead* ThingModel::head(const QModelIndex& index) const {
  const auto row = static_cast<std::size_t>(index.row());
  return index.isValid() && row < m_heads.size() ? &m_heads[row] : nullptr;
}

int ThingModel::rowOf(const book::Ref& ref) const {
  for (std::size_t i = 0; i < m_heads.size(); ++i) {
    if (m_heads[i].ref == ref) return static_cast<int>(i);
  }
  return -1;
}

bool ThingModel::isInHand(const QModelIndex& index) const {
  const auto* found = head(index);
  return found && found->ref == m_inHand;
}

int ThingModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(m_heads.size());
}

QVariant ThingModel::data(const QModelIndex& index, int role) const {
  const auto* found = head(index);
  if (!found || (role != Qt::DisplayRole && role != Qt::AccessibleTextRole && role != Qt::ToolTipRole))
    return {};
  return qtext(found->name);
}

void ThingDelegate::paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const {
  const auto* thing = m_model.head(index);
  if (!thing) return;
  const auto& t = theme();
  const bool chosen = option.state & QStyle::State_Selected;
  const QRect r = option.rect;
  p->save();
  p->fillRect(r, chosen ? t.accent : t.card);
  p->setPen(t.line);
  p->drawLine(r.bottomLeft(), r.bottomRight());
  const auto put = [&](int x, int width, const QString& text, bool bold, Qt::Alignment side = Qt::AlignLeft) {
    const auto face = faceOf(13, bold);
    p->setFont(face);
    p->setPen(chosen ? t.accentInk : bold ? t.ink : t.inkSoft);
    p->drawText(QRect(r.x() + x, r.y(), width, r.height()), side | Qt::AlignVCenter,
                QFontMetrics(face).elidedText(text, Qt::ElideRight, width));
  };
  const auto changed = thing->binnedAt ? tr("in the bin since %1").arg(dayText(*thing->binnedAt))
                                       : tr("changed %1").arg(whenText(thing->changedAt));
  constexpr int cropWidth = 130, roomForCrop = 640;
  const int changedWidth = QFontMetrics(faceOf(13, false)).horizontalAdvance(changed) + 4;
  int nameWidth = r.width() - changedWidth - 36;
  const auto name = thing->name.empty() ? tr("(no name)") : qtext(thing->name);
  if (r.width() >= roomForCrop) {
    put(r.width() - changedWidth - cropWidth - 16, cropWidth,
        thing->binnedAt ? kindText(thing->ref.kind) : qtext(thing->crop), false);
    nameWidth -= cropWidth + 8;
  }
  // The mark stays whole, however long the name.
  const auto mark = m_model.isInHand(index) ? tr("  ◂ open") : QString();
  const QFontMetrics bold(faceOf(13, true));
  const int markWidth = mark.isEmpty() ? 0 : bold.horizontalAdvance(mark) + 2;
  const int shownWidth = std::min(nameWidth - markWidth, bold.horizontalAdvance(name) + 2);
  put(10, shownWidth, name, true);
  if (!mark.isEmpty()) put(10 + shownWidth, markWidth, mark, true);
  put(r.width() - changedWidth - 8, changedWidth, changed, false, Qt::AlignRight);
  p->restore();
}

} // namespace butte::app
