#pragma once
#include "support/painted_text.h"

#include <QAbstractItemView>
#include <QAbstractScrollArea>
#include <QApplication>
#include <QComboBox>
#include <QLineEdit>
#include <QMenuBar>
#include <QScrollArea>
#include <QScrollBar>
#include <QTextEdit>
#include <functional>

namespace butte::test {

/// What a person could not read of a window as it stands: text that is cut by its own widget, shortened with
/// three dots, painted over other text, or outside of what its parent shows. What a bar scrolls to counts as
/// shown. Widgets whose words are meant to give way say so by the property "givesWay".
class Unreadable {
public:
  using Tell = std::function<void(const QString& widget, const QString& trouble)>;

  static void in(QWidget& window, const Tell& tell) {
    Unreadable look(tell);
    for (auto* widget : window.findChildren<QWidget*>()) {
      if (!widget->isVisible() || widget->window() != &window || widget->property("givesWay").toBool())
        continue;
      look.outside(*widget);
      look.texts(*widget);
    }
  }

private:
  explicit Unreadable(const Tell& tell) : m_tell(tell) {}

  static QString nameOf(const QWidget& widget) {
    QString out = widget.metaObject()->className();
    for (const QWidget* at = &widget; at; at = at->parentWidget()) {
      if (at->objectName().isEmpty() || at->objectName().startsWith("qt_")) continue;
      return out + " " + at->objectName();
    }
    return out;
  }

  /// What the pointer is told: all of what did not go in must stand there.
  static QString tipOf(const QWidget& widget) {
    if (!scrolls(widget)) {
      QString out;
      for (const QWidget* at = &widget; at && !at->isWindow(); at = at->parentWidget())
        out += at->toolTip() + "\n"; // a tip is asked of the parents too
      return out;
    }
    const auto* view = qobject_cast<QAbstractItemView*>(widget.parentWidget());
    QString out = widget.toolTip();
    for (int row = 0; view && view->model() && row < view->model()->rowCount(); ++row)
      out += "\n" + view->model()->index(row, 0).data(Qt::ToolTipRole).toString();
    return out;
  }

  static bool scrolls(const QWidget& widget) {
    const auto* area =
        widget.parentWidget() ? qobject_cast<QAbstractScrollArea*>(widget.parentWidget()) : nullptr;
    return area && area->viewport() == &widget;
  }

  void outside(const QWidget& widget) const {
    const auto* parent = widget.parentWidget();
    if (!parent || widget.isWindow()) return;
    if (scrolls(*parent)) {
      const auto* area = static_cast<QAbstractScrollArea*>(parent->parentWidget());
      const bool barred = area->horizontalScrollBarPolicy() == Qt::ScrollBarAlwaysOff;
      if (barred && widget.width() > parent->width()) m_tell(nameOf(widget), "is wider than what shows it");
      return;
    }
    if (qobject_cast<const QAbstractScrollArea*>(parent) || qobject_cast<const QComboBox*>(parent)) return;
    const auto rect = widget.geometry();
    if (!parent->rect().adjusted(-1, -1, 1, 1).contains(rect) && rect.isValid())
      m_tell(nameOf(widget), QString("stands outside of %1: %2,%3 %4 x %5 in %6 x %7")
                                 .arg(nameOf(*parent))
                                 .arg(rect.x())
                                 .arg(rect.y())
                                 .arg(rect.width())
                                 .arg(rect.height())
                                 .arg(parent->width())
                                 .arg(parent->height()));
  }

  void texts(QWidget& widget) const {
    if (qobject_cast<QScrollBar*>(&widget)) return;
    const auto items = PlacedText::of(widget);
    const auto own = widget.property("text").toString() + widget.property("placeholderText").toString() +
                     widget.property("currentText").toString() + widget.property("plainText").toString();
    const bool down = scrolls(widget);
    for (const auto& item : items) {
      const auto text = item.text.trimmed();
      if (text.isEmpty()) continue;
      if (text.size() > 1 && text.endsWith("…") && !own.contains(text) &&
          !tipOf(widget).contains(text.chopped(1)))
        m_tell(nameOf(widget), "shortens: " + text);
      const auto room = QRectF(widget.rect()).adjusted(-slack, -slack, slack, slack);
      const bool typed = qobject_cast<QLineEdit*>(&widget) && own.contains(text); // the cursor moves over it
      const bool across = !typed && (item.rect.left() < room.left() || item.rect.right() > room.right());
      const bool high = item.rect.top() < room.top() - 1 || item.rect.bottom() > room.bottom() + 1;
      if (across && !(down && barred(widget)))
        m_tell(nameOf(widget), QString("cuts at the side: %1 (%2 to %3 of %4 dots)")
                                   .arg(text)
                                   .arg(item.rect.left())
                                   .arg(item.rect.right())
                                   .arg(widget.width()));
      if (high && !down) m_tell(nameOf(widget), "cuts above or below: " + text);
    }
    for (qsizetype i = 0; i < items.size(); ++i) {
      for (qsizetype k = i + 1; k < items.size(); ++k) {
        const auto both = items[i].rect & items[k].rect;
        if (items[i].text.trimmed().isEmpty() || items[k].text.trimmed().isEmpty()) continue;
        if (both.width() > mostOverlap && both.height() > mostOverlap && items[i].text != items[k].text)
          m_tell(nameOf(widget), "paints over: " + items[i].text + " / " + items[k].text);
      }
    }
  }

  /// Whether a bar reaches what lies at the sides.
  static bool barred(const QWidget& viewport) {
    const auto* area = static_cast<QAbstractScrollArea*>(viewport.parentWidget());
    return area->horizontalScrollBar()->maximum() > 0;
  }

  struct PlacedText : QPaintDevice {
    struct Item {
      QString text;
      QRectF rect;
    };
    static QList<Item> of(QWidget& widget) {
      PlacedText device(widget.size());
      {
        QPainter painter(&device);
        widget.render(&painter, {}, {}, {});
      }
      return device.m_engine.items;
    }
    explicit PlacedText(QSize size) : m_size(size) {}
    QPaintEngine* paintEngine() const override { return &m_engine; }
    int metric(PaintDeviceMetric metric) const override { return PaintedText::metricOf(metric, m_size); }

    class Engine : public QPaintEngine {
    public:
      Engine() : QPaintEngine(AllFeatures) {}
      bool begin(QPaintDevice*) override { return true; }
      bool end() override { return true; }
      void updateState(const QPaintEngineState& now) override {
        if (now.state() & DirtyTransform) m_transform = now.transform();
      }
      void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
      void drawPath(const QPainterPath&) override {}
      void drawPolygon(const QPointF*, int, PolygonDrawMode) override {}
      void drawTextItem(const QPointF& at, const QTextItem& item) override {
        // The body of the letters: ascent and descent of most faces hold room that no letter fills.
        const QRectF body(at.x(), at.y() - 0.7 * item.ascent(), item.width(), 0.7 * item.ascent());
        items.append({item.text(), m_transform.mapRect(body)});
      }
      Type type() const override { return User; }
      QList<Item> items;

    private:
      QTransform m_transform;
    };
    QSize m_size;
    mutable Engine m_engine;
  };

  static constexpr double slack = 1.5, mostOverlap = 2;
  const Tell& m_tell;
};

} // namespace butte::test
