#include "stations/stocks/dilution_picture.h"

#include "paint/fitted_text.h"
#include "paint/hatch.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double endWidth = 190, pipeHeight = 16, lineHeight = 16;

void paintLines(QPainter& p, const QStringList& lines, double x, double y, double width,
                Qt::Alignment align) {
  const auto& t = theme();
  for (int i = 0; i < lines.size(); ++i) {
    p.setFont(faceOf(i == 0 ? 13 : 12, i == 0));
    p.setPen(i == 0 ? t.ink : t.inkSoft);
    paintLine(p, QRectF(x, y + i * lineHeight, width, lineHeight), align | Qt::AlignVCenter, lines[i]);
  }
}
} // namespace

DilutionPicture::DilutionPicture(QWidget* parent) : QWidget(parent) {
  setObjectName("dilutionPicture");
  setMinimumHeight(132);
  setAccessibleName(tr("the way from the tanks to the tap"));
}

bool DilutionPicture::Inlet::operator==(const Inlet& other) const {
  constexpr double seen = 0.004; // of a bottle's height: half a pixel
  return title == other.title && rates == other.rates && readsBehind == other.readsBehind &&
         std::ranges::equal(products, other.products, [](const auto& a, const auto& b) {
           return a.first == b.first && std::abs(a.second - b.second) < seen;
         });
}

void DilutionPicture::show(QStringList water, std::vector<Inlet> inlets, QStringList feed) {
  if (water == m_water && inlets == m_inlets && feed == m_feed) return;
  m_water = std::move(water);
  m_inlets = std::move(inlets);
  m_feed = std::move(feed);
  QStringList all{m_water.join(", ")};
  for (const auto& inlet : m_inlets)
    all << tr("%1: %2; then %3").arg(inlet.title, inlet.rates.join(", "), inlet.readsBehind);
  all << m_feed.join(", ");
  setAccessibleDescription(all.join(". "));
  update();
}

void DilutionPicture::paintInlet(QPainter& p, const Inlet& inlet, double x, double width, double pipe) const {
  const auto& t = theme();
  const QRectF bottle(x, 2, 22, pipe - 26);
  p.fillRect(bottle, t.card);
  double y = bottle.bottom();
  for (const auto& [look, share] : inlet.products) {
    const double layer = bottle.height() * 0.8 * share;
    fillAs(p, QRectF(bottle.left(), y - layer, bottle.width(), layer), look);
    y -= layer;
  }
  p.setPen(QPen(t.inkSoft, 2));
  p.setBrush(Qt::NoBrush);
  p.drawRect(bottle);
  p.setPen(QPen(t.inkSoft, 3));
  p.drawLine(QPointF(bottle.center().x(), bottle.bottom()), QPointF(bottle.center().x(), pipe));
  QStringList lines{inlet.title};
  lines << inlet.rates;
  const QFontMetrics metrics(faceOf(13, true));
  lines[0] = fittedText(metrics, lines[0], static_cast<int>(width) - 34);
  paintLines(p, lines, x + 30, 0, width - 32, Qt::AlignLeft);
  p.setFont(faceOf(12));
  p.setPen(t.ink);
  paintLine(p, QRectF(x + 30, pipe + pipeHeight + 3, width - 32, lineHeight),
            Qt::AlignLeft | Qt::AlignVCenter, inlet.readsBehind);
}

void DilutionPicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const double pipe = height() - 44;
  const QRectF whole(0, pipe, width() - 2, pipeHeight);
  fillAsWater(p, whole);
  p.setPen(QPen(theme().inkSoft, 2));
  p.setBrush(Qt::NoBrush);
  p.drawRect(whole.adjusted(-2, 0, 0, 0));
  const double room = width() - 2 * endWidth;
  const double each = room / static_cast<double>(std::max<std::size_t>(1, m_inlets.size()));
  paintLines(p, m_water, 2, pipe - lineHeight * static_cast<double>(m_water.size()) - 6, endWidth - 10,
             Qt::AlignLeft);
  for (std::size_t i = 0; i < m_inlets.size(); ++i)
    paintInlet(p, m_inlets[i], endWidth + each * static_cast<double>(i), each, pipe);
  paintLines(p, m_feed, width() - endWidth + 8, pipe - lineHeight * static_cast<double>(m_feed.size()) - 6,
             endWidth - 12, Qt::AlignRight);
}

} // namespace butte::app
