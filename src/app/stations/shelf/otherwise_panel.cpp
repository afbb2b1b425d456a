#include "stations/shelf/otherwise_panel.h"

#include "document/formula_editor.h"
#include "edits/shelf_edits.h"
#include "paint/flow_row.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/shelf_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

using core::OtherShelf;

namespace {
/// "K 210 → 162 mg/L, Mg 40 → 33 mg/L".
QString sufferWords(const core::Given& given, const OtherShelf& other) {
  QStringList out;
  for (const auto& one : other.suffers)
    out << tr("%1 %2 → %3 mg/L")
               .arg(qtext(words::nutrientSymbol(given.request.rows[one.row].nutrient)),
                    localFigure(one.before), localFigure(one.after));
  return out.join(", ");
}
} // namespace

OtherwisePanel::OtherwisePanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_missing(new QPushButton(tr("It has not arrived"))),
      m_first(new QPushButton(tr("Use this up first"))), m_take(new QPushButton), m_words(new WrappedLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  auto* row = new FlowRow;
  m_missing->setObjectName("notArrived");
  m_first->setObjectName("useFirst");
  m_take->setObjectName("otherwiseTake");
  m_words->setObjectName("otherwiseWords");
  m_words->setFont(faceOf(13));
  for (auto* press : {m_missing, m_first, m_take})
    row->addWidget(press);
  column->addLayout(row);
  column->addWidget(m_words);
  connect(m_missing, &QPushButton::clicked, this, [this] { ask(Asked::Without); });
  connect(m_first, &QPushButton::clicked, this, [this] { ask(Asked::UseFirst); });
  connect(m_take, &QPushButton::clicked, this, &OtherwisePanel::take);
  connect(&editor, &FormulaEditor::changed, this, [this] { ask(Asked::Nothing); });
  ask(Asked::Nothing);
}

void OtherwisePanel::show(const std::string& product, const QString& name, core::Mass left) {
  const bool same = product == m_product;
  m_product = product;
  m_name = name;
  m_left = left;
  setVisible(!product.empty());
  if (!same) ask(Asked::Nothing);
}

void OtherwisePanel::ask(Asked asked) {
  m_asked = asked;
  m_take->hide();
  m_words->setVisible(asked != Asked::Nothing);
  if (asked == Asked::Nothing) return;
  if (m_editor.shelfIndexOf(m_product) < 0)
    return m_words->setText(tr("The formula in hand, %1, has no %2 switched on: nothing changes.")
                                .arg(qtext(m_editor.document().name), m_name));
  if (asked == Asked::Without)
    without();
  else
    useFirst();
}

QString OtherwisePanel::costWords(const OtherShelf& other) const {
  if (!other.costBefore || !other.costAfter)
    return tr("its cost is not known: not every product has a price");
  const auto bulk = m_units.measures().bulkVolume();
  const double batches = bulk / m_editor.document().given.request.volume;
  return tr("%1 → %2 for %3")
      .arg(localNumber(*other.costBefore * batches, 2), localNumber(*other.costAfter * batches, 2),
           qtext(m_units.measures().bulkVolumeName()));
}

void OtherwisePanel::without() {
  const auto& given = m_editor.document().given;
  const auto index = static_cast<std::size_t>(m_editor.shelfIndexOf(m_product));
  const auto other = core::withoutProduct(given, m_editor.answer(), index);
  if (!other) return m_words->setText(problemWords(other.problem()));
  if (other->answer.solution.grams.empty())
    return m_words->setText(tr("Without it the formula in hand has no answer at all."));
  m_words->setText(other->suffers.empty()
                       ? tr("Without %1 nothing leaves its band; %2.").arg(m_name, costWords(*other))
                       : tr("Without %1 these leave their bands: %2; %3. The Formula station shows what on "
                            "the shelf or in the "
                            "catalogue would mend it.")
                             .arg(m_name, sufferWords(given, *other), costWords(*other)));
  m_take->setText(tr("Switch it off in the formula"));
  m_take->show();
}

void OtherwisePanel::useFirst() {
  const auto& given = m_editor.document().given;
  const auto index = static_cast<std::size_t>(m_editor.shelfIndexOf(m_product));
  const auto now =
      m_editor.answer().solution.grams.empty() ? core::Mass() : m_editor.answer().solution.grams[index];
  const auto other = core::withMostOf(given, m_editor.answer(), index, m_left);
  const auto volume = m_units.text(given.request.volume);
  if (!other)
    return m_words->setText(
        tr("The formula in hand takes %1 of %2 for %3 and can take no more: more would push an "
           "element out of its band.")
            .arg(m_units.text(now), m_name, volume));
  m_hold = other->answer.solution.grams[index];
  m_words->setText(tr("Up to %1 for %2 instead of %3, and nothing leaves its band; %4.")
                       .arg(m_units.text(m_hold), volume, m_units.text(now), costWords(*other)));
  m_take->setText(tr("Hold it there in the formula"));
  m_take->show();
}

void OtherwisePanel::take() {
  if (m_take->isHidden()) return; // nothing was found that could be taken
  ShelfEdits edits(m_editor);
  const auto asked = m_asked;
  if (asked == Asked::Without)
    edits.setOn(m_product, false);
  else
    edits.hold(m_product, {QString::number(m_hold.grams(), 'g', 6).toStdString(), "g"}, false);
  emit message(
      asked == Asked::Without
          ? tr("%1 is switched off in the formula in hand; Ctrl+Z at the Formula station takes it back.")
                .arg(m_name)
          : tr("%1 is held in the formula in hand; Ctrl+Z at the Formula station takes it back.")
                .arg(m_name));
}

} // namespace butte::app
