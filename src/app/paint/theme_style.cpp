#include "paint/theme_style.h"

#include "paint/theme.h"
#include "paint/whole_popup.h"

#include <QApplication>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QStatusBar>
#include <QStyleFactory>
#include <QStyleOption>

namespace butte::app {

namespace {

constexpr double radius = 4;
constexpr int fieldPadX = 7, fieldPadY = 4, leastFieldText = 20, buttonPadX = 11, buttonPadY = 5,
              arrowWidth = 20;

bool has(const QWidget* widget, const char* property) {
  return widget && widget->property(property).toBool();
}

/// A rounded box with a border inside its edges.
void paintBox(QPainter* p, const QRect& rect, const QColor& fill, const QColor& border, double width) {
  p->save();
  p->setRenderHint(QPainter::Antialiasing);
  p->setBrush(fill);
  p->setPen(QPen(border, width));
  const double in = width / 2;
  p->drawRoundedRect(QRectF(rect).adjusted(in, in, -in, -in), radius, radius);
  p->restore();
}

void paintField(QPainter* p, const QStyleOption* option, const QWidget* widget) {
  const auto& t = theme();
  const auto* line = qobject_cast<const QLineEdit*>(widget);
  const bool enabled = option->state & QStyle::State_Enabled;
  const bool quiet = (line && line->isReadOnly()) || (qobject_cast<const QComboBox*>(widget) && !enabled);
  const bool focus = option->state & QStyle::State_HasFocus;
  if (has(widget, "wrong")) return paintBox(p, option->rect, t.redFill, t.red, 2);
  paintBox(p, option->rect, quiet ? t.page : t.card, focus ? t.accent : t.line, focus ? 2 : 1);
}

void paintButton(QPainter* p, const QStyleOption* option, const QWidget* widget) {
  const auto& t = theme();
  const bool filled = has(widget, "primary") || (option->state & QStyle::State_On);
  const bool focus = option->state & QStyle::State_HasFocus;
  const bool marked = focus || (option->state & QStyle::State_MouseOver);
  const auto fill = filled ? t.accent : (option->state & QStyle::State_Sunken) ? t.band : t.card;
  paintBox(p, option->rect, fill, focus && filled ? t.amber : marked ? t.accent : t.line, focus ? 2 : 1);
}

void paintCheck(QPainter* p, const QStyleOption* option) {
  const auto& t = theme();
  const bool enabled = option->state & QStyle::State_Enabled;
  const QRect box = option->rect.adjusted(0, 0, -1, -1);
  p->save();
  p->setRenderHint(QPainter::Antialiasing);
  p->setPen(QPen(option->state & QStyle::State_HasFocus ? t.accent : t.inkSoft, 1));
  p->setBrush(t.card);
  p->drawRect(QRectF(box).adjusted(0.5, 0.5, -0.5, -0.5));
  if (option->state & QStyle::State_On) {
    const QRectF in = QRectF(box).adjusted(3, 3, -3, -3);
    p->setPen(QPen(enabled ? t.ink : t.inkSoft, 2));
    p->drawPolyline(
        QPolygonF({{in.left(), in.center().y()}, {in.center().x() - 1, in.bottom()}, in.topRight()}));
  }
  p->restore();
}

QColor buttonInk(const QStyleOption* option, const QWidget* widget) {
  const auto& t = theme();
  if (!(option->state & QStyle::State_Enabled)) return t.inkSoft;
  return has(widget, "primary") || (option->state & QStyle::State_On) ? t.accentInk : t.ink;
}

void paintArrow(QPainter* p, const QRect& rect, const QColor& colour) {
  p->save();
  p->setRenderHint(QPainter::Antialiasing);
  p->setPen(Qt::NoPen);
  p->setBrush(colour);
  const QPointF c = QRectF(rect).center();
  p->drawPolygon(QPolygonF({{c.x() - 4, c.y() - 2.5}, {c.x() + 4, c.y() - 2.5}, {c.x(), c.y() + 3.5}}));
  p->restore();
}

void soften(QLabel& label) {
  auto palette = label.palette();
  palette.setColor(QPalette::WindowText, theme().inkSoft);
  label.setPalette(palette);
}

} // namespace

ThemeStyle::ThemeStyle() : QProxyStyle(QStyleFactory::create("Fusion")) {}

void ThemeStyle::polish(QWidget* widget) {
  QProxyStyle::polish(widget);
  if (auto* box = qobject_cast<QComboBox*>(widget); box && !box->property("wholePopup").toBool()) {
    box->setProperty("wholePopup", true); // a widget may be polished again
    new WholePopup(box);
  }
  auto* label = qobject_cast<QLabel*>(widget);
  // Tool tips and the labels of Qt's own dialogs: no text is taken for marks because it looks like them.
  if (label && label->textFormat() == Qt::AutoText) label->setTextFormat(Qt::PlainText);
  if (label && has(label, "soft")) soften(*label);
  const bool field =
      (qobject_cast<QLineEdit*>(widget) && !qobject_cast<QComboBox*>(widget->parentWidget())) ||
      qobject_cast<QComboBox*>(widget);
  if (field && widget->minimumHeight() == 0) widget->setMinimumHeight(leastFieldText + 2 * fieldPadY);
  auto* button = qobject_cast<QPushButton*>(widget);
  if (!button) return;
  if (button->minimumHeight() == 0) button->setMinimumHeight(button->sizeHint().height());
  button->setAttribute(Qt::WA_Hover);
  const bool primary = has(button, "primary");
  if (button->font().bold() == primary || (!primary && !has(button, "madeBold"))) return;
  auto font = button->font();
  font.setBold(primary);
  button->setFont(font);
  button->setProperty("madeBold", primary);
}

void ThemeStyle::drawPrimitive(PrimitiveElement element, const QStyleOption* option, QPainter* painter,
                               const QWidget* widget) const {
  switch (element) {
  case PE_PanelLineEdit:
    if (qobject_cast<const QComboBox*>(widget ? widget->parentWidget() : nullptr)) return;
    return paintField(painter, option, widget);
  case PE_FrameLineEdit:
    return;
  case PE_PanelButtonCommand:
    if (const auto* button = qstyleoption_cast<const QStyleOptionButton*>(option);
        button && (button->features & QStyleOptionButton::Flat))
      return;
    return paintButton(painter, option, widget);
  case PE_PanelButtonTool:
    return paintButton(painter, option, widget);
  case PE_IndicatorCheckBox:
    return paintCheck(painter, option);
  case PE_PanelStatusBar:
  case PE_FrameStatusBarItem:
    return;
  case PE_FrameFocusRect:
    if (qobject_cast<const QAbstractButton*>(widget) && !widget->inherits("QCheckBox") &&
        !widget->inherits("QRadioButton"))
      return; // the border says it
    break;
  default:
    break;
  }
  QProxyStyle::drawPrimitive(element, option, painter, widget);
}

void ThemeStyle::drawControl(ControlElement element, const QStyleOption* option, QPainter* painter,
                             const QWidget* widget) const {
  if (element == CE_PushButtonLabel || element == CE_ToolButtonLabel) {
    const auto ink = buttonInk(option, widget);
    if (const auto* push = qstyleoption_cast<const QStyleOptionButton*>(option)) {
      QStyleOptionButton own = *push;
      own.palette.setColor(QPalette::ButtonText, ink);
      return QProxyStyle::drawControl(element, &own, painter, widget);
    }
    if (const auto* tool = qstyleoption_cast<const QStyleOptionToolButton*>(option)) {
      QStyleOptionToolButton own = *tool;
      own.palette.setColor(QPalette::ButtonText, ink);
      return QProxyStyle::drawControl(element, &own, painter, widget);
    }
  }
  QProxyStyle::drawControl(element, option, painter, widget);
}

void ThemeStyle::drawComplexControl(ComplexControl control, const QStyleOptionComplex* option,
                                    QPainter* painter, const QWidget* widget) const {
  if (control == CC_ComboBox) {
    paintField(painter, option, widget);
    if (option->state & State_Enabled)
      paintArrow(painter, subControlRect(control, option, SC_ComboBoxArrow, widget), theme().inkSoft);
    return;
  }
  if (control == CC_ToolButton) {
    // The panel follows the button's own state: checked stays filled without the pointer on it.
    QStyleOptionComplex panel = *option;
    paintButton(painter, &panel, widget);
    if (const auto* tool = qstyleoption_cast<const QStyleOptionToolButton*>(option))
      drawControl(CE_ToolButtonLabel, tool, painter, widget);
    return;
  }
  QProxyStyle::drawComplexControl(control, option, painter, widget);
}

QSize ThemeStyle::sizeFromContents(ContentsType type, const QStyleOption* option, const QSize& size,
                                   const QWidget* widget) const {
  switch (type) {
  case CT_LineEdit:
    return {size.width() + 2 * fieldPadX, std::max(size.height(), leastFieldText) + 2 * fieldPadY};
  case CT_ComboBox:
    return {size.width() + 2 * fieldPadX + arrowWidth,
            std::max(size.height(), leastFieldText) + 2 * fieldPadY};
  case CT_PushButton:
  case CT_ToolButton:
    return {size.width() + 2 * buttonPadX, size.height() + 2 * buttonPadY};
  default:
    return QProxyStyle::sizeFromContents(type, option, size, widget);
  }
}

QRect ThemeStyle::subElementRect(SubElement element, const QStyleOption* option,
                                 const QWidget* widget) const {
  if (element == SE_LineEditContents &&
      !qobject_cast<const QComboBox*>(widget ? widget->parentWidget() : nullptr))
    return option->rect.adjusted(fieldPadX, fieldPadY, -fieldPadX, -fieldPadY);
  if (element == SE_PushButtonContents) return option->rect.adjusted(4, 2, -4, -2);
  return QProxyStyle::subElementRect(element, option, widget);
}

QRect ThemeStyle::subControlRect(ComplexControl control, const QStyleOptionComplex* option, SubControl part,
                                 const QWidget* widget) const {
  if (control != CC_ComboBox) return QProxyStyle::subControlRect(control, option, part, widget);
  const QRect box = option->rect;
  if (part == SC_ComboBoxArrow) return {box.right() - arrowWidth - 2, box.top(), arrowWidth, box.height()};
  if (part == SC_ComboBoxEditField) return box.adjusted(fieldPadX, fieldPadY, -arrowWidth - 4, -fieldPadY);
  return QProxyStyle::subControlRect(control, option, part, widget);
}

int ThemeStyle::pixelMetric(PixelMetric metric, const QStyleOption* option, const QWidget* widget) const {
  switch (metric) {
  case PM_ScrollBarExtent:
    return 10;
  case PM_ButtonShiftHorizontal:
  case PM_ButtonShiftVertical:
  case PM_MenuButtonIndicator:
    return 0;
  default:
    return QProxyStyle::pixelMetric(metric, option, widget);
  }
}

int ThemeStyle::styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget,
                          QStyleHintReturn* data) const {
  if (hint == SH_ComboBox_Popup) return 0; // a list below the box, scrolled where it is long
  return QProxyStyle::styleHint(hint, option, widget, data);
}

void softenLabels() {
  for (auto* widget : QApplication::allWidgets()) {
    if (auto* label = qobject_cast<QLabel*>(widget); label && has(label, "soft")) soften(*label);
  }
}

} // namespace butte::app
