#include "stations/water/water_page.h"

#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/acid_edits.h"
#include "edits/water_edits.h"
#include "fields/number_field.h"
#include "paint/beside_or_below.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "product/catalogue.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "stations/water/blend_bar.h"
#include "stations/water/ion_stacks.h"
#include "stations/water/judgement.h"
#include "stations/water/paste_panel.h"
#include "stations/water/report_table.h"
#include "stations/water/source_panel.h"
#include "units/constants.h"
#include "wording/tr.h"
#include "wording/water_words.h"
#include "words.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

namespace {

/// Scrolls up and down only, so it is never narrower than what it shows.
class ColumnArea : public QScrollArea {
public:
  QSize minimumSizeHint() const override {
    constexpr int leastHeight = 120;
    return {widget()->minimumSizeHint().width() + verticalScrollBar()->sizeHint().width(), leastHeight};
  }

  QSize sizeHint() const override {
    constexpr int enoughToWork = 220; // more where the page has it: a page of its own bar is one too many
    return {minimumSizeHint().width(), enoughToWork};
  }

protected:
  /// What it shows may become wider: an area by itself would not tell the page.
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() == QEvent::LayoutRequest) updateGeometry();
    return QScrollArea::eventFilter(watched, event);
  }
};

QScrollArea* scrolling(QWidget* page) {
  auto* area = new ColumnArea;
  area->setWidget(page);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setFocusPolicy(Qt::NoFocus);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  return area;
}

QString treatmentText(const core::Treatment& treatment) {
  return std::holds_alternative<core::ReverseOsmosis>(treatment) ? tr("through the membrane")
         : std::holds_alternative<core::Softener>(treatment)     ? QString("softened")
                                                                 : QString();
}

} // namespace

WaterPage::WaterPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, Prompts& prompts,
                     QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_bar(new BlendBar), m_stack(new QStackedWidget),
      m_source(new SourcePanel(editor, desk)), m_table(new ReportTable(editor)), m_ions(new IonStacks),
      m_judgement(new Judgement(editor, units)), m_paste(new PastePanel(editor, desk, prompts)),
      m_acid(new QComboBox),
      m_acidLeft(new NumberField({tr("alkalinity that acid leaves"), "meq/L", 0, 100})),
      m_acidDose(new PlainLabel), m_result(new WrappedLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* top = new QHBoxLayout;
  auto* add = new QPushButton(tr("+ source"));
  add->setObjectName("addSource");
  add->setToolTip(tr("Blend in another water"));
  connect(add, &QPushButton::clicked, this, [this] {
    WaterEdits(m_editor).addSource(tr("Rain"));
    choosePart(WaterEdits(m_editor).count() - 1);
  });
  top->addWidget(m_bar, 1);
  top->addWidget(add);
  column->addLayout(top);
  column->addWidget(makeResult());
  m_stack->addWidget(makeWork());
  m_stack->addWidget(m_paste);
  column->addWidget(m_stack, 1);
  connect(m_bar, &BlendBar::chosen, this, &WaterPage::choosePart);
  connect(m_bar, &BlendBar::sharesMoved, this, [this](const std::vector<double>& percent, bool done) {
    WaterEdits(m_editor).setShares(percent, true);
    if (done) m_editor.endMerging();
  });
  connect(m_source, &SourcePanel::message, this, &WaterPage::message);
  connect(m_table, &ReportTable::message, this, &WaterPage::message);
  connect(m_judgement, &Judgement::message, this, &WaterPage::message);
  connect(m_paste, &PastePanel::message, this, &WaterPage::message);
  connect(m_source, &SourcePanel::pasteAsked, this, [this] {
    m_stack->setCurrentIndex(1);
    m_paste->start(m_part);
  });
  connect(m_paste, &PastePanel::done, this, [this] { m_stack->setCurrentIndex(0); });
  m_paste->setObjectName("pastePanel");
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  connect(&desk, &BookDesk::bookOpened, fresh, &WhileSeen::outdate);
  connect(&desk, &BookDesk::changed, fresh, [fresh](const std::vector<book::Ref>& refs) {
    if (std::any_of(refs.begin(), refs.end(), [](const auto& ref) { return ref.kind == book::Kind::Water; }))
      fresh->outdate();
  });
  fresh->outdate();
}

void WaterPage::openReport(const QString& path) {
  m_stack->setCurrentIndex(1);
  m_paste->start(m_part, path);
}

QWidget* WaterPage::makeWork() {
  auto* box = new BesideOrBelow(14);
  auto* left = new QVBoxLayout;
  left->setSpacing(5);
  left->addWidget(m_source);
  left->addWidget(scrolling(m_table), 1);
  auto* right = new QVBoxLayout;
  right->addWidget(m_ions);
  right->addWidget(scrolling(m_judgement), 1);
  box->add(left, 11);
  box->add(right, 10);
  return box;
}

