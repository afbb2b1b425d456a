#include "stations/stocks/strength_bar.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "dose/ratio.h"
#include "edits/formula_edits.h"
#include "edits/stock_edits.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stock_words.h"
#include "wording/dose_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QToolButton>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {} // namespace

StrengthBar::StrengthBar(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  makeForm();
  makeFields();
  m_dose = new PlainLabel;
  m_dose->setTextFormat(Qt::RichText);
  m_dose->setObjectName("dose");
  m_dose->setFont(faceOf(13, true));
  m_dose->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
  auto* swap = new QPushButton(tr("Swap A ⇄ B"));
  swap->setObjectName("swapLetters");
  swap->setToolTip(
      tr("Which side is called A differs by school: the letter is yours, the contents stay where they are"));
  connect(swap, &QPushButton::clicked, this, [this] { StockEdits(m_editor).swapFirstNames(); });
  m_coldestUnit = new PlainLabel;
  auto* row = new FlowRow(this);
  row->addTogether({new PlainLabel(tr("Strength")), m_form, m_factor});
  row->addWidget(m_dose);
  row->addTogether({new PlainLabel(tr("coldest night")), m_coldest, m_coldestUnit});
  row->addTogether({new PlainLabel(tr("margin")), m_margin, new PlainLabel("%")});
  row->addTogether({new PlainLabel(tr("acid leaves")), m_alkalinity, new PlainLabel(tr("meq/L"))});
  row->addWidget(swap);
  row->addWidget(makeAdd());
}

NumberField* StrengthBar::makeField(const QString& name, const QString& id, double least, double most,
                                    int width) {
  auto* field = new NumberField({name, "", least, most});
  field->setObjectName(id);
  field->setFixedWidth(width);
  field->onMessage = [this](const QString& words) { emit message(words); };
  return field;
}

void StrengthBar::makeForm() {
  m_form = new QComboBox;
  m_form->setObjectName("ratioForm");
  m_form->setFixedWidth(112);
  m_form->setAccessibleName(tr("how the dilution is stated"));
  for (int form = 0; form < core::ratioFormCount; ++form)
    m_form->addItem(ratioFormWords(static_cast<core::RatioForm>(form)), form);
  connect(m_form, &QComboBox::activated, this, [this] {
    StockEdits(m_editor).setForm(static_cast<core::RatioForm>(m_form->currentData().toInt()));
  });
}

void StrengthBar::makeFields() {
  m_factor = makeField(tr("stock strength"), "stockFactor", 0.0001, 100000, 64);
  m_factor->setFont(faceOf(15, true));
  m_factor->onTyped = [this](const QString& d) { StockEdits(m_editor).setStrength(d); };
  m_coldest = makeField(tr("coldest that the tanks will see"), "coldest", -5, 140, 46);
  m_coldest->asked = [this] { return AskedUnit{m_units.temperatureUnit().toStdString(), {}}; };
  m_coldest->onTyped = [this](const QString& d) {
    StockEdits(m_editor).setColdest(typed(d, m_units.temperatureUnit()));
  };
  m_margin = makeField(tr("margin below the ceiling, %"), "stockMargin", 0, 90, 40);
  m_margin->onTyped = [this](const QString& d) { StockEdits(m_editor).setMargin(d); };
  m_alkalinity = new NumberField({tr("alkalinity to leave after acid"), "meq/L", 0, 20, true});
  m_alkalinity->setObjectName("alkalinityLeft");
  m_alkalinity->setFixedWidth(56);
  m_alkalinity->setPlaceholderText(tr("no acid"));
  m_alkalinity->onMessage = [this](const QString& words) { emit message(words); };
  m_alkalinity->onTyped = [this](const QString& d) { FormulaEdits(m_editor).setAlkalinityLeft(d); };
}

QToolButton* StrengthBar::makeAdd() {
  auto* add = new QToolButton;
  add->setObjectName("addTank");
  add->setText(tr("+ tank"));
  add->setPopupMode(QToolButton::InstantPopup);
  add->setStyleSheet("QToolButton::menu-indicator { image: none; }");
  auto* menu = new QMenu(add);
  constexpr std::pair<core::TankUse, const char*> uses[] = {
      {core::TankUse::Salts, QT_TRANSLATE_NOOP("butte", "for salts")},
      {core::TankUse::Traces, QT_TRANSLATE_NOOP("butte", "for traces and chelates")},
      {core::TankUse::Acid, QT_TRANSLATE_NOOP("butte", "for acid")},
      {core::TankUse::Alone, QT_TRANSLATE_NOOP("butte", "for silicate or calcium chloride alone")}};
  for (const auto& [use, words] : uses) {
    auto* action =
        menu->addAction(app::tr(words), this, [this, chosen = use] { StockEdits(m_editor).addTank(chosen); });
    action->setObjectName("addTank_" + QString::fromStdString(std::string(core::tankUseKey(use))));
  }
  add->setMenu(menu);
  return add;
}

void StrengthBar::setFactor(double factor, bool done) {
  StockEdits(m_editor).setFactor(factor);
  if (done) m_editor.endMerging();
}

/// Acid tanks that are empty before the others: they are refilled by themselves.
QString StrengthBar::acidText() const {
  const auto& answer = m_editor.answer().stock;
  QString text;
  for (const auto& content : answer.tanks) {
    const auto feed = content.tank.volume * content.factor;
    if (content.tank.use == core::TankUse::Acid && !content.items.empty() && answer.feedMade &&
        feed < *answer.feedMade)
      text += tr("\n%1 lasts %2").arg(QString::fromStdString(content.tank.name), m_units.text(feed));
  }
  return text;
}

/// How much feed the tanks make before the first is empty.
QString StrengthBar::makesText() const {
  const auto& answer = m_editor.answer().stock;
  if (!answer.feedMade) return {};
  QString text = tr("; makes %1").arg(m_units.text(*answer.feedMade));
  return "<span style='font-weight:normal; font-size:12px'>" + text + "</span>";
}

void StrengthBar::refresh() {
  const StockEdits edits(m_editor);
  const auto& plan = m_editor.document().given.stock;
  m_form->setCurrentIndex(m_form->findData(static_cast<int>(edits.form())));
  m_factor->show(QString::fromStdString(edits.strength()));
  const auto coldest = edits.coldest();
  m_coldestUnit->setText(m_units.temperatureUnitName());
  m_coldest->show(shownIn(
      coldest.isEmpty() ? exchange::Amount{core::decimalText(plan.temperature.celsius()), "C"} : coldest,
      m_units.temperatureUnit()));
  m_margin->show(QString::fromStdString(edits.margin().empty() ? core::decimalText(plan.marginPercent)
                                                               : edits.margin()));
  const auto left = m_editor.document().given.request.alkalinityLeftMeqPerL;
  m_alkalinity->show(left ? QString::fromStdString(core::decimalText(*left)) : QString());
  const auto& answer = m_editor.answer().stock;
  m_dose->setText(doseOfTanks(answer, statedRatioForm(m_editor), m_units) + makesText());
  m_dose->setToolTip(
      (haveOwnStrengths(answer) ? tr("Each tank by its own strength") : m_units.dose(answer.doseMlPerLitre)) +
      acidText());
}

} // namespace butte::app
