#include "stations/target/crops_page.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/shelf_edits.h"
#include "edits/target_edits.h"
#include "fields/filling_combo.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "stations/target/crops_matrix.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

CropsPage::CropsPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_desk(desk), m_choice(new FillingCombo),
      m_corrections(new QCheckBox(tr("one salt of its own per crop"))), m_words(new PlainLabel),
      m_stocks(new PlainLabel), m_matrix(new CropsMatrix(editor, units)) {
  auto* title = new PlainLabel(tr("Several crops from one set of tanks"));
  title->setFont(faceOf(15, true));
  m_choice->setObjectName("addCrop");
  m_choice->setAccessibleName(tr("add a crop's target"));
  m_choice->setMaxVisibleItems(24);
  m_choice->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  m_choice->fill = [this] { fillChoice(); };
  fillChoice();
  connect(m_choice, &QComboBox::activated, this, &CropsPage::addChosen);
  m_corrections->setObjectName("cropCorrections");
  m_corrections->setChecked(true);
  m_corrections->setToolTip(
      tr("Besides its dilution each crop may get at most one salt added to its own feed"));
  connect(m_corrections, &QCheckBox::toggled, this, &CropsPage::formulaChanged);
  auto* back = new QPushButton(tr("Back to the target"));
  back->setObjectName("cropsBack");
  connect(back, &QPushButton::clicked, this, &CropsPage::done);
  auto* head = new QHBoxLayout;
  head->addWidget(title);
  head->addStretch();
  head->addWidget(back);
  auto* row = new QHBoxLayout;
  row->addWidget(m_choice, 1);
  row->addWidget(m_corrections);
  m_words->setObjectName("cropsWords");
  m_stocks->setObjectName("cropsStocks");
  m_stocks->setTextFormat(Qt::RichText);
  for (auto* label : {m_words, m_stocks})
    label->setWordWrap(true);
  auto* use = new QPushButton(tr("Hold these weights in the formula"));
  use->setObjectName("useCropWeights");
  use->setToolTip(tr("Every product of the shelf is held at the shared weight, for the crop that takes the "
                     "tanks strongest"));
  connect(use, &QPushButton::clicked, this, &CropsPage::useWeights);
  auto* scroll = new QScrollArea;
  scroll->setWidget(m_matrix);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  column->addLayout(head);
  column->addLayout(row);
  column->addWidget(m_words);
  column->addWidget(scroll, 1);
  column->addWidget(m_stocks);
  column->addWidget(use, 0, Qt::AlignLeft);
  connect(m_matrix, &CropsMatrix::removeAsked, this, &CropsPage::removeCrop);
  auto* fresh = new WhileSeen(this, [this] { formulaChanged(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  fresh->outdate();
}

void CropsPage::fillChoice() {
  m_choice->clear();
  m_choice->addItem(tr("Add a crop's target…"));
  m_choice->addItem(tr("this formula's own target"), "own");
  const auto heads = m_desk.isOpen()
                         ? m_desk.book().store().list(book::Kind::Target, false)
                         : core::Result<std::vector<book::RecordHead>>(std::vector<book::RecordHead>{});
  if (heads) {
    for (const auto& head : *heads)
      m_choice->addItem(tr("own · %1").arg(qtext(head.name)), "uid:" + qtext(head.ref.uid));
  }
  for (const auto& t : core::targetCatalogue())
    m_choice->addItem(targetTitle(t), qtext(t.id));
}

void CropsPage::addChosen(int index) {
  const auto key = m_choice->itemData(index).toString();
  m_choice->setCurrentIndex(0);
  TargetEdits edits(m_editor);
  const auto* published = core::findTarget(key.toStdString());
  const bool added = key == "own"             ? edits.addOwnAsCrop()
                     : key.startsWith("uid:") ? edits.addCrop(m_desk, key.mid(4).toStdString())
                                              : !published || edits.addCrop(*published);
  if (!added) emit message(tr("This target asks for nothing yet."));
}

void CropsPage::removeCrop(std::size_t index) {
  TargetEdits(m_editor).removeCrop(index);
}

void CropsPage::formulaChanged() {
  const auto& document = m_editor.document();
  m_answer.reset();
  if (document.crops.empty()) {
    m_background.cancel();
    m_matrix->show({}, nullptr);
    m_words->setText(tr(
        "Add the targets of the crops that live from the same tanks. Butte finds the stocks and each crop's "
        "dilution that serve all of them best, and says what each gives up."));
    m_stocks->clear();
    return;
  }
  core::ManyCropsRequest request{
      m_editor.answer().waters.water, document.given.request.shelf, {}, m_corrections->isChecked()};
  for (const auto& crop : document.crops)
    request.crops.push_back({crop.name, crop.rows, 1});
  m_matrix->show(document.crops, nullptr);
  m_words->setText(tr("working it out …"));
  m_background.start<std::optional<core::ManyCropsAnswer>>(
      [request]() -> std::optional<core::ManyCropsAnswer> {
        auto answer = core::manyCrops(request);
        return answer ? std::optional(std::move(answer).value()) : std::nullopt;
      },
      [this](std::optional<core::ManyCropsAnswer> found) {
        m_answer = std::move(found);
        showAnswer();
      });
}

void CropsPage::showAnswer() {
  const auto& document = m_editor.document();
  m_matrix->show(document.crops, m_answer ? &*m_answer : nullptr);
  if (!m_answer || m_answer->crops.size() != document.crops.size())
    return m_words->setText(tr("No answer was found."));
  QStringList losses;
  for (std::size_t k = 0; k < document.crops.size(); ++k) {
    const auto& share = m_answer->crops[k];
    const auto rows = static_cast<double>(document.crops[k].rows.size());
    const double with = 100 * std::sqrt(share.misfit / rows), own = 100 * std::sqrt(share.ownMisfit / rows);
    losses << tr("%1: %2 % off on the whole, %3 % with tanks of its own")
                  .arg(qtext(document.crops[k].name), localNumber(with, 1), localNumber(own, 1));
  }
  losses << tr("A bar goes from the crop's own target up or down to what it gets, in percent; amber is "
               "outside its band.");
  m_words->setText(losses.join("\n"));
  QStringList weights;
  for (std::size_t j = 0; j < m_answer->gramsPerLitre.size(); ++j) {
    if (m_answer->gramsPerLitre[j] > 1e-6)
      weights << QString("%1 %2").arg(
          m_units.text(core::Concentration::fromGramsPerLitre(m_answer->gramsPerLitre[j]) *
                       m_units.measures().bulkVolume()),
          qtext(m_editor.nameOf(document.given.request.shelf[j].id)));
  }
  m_stocks->setText(
      tr("<b>The tanks, per %1 of the strongest feed:</b> %2")
          .arg(qtext(m_units.measures().bulkVolumeName()), weights.join(" · ").toHtmlEscaped()));
}

void CropsPage::useWeights() {
  if (!m_answer) return emit message(tr("Add crops first."));
  const auto& document = m_editor.document();
  std::vector<std::pair<std::size_t, exchange::Amount>> weights;
  for (std::size_t j = 0; j < document.active.size() && j < m_answer->gramsPerLitre.size(); ++j) {
    if (core::isAcidOrBase(document.given.request.shelf[j])) continue;
    const auto mass =
        core::Concentration::fromGramsPerLitre(m_answer->gramsPerLitre[j]) * document.given.request.volume;
    weights.emplace_back(document.active[j],
                         typed(QString::number(m_units.massIn(mass), 'g', 5), m_units.massUnit()));
  }
  ShelfEdits(m_editor).holdAll(weights);
  emit message(tr("Every product is held at the shared weight; Ctrl+Z takes it back."));
}

} // namespace butte::app