QWidget* WaterPage::makeResult() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  m_acidRow = new QWidget;
  m_acid->setObjectName("acidFirst");
  m_acid->setAccessibleName(tr("acid into the water before use"));
  m_acid->addItem(tr("no acid before use"), "");
  for (const auto& product : core::catalogue()) {
    // Citric and acetic acid bring nothing that a water's report can carry.
    if (product.composition.role == core::ProductRole::Acid && product.composition.alkalinityMeqPerGram < 0)
      m_acid->addItem(tr("%1 first").arg(QString::fromStdString(product.shortName)),
                      QString::fromStdString(product.id));
  }
  m_acid->setMinimumContentsLength(14);
  m_acid->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  connect(m_acid, &QComboBox::activated, this,
          [this] { setAcid(m_acidLeft->text().isEmpty() ? "1" : m_acidLeft->text()); });
  m_acidLeft->setObjectName("acidFirstLeft");
  m_acidLeft->setFixedWidth(52);
  m_acidLeft->onTyped = [this](const QString& digits) { setAcid(digits); };
  m_acidLeft->onMessage = [this](const QString& words) { emit message(words); };
  m_acidDose->setObjectName("acidFirstDose");
  m_result->setObjectName("waterResult");
  m_result->setFont(faceOf(13, true));
  m_result->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
  auto* row = new QHBoxLayout;
  row->addWidget(m_result, 1);
  row->addWidget(m_acid);
  auto* acid = new QHBoxLayout(m_acidRow);
  acid->setContentsMargins(0, 0, 0, 0);
  acid->addStretch();
  acid->addWidget(new PlainLabel(tr("The acid brings the blend down to")));
  acid->addWidget(m_acidLeft);
  acid->addWidget(m_acidDose);
  column->addLayout(row);
  column->addWidget(m_acidRow);
  m_acidRow->hide();
  return box;
}

void WaterPage::setAcid(const QString& left) {
  AcidEdits(m_editor).setAcidBeforeUse(m_acid->currentData().toString().toStdString(), m_acid->currentText(),
                                       left);
}

void WaterPage::choosePart(std::size_t part) {
  m_part = part;
  refresh();
}

void WaterPage::refresh() {
  m_part = std::min(m_part, WaterEdits(m_editor).count() - 1);
  refreshBar();
  refreshResult();
  m_source->show(m_part);
  m_table->show(m_part);
  m_ions->show(m_editor.answer().waters.parts[m_part].raw);
  m_judgement->show(m_part);
}

void WaterPage::refreshBar() {
  const auto& water = m_editor.document().water;
  const auto& waters = m_editor.answer().waters;
  std::vector<BlendBar::Segment> segments;
  for (std::size_t i = 0; i < waters.parts.size(); ++i) {
    const auto& part = waters.parts[i];
    QStringList detail;
    if (const auto treated = treatmentText(water.plan.parts[i].treatment); !treated.isEmpty())
      detail << treated;
    if (part.treated.conductivityMsPerCm)
      detail << "EC " + m_units.text(
                            core::Conductivity::fromMilliSiemensPerCm(*part.treated.conductivityMsPerCm));
    if (part.treated.alkalinityMeqPerL)
      detail << (isGuessed(part.treated) ? tr("alkalinity %1 (guessed)") : tr("alkalinity %1"))
                    .arg(alkalinityText(*part.treated.alkalinityMeqPerL, part.treated));
    segments.push_back(
        {QString::fromStdString(water.sources[i].name), detail.join(" · "), 100 * part.share, false});
  }
  m_bar->show(std::move(segments), m_part);
}

void WaterPage::refreshResult() {
  const auto& water = m_editor.document().water;
  const auto& waters = m_editor.answer().waters;
  const auto& base = m_editor.answer().water;
  const auto& result = m_editor.answer().waters.water;
  QStringList parts{tr("The formula's water: EC %1").arg(m_units.text(base.conductivity))};
  if (base.ph) parts << "pH " + localNumber(*base.ph, 1);
  if (result.alkalinityMeqPerL)
    parts << (isGuessed(result) ? tr("alkalinity %1 as CaCO₃ (guessed)") : tr("alkalinity %1 as CaCO₃"))
                 .arg(alkalinityText(base.netAlkalinityMeqPerL, result));
  // Drops counted in another blend still stand for the alkalinity until they are counted anew or put aside.
  const bool apart =
      result.alkalinityMeqPerL && std::abs(base.netAlkalinityMeqPerL - *result.alkalinityMeqPerL) >
                                      std::max(0.15, 0.15 * *result.alkalinityMeqPerL);
  if (apart)
    parts << tr("▲ by your own drops; the sources make %1")
                 .arg(localNumber(*result.alkalinityMeqPerL * core::constant::milligramsCaCO3PerMeq, 0));
  double waste = 0;
  for (const auto& part : waters.parts)
    waste += part.wasteLitresPerLitre;
  if (waste > 0)
    parts << tr("%1 waste per %2")
                 .arg(m_units.text(core::Volume::fromLitres(waste * m_units.measures().oneVolume().litres())),
                      m_units.volumeUnitName());
  m_result->setText(parts.join(" · "));
  const bool acid = !water.acidFirstId.empty();
  m_acid->setCurrentIndex(std::max(0, m_acid->findData(QString::fromStdString(water.acidFirstId))));
  m_acidRow->setVisible(acid);
  if (!acid) return;
  m_acidLeft->show(QString::fromStdString(AcidEdits(m_editor).acidBeforeUseLeft()));
  const auto density = water.plan.acid->densityKgPerL;
  m_acidDose->setText(
      waters.acidProblem ? tr("meq/L alkalinity: it has less already")
      : density          ? tr("meq/L alkalinity: %1").arg(m_units.dose(waters.acidGramsPerLitre / *density))
                         : tr("meq/L alkalinity: %1")
                      .arg(m_units.text(core::Concentration::fromGramsPerLitre(waters.acidGramsPerLitre))));
}

} // namespace butte::app
