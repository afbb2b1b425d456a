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

void fillAs(QPainter& painter, const QRectF& area, const ProductLook& look) {
  static constexpr std::array<Qt::BrushStyle, 7> styles{
      Qt::SolidPattern, Qt::BDiagPattern,     Qt::FDiagPattern, Qt::VerPattern,
      Qt::HorPattern,   Qt::DiagCrossPattern, Qt::Dense6Pattern};
  painter.fillRect(area, look.fill);
  if (look.hatch > 0)
    painter.fillRect(area, QBrush(QColor(255, 255, 255, 110), styles[static_cast<std::size_t>(look.hatch)]));
}

namespace {

/// One wave, to be laid side by side: 12 wide, 5 high.
QPixmap waveTile(qreal dpr) {
  const auto key = QString("wave/%1/%2").arg(isDark()).arg(dpr);
  QPixmap tile;
  if (QPixmapCache::find(key, &tile)) return tile;
  tile = QPixmap(QSize(12, 5) * dpr);
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

} // namespace

void fillAsWater(QPainter& painter, const QRectF& area) {
  painter.fillRect(area, theme().water);
  const auto origin = painter.brushOrigin();
  painter.setBrushOrigin(area.topLeft());
  painter.fillRect(area, QBrush(waveTile(painter.device()->devicePixelRatioF())));
  painter.setBrushOrigin(origin);
}

} // namespace butte::app
