#pragma once
#include <QPaintDevice>
#include <QPaintEngine>
#include <QPainter>
#include <QStringList>
#include <QWidget>

namespace butte::test {

/// Every text that a widget and its children paint, also where no label holds it: a paint device that draws
/// nothing and notes the texts.
class PaintedText : public QPaintDevice {
public:
  static QStringList of(QWidget& widget) {
    PaintedText device(widget.size());
    {
      QPainter painter(&device);
      widget.render(&painter);
    }
    return device.m_engine.texts;
  }

protected:
  QPaintEngine* paintEngine() const override { return &m_engine; }
  int metric(PaintDeviceMetric metric) const override { return metricOf(metric, m_size); }

public:
  /// Of a screen of 96 dots an inch.
  static int metricOf(PaintDeviceMetric metric, QSize size) {
    switch (metric) {
    case PdmWidth:
      return size.width();
    case PdmHeight:
      return size.height();
    case PdmDpiX:
    case PdmDpiY:
    case PdmPhysicalDpiX:
    case PdmPhysicalDpiY:
      return 96;
    case PdmDepth:
      return 32;
    case PdmNumColors:
      return 1 << 24;
    case PdmDevicePixelRatio:
      return 1;
    case PdmDevicePixelRatioScaled:
      return static_cast<int>(devicePixelRatioFScale());
    default:
      return 0;
    }
  }

private:
  class Engine : public QPaintEngine {
  public:
    Engine() : QPaintEngine(AllFeatures) {}
    bool begin(QPaintDevice*) override { return true; }
    bool end() override { return true; }
    void updateState(const QPaintEngineState&) override {}
    void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
    void drawPath(const QPainterPath&) override {}
    void drawPolygon(const QPointF*, int, PolygonDrawMode) override {}
    void drawTextItem(const QPointF&, const QTextItem& item) override { texts << item.text(); }
    Type type() const override { return User; }
    QStringList texts;
  };

  explicit PaintedText(QSize size) : m_size(size) {}
  QSize m_size;
  mutable Engine m_engine;
};

} // namespace butte::test
