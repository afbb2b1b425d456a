#include "rendered_paper.h"

#include <QBuffer>
#include <QFontMetricsF>
#include <QPainter>
#include <QRegularExpression>
#include <QTransform>
#include <algorithm>
#include <cmath>
#include <random>
#include <vector>

namespace butte::test {
namespace {

/// Cells of a line as they would stand in a printed table: parted by tabs, or by three blanks and more.
QStringList cellsOf(const QString& line) {
  static const QRegularExpression parts("\t| {3,}");
  return line.split(parts);
}

QImage blurred(const QImage& picture, double dots) {
  if (dots <= 0) return picture;
  // Down and up again is what a lens out of focus does, near enough.
  const auto small =
      picture.scaled(picture.size() / (1 + dots), Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
  return small.scaled(picture.size(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
}

} // namespace

QImage printed(const QString& text, const QString& family, int dotsPerInch) {
  QFont font(family);
  font.setPixelSize(static_cast<int>(std::lround(10.0 * dotsPerInch / 72)));
  const QFontMetricsF metrics(font);
  const auto lines = text.split('\n');
  const bool columns = text.contains('\t');
  std::vector<double> widths;
  double widest = 0;
  for (const auto& line : lines) {
    const auto cells = columns ? cellsOf(line) : QStringList{line};
    if (cells.size() > 1) {
      for (qsizetype i = 0; i < cells.size(); ++i) {
        if (widths.size() <= static_cast<std::size_t>(i)) widths.push_back(0);
        widths[static_cast<std::size_t>(i)] =
            std::max(widths[static_cast<std::size_t>(i)], metrics.horizontalAdvance(cells[i]));
      }
    } else {
      widest = std::max(widest, metrics.horizontalAdvance(line));
    }
  }
  const double gap = metrics.horizontalAdvance("mmm");
  double all = 0;
  for (const double width : widths)
    all += width + gap;
  const double margin = dotsPerInch * 0.6, height = metrics.lineSpacing() * 1.15;
  QImage page(static_cast<int>(std::max(all, widest) + 2 * margin),
              static_cast<int>(height * static_cast<double>(lines.size()) + 2 * margin),
              QImage::Format_RGB32);
  page.fill(Qt::white);
  QPainter painter(&page);
  painter.setFont(font);
  painter.setPen(QColor(20, 20, 24));
  for (qsizetype i = 0; i < lines.size(); ++i) {
    const double y = margin + height * static_cast<double>(i) + metrics.ascent();
    const auto cells = columns ? cellsOf(lines[i]) : QStringList{lines[i]};
    double x = margin;
    for (qsizetype c = 0; c < cells.size(); ++c) {
      painter.drawText(QPointF(x, y), cells[c]);
      if (cells.size() > 1) x += widths[static_cast<std::size_t>(c)] + gap;
    }
  }
  return page;
}

QImage afterAll(const QImage& picture, const Befallen& what) {
  auto out = picture;
  if (what.turnedDegrees != 0) {
    const auto turned = out.transformed(QTransform().rotate(what.turnedDegrees), Qt::SmoothTransformation)
                            .convertToFormat(QImage::Format_ARGB32);
    QImage flat(turned.size(), QImage::Format_RGB32);
    flat.fill(Qt::white);
    QPainter(&flat).drawImage(0, 0, turned);
    out = flat;
  }
  out = blurred(out, what.blurDots);
  std::mt19937 random(7);
  std::normal_distribution<double> grain(0, std::max(what.noise, 1e-9));
  for (int y = 0; y < out.height(); ++y) {
    for (int x = 0; x < out.width(); ++x) {
      // From the upper left to the lower right a hand's shadow lies over it.
      const double light = what.shadow ? 1.0 - 0.55 * (x + y) / (out.width() + out.height()) : 1.0;
      const auto dot = QColor(out.pixel(x, y));
      const auto lit = [&](int v) {
        return std::clamp(static_cast<int>(v * light + (what.noise > 0 ? grain(random) : 0)), 0, 255);
      };
      out.setPixel(x, y, qRgb(lit(dot.red()), lit(dot.green()), lit(dot.blue())));
    }
  }
  if (what.jpegQuality <= 0) return out;
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  out.save(&buffer, "JPG", what.jpegQuality);
  return QImage::fromData(bytes, "JPG");
}

} // namespace butte::test
