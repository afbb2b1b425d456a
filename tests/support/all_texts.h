#pragma once
#include "support/painted_text.h"

#include <QComboBox>
#include <QLineEdit>
#include <QMainWindow>
#include <functional>

namespace butte::test {

/// Everything that a person could read of a window, with a word of where it stands: what is painted now, and
/// what stands behind: tips, hints, names and descriptions for screen readers, choices.
inline void forAllTexts(QWidget& window, const QString& where,
                        const std::function<void(const QString& where, const QString& text)>& look) {
  for (const auto& text : PaintedText::of(window))
    look(where + ", painted", text);
  for (const auto* widget : window.findChildren<QWidget*>()) {
    if (!widget->isVisibleTo(&window)) continue;
    const auto name = where + ", " + widget->metaObject()->className() + " " + widget->objectName();
    look(name + ", tip", widget->toolTip());
    look(name + ", accessible", widget->accessibleName());
    look(name + ", description", widget->accessibleDescription());
    if (const auto* field = qobject_cast<const QLineEdit*>(widget))
      look(name + ", hint", field->placeholderText());
    if (const auto* box = qobject_cast<const QComboBox*>(widget)) {
      for (int i = 0; i < box->count(); ++i)
        look(name + ", choice", box->itemText(i));
    }
  }
}

} // namespace butte::test
