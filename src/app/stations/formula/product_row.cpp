#include "stations/formula/product_row.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "document/product_looks.h"
#include "edits/shelf_edits.h"
#include "fields/number_field.h"
#include "paint/fitted_label.h"
#include "paint/hatch.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "quantity/typed_dose.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "units/convert.h"
#include "wording/direct_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QCheckBox>
#include <QContextMenuEvent>
#include <QEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMenu>
#include <QPainter>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cctype>

namespace butte::app {

ProductRow::ProductRow(FormulaEditor& editor, UnitsShown& units, std::string id, QWidget* parent)
    : QFrame(parent), m_editor(editor), m_units(units), m_id(std::move(id)), m_on(new QCheckBox),
      m_name(new FittedLabel), m_carries(new FittedLabel), m_unit(new PlainLabel), m_hold(new QToolButton) {
  const auto name = QString::fromStdString(editor.nameOf(m_id));
  const auto objectId = QString::fromStdString(m_id);
  m_weight = new NumberField({tr("weight of %1").arg(name), units.massUnit(), 0, 1e8, true});
  m_weight->setObjectName("weight_" + objectId);
  m_weight->setFixedWidth(72);
  m_weight->setFont(faceOf(15, true));
  m_weight->onTyped = [this](const QString& digits) { weightTyped(digits); };
  m_weight->orElse = [this](const QString& text) { return weightOfDose(text); };
  m_weight->asked = [this] { return AskedUnit{m_rowUnit.toStdString(), {}}; };
  // In the unit that fits it, once the hand has left; queued, for a window that closes takes the focus too.
  connect(m_weight, &QLineEdit::editingFinished, this, &ProductRow::refresh, Qt::QueuedConnection);
  m_weight->onMessage = [this](const QString& words) { emit message(words); };
  m_weight->installEventFilter(this);
  m_on->setObjectName("on_" + objectId);
  m_on->setAccessibleName(tr("use %1").arg(name));
  m_on->setToolTip(tr("Use this product in the formula"));
  connect(m_on, &QCheckBox::clicked, this, &ProductRow::setOn);
  m_hold->setObjectName("hold_" + objectId);
  m_hold->setCheckable(true);
  m_hold->setFixedSize(42, 24);
  m_hold->setFont(faceOf(11));
  connect(m_hold, &QToolButton::clicked, this, &ProductRow::setHeld);
  m_name->setFont(faceOf(12));
  m_carries->setFont(faceOf(11));
  m_carries->setProperty("soft", true);
  m_unit->setFont(faceOf(12));
  m_unit->setFixedWidth(18);

  auto* words = new QVBoxLayout;
  words->setSpacing(0);
  words->addWidget(m_name);
  words->addWidget(m_carries);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(32, 2, 5, 2);
  row->setSpacing(6);
  row->addWidget(m_on);
  row->addLayout(words, 1);
  row->addWidget(m_weight);
  row->addWidget(m_unit);
  row->addWidget(m_hold);
  setFixedHeight(40);
  refresh();
}

QString ProductRow::carries() const {
  const int index = m_editor.indexOf(m_id);
  const auto& product = m_editor.document().allProducts[static_cast<std::size_t>(index)];
  QStringList parts;
  for (const auto n : core::allNutrients) {
    if (n != core::Nutrient::N && product.composition.massFraction.of(n) > 0.004)
      parts << QString::fromStdString(words::nutrientSymbol(n));
  }
  if (const auto grams = m_editor.gramsOf(m_id); grams && product.liquid && product.densityKgPerL)
    parts.prepend(m_units.stockText(core::Volume::fromLitres(grams->kilograms() / *product.densityKgPerL)));
  if (product.composition.role == core::ProductRole::Acid) parts << tr("acid");
  if (product.composition.role == core::ProductRole::Base) parts << tr("base");
  return parts.join(" · ");
}

void ProductRow::refresh() {
  const int index = m_editor.indexOf(m_id);
  if (index < 0) return;
  const auto& seen = m_editor.document().products[static_cast<std::size_t>(index)];
  const auto grams = m_editor.gramsOf(m_id);
  const auto name = QString::fromStdString(seen.name);
  m_on->setChecked(seen.on);
  m_name->setText(name);
  m_weight->setToolTip(
      tr("A weight, or a dose as the label states it: so much per %1").arg(m_units.volumeUnitName()));
  setToolTip(
      tr("%1\ndouble-click, or F4 in its weight, for composition and price; right click for more").arg(name));
  const auto& overlay = m_editor.overlay();
  const auto other =
      overlay ? overlay->grams.find(m_id) : std::map<std::string, core::Mass>::const_iterator{};
  const auto coarse = overlay ? QString() : tooCoarse();
  if (!coarse.isEmpty()) setToolTip(toolTip() + "\n" + coarse);
  restyle(*m_carries, coarse.isEmpty() ? QString() : QString("color: %1;").arg(theme().amberInk.name()));
  m_carries->setText(!coarse.isEmpty()               ? "▲ " + coarse
                     : !overlay                      ? carries()
                     : other == overlay->grams.end() ? tr("dashed: none")
                                                     : tr("dashed: %1").arg(m_units.text(other->second)));
  const bool liquid = m_editor.document().allProducts[static_cast<std::size_t>(index)].liquid;
  m_quiet = !overlay && coarse.isEmpty() && !liquid; // of a liquid it tells how much to measure out
  giveRoom();
  m_hold->setChecked(seen.held.has_value());
  m_hold->setText(seen.held ? tr("held") : tr("free"));
  m_hold->setToolTip(
      seen.held ? tr("Held: the rest is solved around this weight. Press to let the solver choose again.")
                : tr("Free: the solver chooses. Press to hold this weight."));
  m_hold->setAccessibleName(tr("%1 is %2").arg(name, m_hold->text()));
  m_hold->setEnabled(seen.on);
  m_weight->setEnabled(seen.on);
  // Never under a typing hand, but for another choice of units.
  if (!m_weight->hasFocus() || m_rowMass != m_units.mass()) m_rowUnit = unitFor(grams.value_or(core::Mass{}));
  m_rowMass = m_units.mass();
  m_unit->setText(m_rowUnit);
  if (seen.held && QString::fromStdString(seen.held->unit) == m_rowUnit)
    m_weight->show(shownHeld(*seen.held));
  else
    m_weight->show(grams ? QString::fromStdString(weightDigits(*grams)) : QString());
}

/// A name that is too long for its line takes the line of what the product carries too.
void ProductRow::giveRoom() {
  m_carries->setVisible(!m_quiet || m_name->fitsOneLine());
}

void ProductRow::resizeEvent(QResizeEvent* event) {
  QFrame::resizeEvent(event);
  giveRoom();
}

/// How far off the scale may be, and what would cure it; empty where it weighs well enough.
QString ProductRow::tooCoarse() const {
  const int index = m_editor.shelfIndexOf(m_id);
  const auto& answer = m_editor.answer();
  if (index < 0 || static_cast<std::size_t>(index) >= answer.weighed.size()) return {};
  const auto& step = answer.weighed[static_cast<std::size_t>(index)];
  const auto& product = m_editor.document().given.request.shelf[static_cast<std::size_t>(index)];
  const bool byVolume = product.liquid && product.densityKgPerL; // a syringe measures it
  return !step || !step->tooFine || byVolume ? QString() : tooCoarseText(*step, answer, m_units);
}

/// In whole steps all digits of the scale's display; else as many as count.
std::string ProductRow::weightDigits(core::Mass mass) const {
  const bool asOnScale = m_editor.document().given.wholeSteps && m_units.mass() == MassShown::Metric;
  return asOnScale ? core::decimalText(std::round(mass.grams() * 1e6) / 1e6)
                   : words::digits(m_rowUnit == "oz" ? mass.ounces() : m_units.massIn(mass));
}

/// Traces of a feed in pounds are told in ounces: their digits would all be noughts.
QString ProductRow::unitFor(core::Mass mass) const {
  constexpr double leastPounds = 0.1;
  const bool little =
      m_units.mass() == MassShown::Pounds && mass > core::Mass{} && mass.pounds() < leastPounds;
  return little ? "oz" : m_units.massUnit();
}

/// A typed weight as it was typed; one that came of a change of the batch in as many digits as any other.
QString ProductRow::shownHeld(const exchange::Amount& held) {
  constexpr auto mostTyped = 9; // digits: more come of a sum
  const auto digits =
      std::count_if(held.digits.begin(), held.digits.end(), [](unsigned char c) { return std::isdigit(c); });
  return QString::fromStdString(digits > mostTyped ? words::digits(held.value()) : held.digits);
}

void ProductRow::setOn(bool on) {
  ShelfEdits(m_editor).setOn(m_id, on);
}

void ProductRow::setHeld(bool held) {
  const auto grams = m_editor.gramsOf(m_id).value_or(core::Mass{});
  const auto digits = held ? weightDigits(grams) : std::string();
  ShelfEdits(m_editor).hold(m_id, {digits, m_rowUnit.toStdString()}, false);
}

void ProductRow::weightTyped(const QString& digits) {
  ShelfEdits(m_editor).hold(m_id, typed(digits, m_rowUnit), true);
}

/// "115 g per 100 L", "0.5 fl oz per gallon", "2 tsp" for the batch in hand.
QString ProductRow::weightOfDose(const QString& text) const {
  const int index = m_editor.indexOf(m_id);
  if (index < 0) return {};
  const auto& document = m_editor.document();
  const auto mass =
      reading::typedDose(text.toStdString(), document.allProducts[static_cast<std::size_t>(index)],
                         document.given.request.volume);
  // As many digits as a hand would type, so that the field shows all of what counts.
  return mass ? digitsIn({QString::number(mass->grams(), 'g', 6).toStdString(), "g"}, m_rowUnit) : QString();
}

void ProductRow::setLit(bool on) {
  if (m_lit == on) return;
  m_lit = on;
  update();
}

void ProductRow::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.fillRect(rect(), t.card);
  p.setPen(QPen(m_lit ? t.accent : t.line, m_lit ? 2 : 1));
  p.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
  p.setOpacity(m_on->isChecked() ? 1 : 0.3);
  fillAs(p, QRectF(6, 6, 20, height() - 12), lookIn(m_editor.document(), m_id));
  const int index = m_editor.indexOf(m_id);
  const auto code =
      index < 0 ? QString()
                : QString::fromStdString(m_editor.document().products[static_cast<std::size_t>(index)].code);
  if (code.isEmpty()) return;
  p.fillRect(QRectF(4, height() / 2.0 - 8, 25, 16), t.card);
  p.setPen(t.ink);
  p.setFont(faceOf(11, true));
  p.drawText(QRectF(4, height() / 2.0 - 8, 25, 16), Qt::AlignCenter, code);
}

