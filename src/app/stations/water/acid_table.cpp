#include "stations/water/acid_table.h"

#include "document/formula_editor.h"
#include "edits/acid_edits.h"
#include "formula/acid_choices.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QStyle>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

namespace {

constexpr double usualLeftMeqPerL = 0.5;
constexpr double muchOfTarget = 0.9;

QString dangerOf(const core::CatalogueProduct& product) {
  const auto has = [&](const char* code) {
    return std::find(product.hazardCodes.begin(), product.hazardCodes.end(), code) !=
           product.hazardCodes.end();
  };
  QStringList words;
  if (has("H314")) words << tr("burns");
  if (has("H331")) words << tr("toxic fumes");
  if (has("H335")) words << tr("fumes");
  if (product.oxidiser) words << tr("oxidiser");
  if (has("H319") && !has("H314")) words << tr("irritates eyes");
  return words.isEmpty() ? tr("mild") : words.join(", ");
}

QString bringsOf(const core::AcidChoice& choice) {
  if (choice.weak) return tr("no nutrient; microbes eat it, the pH comes back");
  const auto amount = choice.bringsMgPerL.of(choice.mostOf);
  const auto symbol = qtext(words::nutrientSymbol(choice.mostOf));
  if (choice.mostOf == core::Nutrient::Cl) return tr("+%1 mg/L chloride, of no use").arg(localFigure(amount));
  const auto text = tr("+%1 mg/L %2, %3 % of the target")
                        .arg(localFigure(amount), symbol, localNumber(100 * choice.shareOfTarget, 0));
  return choice.shareOfTarget > muchOfTarget ? "▲ " + text : text;
}

} // namespace

AcidTable::AcidTable(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  setObjectName("acidTable");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 6, 2, 0);
  column->setSpacing(3);
  auto* title = new PlainLabel(tr("Acids side by side, in the recipe"));
  title->setFont(faceOf(14, true));
  column->addWidget(title);
  m_head = new WrappedLabel;
  m_head->setProperty("soft", true);
  m_head->setFont(faceOf(12));
  column->addWidget(m_head);
  for (const auto& product : core::catalogue()) {
    if (product.composition.role == core::ProductRole::Acid) addRow(product);
  }
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  refresh();
}

void AcidTable::addRow(const core::CatalogueProduct& product) {
  Row row{product.id, new QWidget, new QPushButton(qtext(product.shortName)), new PlainLabel};
  row.button->setObjectName("acid_" + qtext(product.id));
  row.button->setStyleSheet("text-align: left; padding: 4px 6px");
  row.button->setFixedWidth(172);
  const auto id = product.id;
  connect(row.button, &QPushButton::clicked, this, [this, id] { use(id); });
  row.words->setFont(faceOf(12));
  row.words->setWordWrap(true);
  row.words->setTextFormat(Qt::RichText);
  auto* line = new QHBoxLayout(row.box);
  line->setContentsMargins(0, 0, 0, 0);
  line->addWidget(row.button, 0, Qt::AlignTop);
  line->addWidget(row.words, 1);
  layout()->addWidget(row.box);
  m_rows.push_back(row);
}

void AcidTable::refresh() {
  const auto& given = m_editor.document().given.request;
  const double left = given.alkalinityLeftMeqPerL.value_or(usualLeftMeqPerL);
  const auto choices = core::acidChoices(m_editor.answer().waters.water, left, given.rows);
  const auto leaves = localNumber(left, 2);
  m_head->setText(
      choices.empty()
          ? tr("None is needed: the water's alkalinity is not known, or no more than %1 meq/L.").arg(leaves)
          : tr("Each leaves %1 meq/L of alkalinity as a buffer. Press one to put it into the recipe; it goes "
               "into an acid tank of its own, never into A or B. A price on the shelf shows its cost.")
                .arg(leaves));
  for (const auto& row : m_rows) {
    const auto it =
        std::find_if(choices.begin(), choices.end(), [&](const auto& c) { return c.product->id == row.id; });
    row.box->setVisible(it != choices.end());
    if (it == choices.end()) continue;
    const auto at = m_editor.indexOf(row.id);
    const bool inUse = at >= 0 && m_editor.document().products[static_cast<std::size_t>(at)].on;
    if (row.button->property("primary").toBool() != inUse) {
      row.button->setProperty("primary", inUse);
      row.button->style()->unpolish(row.button);
      row.button->style()->polish(row.button);
    }
    const auto dose = it->millilitresPerLitre > 0
                          ? m_units.dose(it->millilitresPerLitre)
                          : m_units.text(core::Concentration::fromGramsPerLitre(it->gramsPerLitre));
    QString cost;
    if (at >= 0) {
      const auto& price = m_editor.document().allProducts[static_cast<std::size_t>(at)].pricePerKg;
      if (price)
        cost =
            tr(" · costs %1 per %2")
                .arg(localFigure(*price * it->gramsPerLitre * m_units.measures().bulkVolume().cubicMetres()),
                     qtext(m_units.measures().bulkVolumeName()));
    }
    row.words->setText(
        QString("<b>%1</b>%2 · %3<br>%4").arg(dose, cost, dangerOf(*it->product), bringsOf(*it)));
  }
}

void AcidTable::use(const std::string& id) {
  const auto* product = core::findInCatalogue(id);
  AcidEdits(m_editor).setRecipeAcid(id, qtext(product->shortName), QString::number(usualLeftMeqPerL));
  emit message(tr("%1 is the recipe's acid now; the salts gave way to what it brings. Acid into water, "
                  "goggles and gloves; label and data sheet first.")
                   .arg(qtext(product->shortName)));
}

} // namespace butte::app
