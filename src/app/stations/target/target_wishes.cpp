#include "stations/target/target_wishes.h"

#include "document/formula_editor.h"
#include "edits/acid_edits.h"
#include "edits/formula_edits.h"
#include "edits/target_edits.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

namespace butte::app {

namespace {

using core::Nutrient;
using core::RatioBasis;

/// Ratios that growers speak of, on the basis they usually count by (common practice).
struct UsualRatio {
  const char* name;
  std::vector<Nutrient> above, below;
  RatioBasis basis;
  double value;
};
const std::vector<UsualRatio>& usualRatios() {
  static const std::vector<UsualRatio> list{
      {QT_TRANSLATE_NOOP("butte", "N : K by weight"), {Nutrient::N}, {Nutrient::K}, RatioBasis::Mass, 0.75},
      {QT_TRANSLATE_NOOP("butte", "K : Ca by weight"), {Nutrient::K}, {Nutrient::Ca}, RatioBasis::Mass, 1.5},
      {QT_TRANSLATE_NOOP("butte", "Ca : Mg by weight"), {Nutrient::Ca}, {Nutrient::Mg}, RatioBasis::Mass, 4},
      {QT_TRANSLATE_NOOP("butte", "K : (Ca + Mg) in meq"),
       {Nutrient::K},
       {Nutrient::Ca, Nutrient::Mg},
       RatioBasis::Equivalents,
       0.6},
      {QT_TRANSLATE_NOOP("butte", "N : P by weight"), {Nutrient::N}, {Nutrient::P}, RatioBasis::Mass, 4},
      {QT_TRANSLATE_NOOP("butte", "NH₄ : N in mmol"),
       {Nutrient::NAmmonium},
       {Nutrient::N},
       RatioBasis::Moles,
       0.07}};
  return list;
}

QString sideText(const std::vector<core::Nutrient>& side) {
  QStringList parts;
  for (const auto n : side)
    parts << QString::fromStdString(words::nutrientSymbol(n));
  return parts.size() > 1 ? "(" + parts.join(" + ") + ")" : parts.join("");
}

QString basisText(core::RatioBasis basis) {
  return basis == core::RatioBasis::Mass    ? tr("by weight")
         : basis == core::RatioBasis::Moles ? tr("in mmol")
                                            : tr("in meq");
}

} // namespace

TargetWishes::TargetWishes(FormulaEditor& editor, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_ratios(new QVBoxLayout), m_add(new QComboBox) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  m_ratios->setSpacing(2);
  column->addLayout(m_ratios);
  m_add->setObjectName("addRatio");
  m_add->setAccessibleName(tr("ask for a ratio"));
  m_add->addItem(tr("Ask for a ratio…"));
  for (const auto& usual : usualRatios())
    m_add->addItem(butte::app::tr(usual.name));
  connect(m_add, &QComboBox::activated, this, &TargetWishes::addRatio);
  column->addWidget(m_add);
  auto* caps = new QGridLayout;
  caps->setHorizontalSpacing(5);
  caps->addWidget(new PlainLabel(tr("At most, mg/L")), 0, 0, 1, 4);
  int at = 0;
  for (const auto nutrient : {Nutrient::Na, Nutrient::Cl, Nutrient::NAmmonium, Nutrient::B}) {
    const auto name = QString::fromStdString(words::nutrientName(nutrient));
    auto* field = new NumberField({tr("most %1").arg(name), "mg/L", 0, 10000, true});
    field->setObjectName(QString("cap_") + QString::fromUtf8(core::nutrientKey(nutrient).data()));
    field->setFixedWidth(56);
    field->setPlaceholderText(tr("any"));
    field->onTyped = [this, nutrient](const QString& digits) {
      TargetEdits(m_editor).setCap(nutrient, digits);
    };
    field->onMessage = [this](const QString& words) { emit message(words); };
    caps->addWidget(new PlainLabel(name), 1 + at / 2, at % 2 * 2);
    caps->addWidget(field, 1 + at / 2, at % 2 * 2 + 1);
    m_caps.emplace_back(nutrient, field);
    ++at;
  }
  caps->setColumnStretch(4, 1);
  column->addLayout(caps);
  column->addLayout(makeEnd());
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  refresh();
}

/// Where the feed shall end: its pH, and the alkalinity that acid leaves as a buffer.
QLayout* TargetWishes::makeEnd() {
  auto* row = new QHBoxLayout;
  row->setSpacing(5);
  m_ph = new NumberField({tr("pH wanted"), "", 2, 12});
  m_ph->setObjectName("targetPh");
  m_ph->setFixedWidth(48);
  m_ph->onTyped = [this](const QString& digits) { AcidEdits(m_editor).setPhWanted(digits); };
  m_left = new NumberField({tr("alkalinity left"), "meq/L", 0, 100, true});
  m_left->setObjectName("targetAlkalinityLeft");
  m_left->setFixedWidth(48);
  m_left->setPlaceholderText(tr("all"));
  m_left->setToolTip(tr(
      "What acid leaves of the water's alkalinity, as a buffer. Empty: no acid is dosed into the recipe."));
  m_left->onTyped = [this](const QString& digits) { FormulaEdits(m_editor).setAlkalinityLeft(digits); };
  for (auto* field : {m_ph, m_left})
    field->onMessage = [this](const QString& words) { emit message(words); };
  row->addWidget(new PlainLabel(tr("pH")));
  row->addWidget(m_ph);
  row->addWidget(new PlainLabel(tr("alkalinity left")));
  row->addWidget(m_left);
  row->addWidget(new PlainLabel(tr("meq/L")));
  row->addStretch();
  return row;
}

void TargetWishes::rebuildRatios(std::size_t count) {
  for (auto* row : m_rows) {
    row->hide();
    row->deleteLater();
  }
  m_rows.clear();
  for (std::size_t i = 0; i < count; ++i) {
    auto* box = new QWidget;
    auto* row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(5);
    auto* name = new PlainLabel;
    name->setObjectName(QString("ratioName%1").arg(i));
    auto* value = new NumberField({tr("wished ratio"), "", 0.0001, 10000});
    value->setObjectName(QString("ratioValue%1").arg(i));
    value->setFixedWidth(56);
    value->onTyped = [this, i](const QString& digits) { TargetEdits(m_editor).setRatioValue(i, digits); };
    auto* band = new NumberField({tr("band of the ratio"), "%", 0, 99});
    band->setObjectName(QString("ratioBand%1").arg(i));
    band->setFixedWidth(44);
    band->onTyped = [this, i](const QString& digits) { TargetEdits(m_editor).setRatioTolerance(i, digits); };
    auto* now = new PlainLabel;
    now->setObjectName(QString("ratioNow%1").arg(i));
    now->setProperty("soft", true);
    auto* remove = new QToolButton;
    remove->setObjectName(QString("removeRatio%1").arg(i));
    remove->setText("×");
    remove->setAccessibleName(tr("drop this ratio"));
    connect(remove, &QToolButton::clicked, this, [this, i] { TargetEdits(m_editor).removeRatio(i); });
    row->addWidget(name, 1);
    row->addWidget(value);
    row->addWidget(new PlainLabel("±"));
    row->addWidget(band);
    row->addWidget(new PlainLabel("%"));
    row->addWidget(now);
    row->addWidget(remove);
    m_ratios->addWidget(box);
    m_rows.push_back(box);
  }
}

void TargetWishes::refresh() {
  const auto& request = m_editor.document().given.request;
  if (m_rows.size() != request.ratios.size()) rebuildRatios(request.ratios.size());
  const TargetEdits edits(m_editor);
  const auto ratios = edits.ratios();
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    const auto& wish = request.ratios[i];
    const auto is = core::ratioOf(wish, m_editor.answer().feed.milligramsPerLitre);
    const auto child = [&](const char* name) { return QString(name) + QString::number(i); };
    m_rows[i]
        ->findChild<QLabel*>(child("ratioName"))
        ->setText(sideText(wish.above) + " : " + sideText(wish.below) + " " + basisText(wish.basis));
    m_rows[i]->findChild<NumberField*>(child("ratioValue"))->show(QString::fromStdString(ratios[i].value));
    m_rows[i]
        ->findChild<NumberField*>(child("ratioBand"))
        ->show(QString::fromStdString(ratios[i].tolerancePercent));
    m_rows[i]
        ->findChild<QLabel*>(child("ratioNow"))
        ->setText(is ? (wish.contains(*is) ? tr("is %1") : tr("▲ is %1")).arg(localNumber(*is, 2))
                     : QString("–"));
  }
  m_ph->show(QString::number(m_editor.document().given.acid.targetPh, 'g', 4));
  const auto& left = request.alkalinityLeftMeqPerL;
  m_left->show(left ? QString::number(*left, 'g', 4) : QString());
  for (const auto& [nutrient, field] : m_caps)
    field->show(QString::fromStdString(edits.cap(nutrient)));
}

void TargetWishes::addRatio(int index) {
  m_add->setCurrentIndex(0);
  if (index < 1 || index > static_cast<int>(usualRatios().size())) return;
  const auto& usual = usualRatios()[static_cast<std::size_t>(index - 1)];
  // Where the target itself says both, its own ratio is what is meant.
  core::NutrientAmounts wanted;
  for (const auto& row : m_editor.document().given.request.rows)
    wanted.add(row.nutrient, row.milligramsPerLitre);
  core::RatioWish wish;
  wish.above = usual.above;
  wish.below = usual.below;
  wish.basis = usual.basis;
  wish.value = usual.value;
  if (const auto own = core::ratioOf(wish, wanted); own && *own > 0) wish.value = *own;
  TargetEdits(m_editor).addRatio(wish, (sideText(wish.above) + " : " + sideText(wish.below)).toStdString());
}

} // namespace butte::app
