#pragma once
#include <QProxyStyle>

namespace butte::app {

/// Fields, buttons and menus in the theme's colours, painted from the palette: a switch of the theme is then
/// one repaint. (A style sheet over the whole program is worked through again for every widget, at every
/// start and every switch.)
///
/// Properties of widgets that it knows: `wrong` of a field, `primary` of a button, `soft` of a label.
class ThemeStyle : public QProxyStyle {
  Q_OBJECT

public:
  ThemeStyle();

  using QProxyStyle::polish;
  void polish(QWidget* widget) override;
  void drawPrimitive(PrimitiveElement element, const QStyleOption* option, QPainter* painter,
                     const QWidget* widget) const override;
  void drawControl(ControlElement element, const QStyleOption* option, QPainter* painter,
                   const QWidget* widget) const override;
  void drawComplexControl(ComplexControl control, const QStyleOptionComplex* option, QPainter* painter,
                          const QWidget* widget) const override;
  QSize sizeFromContents(ContentsType type, const QStyleOption* option, const QSize& size,
                         const QWidget* widget) const override;
  QRect subElementRect(SubElement element, const QStyleOption* option, const QWidget* widget) const override;
  QRect subControlRect(ComplexControl control, const QStyleOptionComplex* option, SubControl part,
                       const QWidget* widget) const override;
  int pixelMetric(PixelMetric metric, const QStyleOption* option, const QWidget* widget) const override;
  int styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget,
                QStyleHintReturn* data) const override;
};

/// A label that stands back behind the figures; follows the theme.
void softenLabels();

} // namespace butte::app
