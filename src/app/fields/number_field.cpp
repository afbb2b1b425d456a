#include "fields/number_field.h"

#include "base/decimal.h"
#include "deed_words.h"
#include "quantity/typed_quantity.h"
#include "quantity/unit_names.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <QKeyEvent>
#include <QLocale>
#include <QStyle>

namespace butte::app {

NumberField::NumberField(FieldSpec spec, QWidget* parent) : QLineEdit(parent), m_spec(std::move(spec)) {
  showName();
  setAlignment(Qt::AlignRight);
  connect(this, &QLineEdit::textEdited, this, &NumberField::read);
}

/// Its unit as well, which may have changed since.
QString NumberField::unitNow() const {
  return asked ? QString::fromStdString(words::unitName(asked().unit)) : m_spec.unit;
}

void NumberField::showName() {
  const auto unit = unitNow();
  const auto before = accessibleName();
  const auto now = m_spec.name + (unit.isEmpty() ? "" : ", " + unit);
  if (before == now) return;
  setAccessibleName(now);
  if (toolTip() == before) setToolTip(now);
}

void NumberField::show(const QString& digits) {
  showName();
  showDigits(digits);
}

void NumberField::showDigits(const QString& digits) {
  if (isWrong() && hasFocus()) return;
  m_shown = digits;
  const auto same = [](QString a, QString b) {
    if (a.trimmed().startsWith('<') != b.startsWith('<')) return false;
    return core::parseDecimal(a.remove('<').toStdString()) == core::parseDecimal(b.remove('<').toStdString());
  };
  if (hasFocus() && (m_withUnit || same(text(), digits))) return;
  m_withUnit = false;
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

void NumberField::refuse(const QString& message) {
  setWrong(message);
  if (m_shown == m_before || (m_before.isEmpty() && !m_spec.mayBeEmpty)) return;
  m_shown = m_before;
  if (onTyped) onTyped(m_before);
}

void NumberField::take(const QString& digits) {
  setWrong({});
  m_shown = digits;
  if (onTyped) onTyped(digits);
}

/// "1,335" of a density from 0.5 to 3 can only be 1.335; where both readings fit, or none, nothing.
QString NumberField::meantByLimits(const QString& figure) const {
  const auto decimal = core::parseDecimal(figure.toStdString());
  const auto commas = figure.count(',');
  if (!decimal || commas != 1) return {};
  const auto thousands = core::parseDecimal(QString(figure).remove(',').toStdString());
  const auto fits = [&](double value) { return value >= m_spec.least && value <= m_spec.most; };
  if (!thousands || fits(*decimal) == fits(*thousands)) return {};
  return QString::fromStdString(core::decimalText(fits(*decimal) ? *decimal : *thousands));
}

/// The figure's digits in the unit asked for; empty with the fault in words where it can't be had.
QString NumberField::inAskedUnit(const QString& figure, QString& fault) const {
  const auto unit = asked ? asked() : AskedUnit{reading::unitNamed(m_spec.unit.toStdString()), {}};
  const auto typed = reading::typedQuantity(figure.toStdString(), unit.unit, unit.substance);
  if (typed) return QString::fromStdString(typed->digits);
  if (const auto meant = meantByLimits(figure); !meant.isEmpty()) return meant;
  if (const auto other = orElse ? orElse(figure) : QString(); !other.isEmpty()) return other;
  const auto shortText = figure.size() > 24 ? figure.left(22) + "…" : figure;
  const auto& problem = typed.problem();
  if (problem.code == core::ProblemCode::NotANumber)
    fault =
        tr("%1: “%2” is not a number; type one such as %3").arg(m_spec.name, shortText, localNumber(12.5, 1));
  else if (problem.code == core::ProblemCode::Unclear)
    fault = tr("%1: “%2” is not clear; it could mean %3")
                .arg(m_spec.name, shortText, QString::fromStdString(problem.values.at(1)));
  else if (unit.unit.empty())
    fault = tr("%1: “%2” is not a number; type one such as %3, without a unit")
                .arg(m_spec.name, shortText, localNumber(12.5, 1));
  else
    fault = tr("%1: “%2” is not a number in a unit known here; type one such as %3 %4")
                .arg(m_spec.name, shortText, localNumber(12.5, 1),
                     QString::fromStdString(words::unitName(unit.unit)));
  return {};
}

void NumberField::read(const QString& text) {
  if (!m_typing) m_before = m_shown;
  m_typing = true;
  m_withUnit = false;
  const auto typed = text.trimmed();
  if (typed.isEmpty()) {
    if (!m_spec.mayBeEmpty)
      return refuse(tr("%1: type a number, the last one still counts").arg(m_spec.name));
    return take({}); // or leaving the field would bring back what was taken out
  }
  const bool below = m_spec.mayBeBelow && typed.startsWith('<');
  auto figure = below ? typed.mid(1).trimmed() : typed;
  // "7." on its way to 7.5 is 7 so far: no field turns red between two keys of a good number.
  const bool unfinished = figure.size() > 1 && (figure.endsWith('.') || figure.endsWith(','));
  if (unfinished && figure.at(figure.size() - 2).isDigit() && figure.count('.') + figure.count(',') == 1)
    figure.chop(1);
  if (below && figure.isEmpty()) return refuse(tr("%1: less than what?").arg(m_spec.name));
  QString fault;
  const auto digits = inAskedUnit(figure, fault);
  if (!fault.isEmpty()) return refuse(fault);
  const auto value = core::parseDecimal(digits.toStdString()).value_or(0);
  const bool vanishing = value != 0 && std::abs(value) < core::leastFigure;
  if (value < m_spec.least || value > m_spec.most || vanishing)
    return refuse(tr("%1: %2 is out of range; it should be from %3 to %4 %5")
                      .arg(m_spec.name, typed.size() > 24 ? typed.left(22) + "…" : typed,
                           localFigure(m_spec.least), QLocale().toString(m_spec.most, 'g', 6), unitNow()));
  m_withUnit = !core::parseDecimal(figure.toStdString());
  take((below ? "<" : "") + digits);
}

void NumberField::focusOutEvent(QFocusEvent* event) {
  QLineEdit::focusOutEvent(event);
  m_typing = m_withUnit = false;
  // A wrong text stays to be mended; a good one is shown as the document has it.
  if (!isWrong()) showDigits(m_shown);
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
    m_typing = false;
    setWrong({});
    setText(last);
    show(last);
    return;
  }
  // Who types over the whole of a good figure begins anew: it is what stands again if the new one is none.
  if (!isWrong() && hasSelectedText() && selectedText() == text()) m_typing = false;
  QLineEdit::keyPressEvent(event);
}

} // namespace butte::app
