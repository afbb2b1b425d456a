#include "stations/stocks/stock_panel.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/stock_edits.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "units/convert.h"
#include "words.h"

#include <QLabel>
#include <QScrollArea>

namespace butte::app {

StockPanel::StockPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  auto* fresh = new WhileSeen(this, [this] {
    // Straight into a vessel there are no tanks, and these panels go from the screen.
    if (m_editor.answer().direct) return;
    refresh(); // may make fields for tanks that came
    refreshFields();
  });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  fresh->outdate();
}

std::string StockPanel::unitKey(Kind kind) const {
  switch (kind) {
  case Kind::Volume:
    return m_units.volumeUnit().toStdString();
  case Kind::Conductivity:
    return m_units.conductivityUnit().toStdString();
  case Kind::Temperature:
    return m_units.temperatureUnit().toStdString();
  case Kind::Dose: // kept in mL per L
  case Kind::Plain:
    break;
  }
  return {};
}

QString StockPanel::unitName(Kind kind) const {
  switch (kind) {
  case Kind::Volume:
    return m_units.volumeUnitName();
  case Kind::Conductivity:
    return m_units.conductivityUnitName();
  case Kind::Temperature:
    return m_units.temperatureUnitName();
  case Kind::Dose:
    return tr("mL per %1").arg(m_units.volumeUnitName());
  case Kind::Plain:
    break;
  }
  return {};
}

NumberField* StockPanel::field(const QString& name, const QString& id, const std::string& path, Kind kind,
                               double least, double most, std::function<QString()> otherwise) {
  auto* made = new NumberField({name, unitName(kind), least, most, true});
  made->setObjectName(id);
  made->setFixedWidth(64);
  const Bound bound{made, path, kind, std::move(otherwise)};
  made->asked = [this, kind] { return AskedUnit{unitKey(kind), {}}; };
  made->onTyped = [this, bound](const QString& digits) { keep(bound, digits); };
  made->onMessage = [this](const QString& words) { emit message(words); };
  m_fields.push_back(bound);
  return made;
}

void StockPanel::keep(const Bound& bound, const QString& digits) {
  auto typed = digits.toStdString();
  if (const auto dose = core::parseDecimal(typed); dose && bound.kind == Kind::Dose)
    typed = core::decimalText(*dose / m_units.measures().oneVolume().litres());
  StockEdits(m_editor).setDosing(bound.path, {typed, unitKey(bound.kind)});
}

void StockPanel::refreshFields() {
  for (const auto& [label, kind] : m_unitLabels)
    label->setText(unitName(kind));
  const StockEdits edits(m_editor);
  for (const auto& bound : m_fields) {
    const auto typed = edits.dosing(bound.path);
    if (bound.otherwise) bound.field->setPlaceholderText(bound.otherwise());
    const auto unit = unitKey(bound.kind);
    if (bound.kind == Kind::Dose && !typed.isEmpty()) {
      bound.field->show(QString::number(typed.value() * m_units.measures().oneVolume().litres(), 'g', 6));
      continue;
    }
    const auto converted = typed.isEmpty() || typed.unit == unit
                               ? core::Result<double>(core::Problem{})
                               : core::convert(typed.value(), typed.unit, unit);
    bound.field->show(QString::fromStdString(converted ? words::digits(*converted) : typed.digits));
  }
}

QLabel* StockPanel::unitLabel(Kind kind) {
  auto* label = new PlainLabel(unitName(kind));
  m_unitLabels.emplace_back(label, kind);
  return label;
}

QLabel* StockPanel::words(const QString& text, bool soft) {
  auto* label = new PlainLabel(text);
  label->setProperty("soft", soft);
  return label;
}

QWidget* StockPanel::scrolled(QLabel* text) {
  auto* scroll = new QScrollArea;
  scroll->setWidget(text);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  return scroll;
}

QLabel* StockPanel::figureLabel(const QString& id) {
  auto* label = new PlainLabel;
  label->setObjectName(id);
  label->setFont(faceOf(15, true));
  return label;
}

} // namespace butte::app
