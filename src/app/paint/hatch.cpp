#include "paint/hatch.h"

#include "paint/theme.h"

#include <QPainterPath>
#include <QPixmapCache>
#include <array>

namespace butte::app {
namespace {

struct Named {
  const char* id;
  const char* colour;
  int hatch;
};
// Mineral tones; neighbours in a usual formula differ in both colour and hatch.
constexpr std::array<Named, 20> namedLooks{
    {{"can_double", "#5b7fa6", 0}, {"can4", "#5b7fa6", 1},    {"kno3", "#c26a45", 1},
     {"mkp", "#cf9d3f", 3},        {"sop", "#8a6284", 5},     {"epsom", "#7d9455", 4},
     {"mgn6", "#3f8579", 2},       {"map", "#b58a2c", 2},     {"an", "#7f8fb0", 6},
     {"ams", "#96785f", 4},        {"hno3_60", "#5d6970", 6}, {"h3po4_75", "#9a7b4f", 6},
     {"fedtpa11", "#9b4a3c", 0},   {"feedta", "#9b4a3c", 1},  {"mnso4_1", "#b56b86", 3},
     {"znso4_7", "#6f88a0", 5},    {"h3bo3", "#8c9a94", 2},   {"cuso4_5", "#3d7fa0", 4},
     {"namoo4_2", "#a59a6a", 1},   {"kcl", "#a0604f", 5}}};
constexpr std::array<const char*, 8> others{"#6b8f8a", "#a87c6a", "#7a7fa8", "#9a9152",
                                            "#a06a80", "#5f8a9a", "#8f7350", "#758a5c"};

} // namespace

ProductLook usualLook(const std::string& id) {
  for (const auto& n : namedLooks) {
    if (id == n.id) return {QColor(n.colour), n.hatch};
  }
  unsigned sum = 7; // own arithmetic: the same on every machine and run
  for (const char c : id)
    sum = sum * 31 + static_cast<unsigned char>(c);
  return {QColor(others[sum % others.size()]), static_cast<int>(sum / 8 % 7)};
}

namespace {

constexpr int tileWide = 512, tileHigh = 64; // px

/// A piece of this look, filled once: a fill with a pattern costs many times a copy. Qt's patterns repeat
/// every 8 pixels.
QPixmap tileOf(const ProductLook& look, qreal dpr) {
  static constexpr std::array<Qt::BrushStyle, 7> styles{
      Qt::SolidPattern, Qt::BDiagPattern,     Qt::FDiagPattern, Qt::VerPattern,
      Qt::HorPattern,   Qt::DiagCrossPattern, Qt::Dense6Pattern};
  const auto key = QString("fill/%1/%2/%3").arg(look.fill.rgba()).arg(look.hatch).arg(dpr);
  QPixmap tile;
  if (QPixmapCache::find(key, &tile)) return tile;
  tile = QPixmap(QSize(tileWide, tileHigh) * dpr);
  tile.setDevicePixelRatio(dpr);
  tile.fill(look.fill);
  QPainter painter(&tile);
  painter.fillRect(QRect(0, 0, tileWide, tileHigh),
                   QBrush(QColor(255, 255, 255, 110), styles[static_cast<std::size_t>(look.hatch)]));
  painter.end();
  QPixmapCache::insert(key, tile);
  return tile;
}

/// A tile side by side over the area; its pattern begins at `origin` and repeats every `period`.
void copyOver(QPainter& painter, const QRectF& area, const QPixmap& tile, QPoint origin, QSize period) {
  const auto dpr = tile.devicePixelRatio();
  const QRect room(QPoint(qRound(area.left()), qRound(area.top())),
                   QPoint(qRound(area.right()) - 1, qRound(area.bottom()) - 1));
  const auto phase = [](int at, int every) { return (at % every + every) % every; };
  const int wide = (tileWide / period.width() - 1) * period.width(),
            high = (tileHigh / period.height() - 1) * period.height();
  for (int y = room.top(); y <= room.bottom(); y += high) {
    for (int x = room.left(); x <= room.right(); x += wide) {
      const QRect piece = QRect(x, y, wide, high) & room;
      const QPointF from(phase(x - origin.x(), period.width()), phase(y - origin.y(), period.height()));
      painter.drawPixmap(QRectF(piece), tile, QRectF(from * dpr, QSizeF(piece.size()) * dpr));
    }
  }
}

} // namespace

void fillAs(QPainter& painter, const QRectF& area, const ProductLook& look) {
  if (look.hatch == 0) return painter.fillRect(area, look.fill);
  copyOver(painter, area, tileOf(look, painter.device()->devicePixelRatioF()), {}, {8, 8});
}

namespace {

constexpr QSize waveSize(12, 5);

/// One wave, to be laid side by side.
QPixmap waveTile(qreal dpr) {
  const auto key = QString("wave/%1/%2").arg(isDark()).arg(dpr);
  QPixmap tile;
  if (QPixmapCache::find(key, &tile)) return tile;
  tile = QPixmap(waveSize * dpr);
  tile.setDevicePixelRatio(dpr);
  tile.fill(Qt::transparent);
  QPainter painter(&tile);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(isDark() ? QColor(255, 255, 255, 70) : QColor(60, 100, 115, 90), 1));
  QPainterPath wave(QPointF(0, 2.5));
  wave.quadTo(3, 0, 6, 2.5);
  wave.quadTo(9, 5, 12, 2.5);
  painter.drawPath(wave);
  painter.end();
  QPixmapCache::insert(key, tile);
  return tile;
}

/// Water, waves and all.
QPixmap waterTile(qreal dpr) {
  const auto key = QString("water/%1/%2").arg(theme().water.rgba()).arg(dpr);
  QPixmap tile;
  if (QPixmapCache::find(key, &tile)) return tile;
  tile = QPixmap(QSize(tileWide, tileHigh) * dpr);
  tile.setDevicePixelRatio(dpr);
  tile.fill(theme().water);
  QPainter painter(&tile);
  painter.fillRect(QRect(0, 0, tileWide, tileHigh), QBrush(waveTile(dpr)));
  painter.end();
  QPixmapCache::insert(key, tile);
  return tile;
}

} // namespace

void fillAsWater(QPainter& painter, const QRectF& area) {
  copyOver(painter, area, waterTile(painter.device()->devicePixelRatioF()), area.topLeft().toPoint(),
           waveSize);
}

} // namespace butte::app
