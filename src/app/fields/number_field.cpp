#include "fields/number_field.h"

#include "base/decimal.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <QKeyEvent>
#include <QLocale>
#include <QStyle>

namespace butte::app {

NumberField::NumberField(FieldSpec spec, QWidget* parent) : QLineEdit(parent), m_spec(std::move(spec)) {
  setAccessibleName(m_spec.name + (m_spec.unit.isEmpty() ? "" : ", " + m_spec.unit));
  setToolTip(accessibleName());
  setAlignment(Qt::AlignRight);
  connect(this, &QLineEdit::textEdited, this, &NumberField::read);
}

void NumberField::show(const QString& digits) {
  if (isWrong() && hasFocus()) return;
  m_shown = digits;
  const auto same = [](QString a, QString b) {
    if (a.trimmed().startsWith('<') != b.startsWith('<')) return false;
    return core::parseDecimal(a.remove('<').toStdString()) == core::parseDecimal(b.remove('<').toStdString());
  };
  if (hasFocus() && same(text(), digits)) return;
  QString local = digits;
  const auto point = QLocale().decimalPoint();
  if (point != ".") local.replace(".", point);
  if (text() != local) setText(local);
  setWrong({});
}

void NumberField::setWrong(const QString& message) {
  if (m_message == message) return;
  m_message = message;
  setProperty("wrong", !message.isEmpty());
  update();
  setAccessibleDescription(message);
  setToolTip(message.isEmpty() ? accessibleName() : message);
  if (onMessage) onMessage(message);
}

void NumberField::read(const QString& text) {
  const auto typed = text.trimmed();
  if (typed.isEmpty()) {
    if (!m_spec.mayBeEmpty)
      return setWrong(tr("%1: type a number, the last one still counts").arg(m_spec.name));
    setWrong({});
    m_shown.clear(); // or leaving the field would bring back what was taken out
    if (onTyped) onTyped({});
    return;
  }
  const bool below = m_spec.mayBeBelow && typed.startsWith('<');
  const auto figure = below ? typed.mid(1).trimmed() : typed;
  if (below && figure.isEmpty()) return setWrong(tr("%1: less than what?").arg(m_spec.name));
  const auto value = core::parseDecimal(figure.toStdString());
  const auto shortText = typed.size() > 24 ? typed.left(22) + "…" : typed;
  if (!value)
    return setWrong(tr("%1: “%2” is not a number; type one such as %3")
                        .arg(m_spec.name, shortText, localNumber(12.5, 1)));
  if (*value < m_spec.least || *value > m_spec.most)
    return setWrong(tr("%1: %2 is out of range; it should be from %3 to %4 %5")
                        .arg(m_spec.name, shortText, localFigure(m_spec.least),
                             QLocale().toString(m_spec.most, 'g', 6), m_spec.unit));
  setWrong({});
  m_shown = (below ? "<" : "") + QString::fromStdString(core::normalisedDecimal(figure.toStdString()));
  if (onTyped) onTyped(m_shown);
}

void NumberField::focusOutEvent(QFocusEvent* event) {
  QLineEdit::focusOutEvent(event);
  // A wrong text stays to be mended; a good one is shown as the document has it.
  if (!isWrong()) show(m_shown);
}

bool NumberField::event(QEvent* event) {
  // Undo belongs to the formula, not to the field: leave its keys to the window.
  if (event->type() == QEvent::ShortcutOverride) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo)) {
      event->ignore();
      return false;
    }
  }
  return QLineEdit::event(event);
}

void NumberField::keyPressEvent(QKeyEvent* event) {
  // Escape gives up a wrong text for the last good value.
  if (event->key() == Qt::Key_Escape && isWrong()) {
    const auto last = m_shown;
    setWrong({});
    setText(last);
    show(last);
    return;
  }
  QLineEdit::keyPressEvent(event);
}

} // namespace butte::app