void ProductRow::enterEvent(QEnterEvent*) {
  emit lit(m_id);
}
void ProductRow::leaveEvent(QEvent*) {
  emit lit("");
}
void ProductRow::mouseDoubleClickEvent(QMouseEvent*) {
  emit detailsAsked(m_id);
}

void ProductRow::contextMenuEvent(QContextMenuEvent* event) {
  QMenu menu(this);
  menu.setObjectName("rowMenu");
  const bool held = m_hold->isChecked();
  menu.addAction(tr("Composition and price…\tF4"), this, [this] { emit detailsAsked(m_id); });
  menu.addAction(held ? tr("Let the solver choose its weight") : tr("Hold its weight"), this,
                 [this, held] { setHeld(!held); });
  menu.addSeparator();
  menu.addAction(tr("Take off the shelf\tCtrl+Delete"), this, &ProductRow::takeOff)->setObjectName("takeOff");
  menu.exec(event->globalPos());
}

/// The row goes with it: what told of the key is no longer there afterwards.
void ProductRow::takeOff() {
  const auto name = m_name->text();
  emit message(tr("%1 is off the shelf; Ctrl+Z brings it back.").arg(name));
  QMetaObject::invokeMethod(
      this, [this] { ShelfEdits(m_editor).remove(m_id); }, Qt::QueuedConnection);
}

bool ProductRow::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::FocusIn) {
    m_editor.endMerging();
    emit lit(m_id);
  }
  if (event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_F4) {
    emit detailsAsked(m_id);
    return true;
  }
  if (event->type() == QEvent::KeyPress &&
      static_cast<QKeyEvent*>(event)->matches(QKeySequence::DeleteEndOfWord)) {
    takeOff();
    return true;
  }
  return QFrame::eventFilter(watched, event);
}

} // namespace butte::app
