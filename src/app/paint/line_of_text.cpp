#include "paint/line_of_text.h"

#include <QCache>
#include <QFont>
#include <QStaticText>
#include <cmath>

namespace butte::app {
namespace {

/// The program has one family of letters (theme.h).
struct Key {
  QString text;
  int pixels = 0, weight = 0;
  bool operator==(const Key&) const = default;
};

std::size_t qHash(const Key& key, std::size_t seed = 0) {
  return qHashMulti(seed, key.text, key.pixels, key.weight);
}

constexpr int mostKept = 600; ///< lines: some screens full

} // namespace

void paintLine(QPainter& painter, const QRectF& room, Qt::Alignment align, const QString& text) {
  static QCache<Key, QStaticText> kept(mostKept);
  const auto& font = painter.font();
  const Key key{text, font.pixelSize(), font.weight()};
  auto* line = kept.object(key);
  if (!line) {
    line = new QStaticText(text);
    line->setTextFormat(Qt::PlainText);
    line->setPerformanceHint(QStaticText::AggressiveCaching);
    line->prepare({}, font);
    kept.insert(key, line);
  }
  const auto size = line->size();
  if (size.width() > room.width()) return painter.drawText(room, static_cast<int>(align), text);
  const double x = align & Qt::AlignRight     ? room.right() - size.width()
                   : align & Qt::AlignHCenter ? room.center().x() - size.width() / 2
                                              : room.left();
  const double y = align & Qt::AlignVCenter  ? room.center().y() - size.height() / 2
                   : align & Qt::AlignBottom ? room.bottom() - size.height()
                                             : room.top();
  painter.drawStaticText(QPointF(std::round(x), std::round(y)), *line);
}

} // namespace butte::app
