#include "stations/formula/solve_bar.h"

#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/formula_edits.h"
#include "edits/stage_edits.h"
#include "fields/filling_combo.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "product/catalogue.h"
#include "refresh/while_seen.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <algorithm>

namespace butte::app {

namespace {

/// Another formula for the same batch volume as the one in hand.
std::optional<Overlay> overlayOf(const QString& name, const core::Given& given, core::Volume batch) {
  core::Given same = given;
  same.wholeSteps = false;
  const auto answer = core::compute(same);
  if (!answer) return std::nullopt;
  Overlay out;
  out.name = name;
  out.milligramsPerLitre = answer->feed.milligramsPerLitre;
  out.conductivity = answer->feed.conductivity;
  const double scale = batch / given.request.volume;
  if (answer->feed.cost) out.cost = *answer->feed.cost * scale;
  for (std::size_t j = 0; j < answer->solution.grams.size(); ++j)
    out.grams[given.request.shelf[j].id] = answer->solution.grams[j] * scale;
  return out;
}

} // namespace

SolveBar::SolveBar(FormulaEditor& editor, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_desk(desk), m_way(new QComboBox), m_against(new FillingCombo),
      m_atMost(new NumberField({tr("most products to open"), "", 1, 60, true})),
      m_steps(new QCheckBox(tr("in scale steps"))), m_state(new PlainLabel) {
  auto* row = new FlowRow(this);
  m_way->setObjectName("aimWay");
  m_way->setAccessibleName(tr("what the formula is solved for"));
  m_way->addItem(tr("come nearest"), "closest");
  m_way->addItem(tr("bands first"), "bands_first");
  m_way->addItem(tr("cheapest"), "cheapest");
  m_way->setToolTip(
      tr("Come nearest: the least squares of relative misses.\nBands first: leave the bands as little as can "
         "be, then come near.\nCheapest: inside the bands at the least cost; needs every price."));
  connect(m_way, &QComboBox::activated, this,
          [this] { FormulaEdits(m_editor).setWay(m_way->currentData().toString().toStdString()); });
  m_atMost->setObjectName("aimAtMost");
  m_atMost->setFixedWidth(40);
  m_atMost->setPlaceholderText(tr("any"));
  m_atMost->onTyped = [this](const QString& digits) { FormulaEdits(m_editor).setAtMost(digits); };
  m_atMost->onMessage = [this](const QString& words) { emit message(words); };
  m_steps->setObjectName("aimSteps");
  m_steps->setToolTip(
      tr("Weights in whole steps of the scale (or of the bag), chosen together so that the elements stay "
         "nearest: one goes up where another goes down."));
  connect(m_steps, &QCheckBox::clicked, this, [this](bool on) { FormulaEdits(m_editor).setWholeSteps(on); });
  m_against->setObjectName("compareWith");
  m_against->setAccessibleName(tr("compare with"));
  m_against->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  m_against->setMinimumWidth(170);
  connect(m_against, &QComboBox::activated, this, &SolveBar::compareWith);
  m_state->setObjectName("solveState");
  m_state->setProperty("soft", true);
  row->addWidget(m_way);
  row->addTogether({new PlainLabel(tr("with at most")), m_atMost, new PlainLabel(tr("products"))});
  row->addWidget(m_steps);
  row->addWidget(m_state);
  row->addWidget(m_against);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&editor, &FormulaEditor::overlayChanged, this, &SolveBar::refresh);
  m_against->fill = [this] { fillComparisons(); };
  fillComparisons();
  refresh();
}

void SolveBar::refresh() {
  const FormulaEdits edits(m_editor);
  m_way->setCurrentIndex(std::max(0, m_way->findData(QString::fromStdString(edits.way()))));
  m_atMost->show(QString::fromStdString(edits.atMost()));
  m_steps->setChecked(m_editor.document().aim.wholeSteps);
  if (m_editor.isSearching())
    m_state->setText(tr("still searching: these are the weights from before"));
  else if (!m_editor.document().withoutPrice.empty())
    m_state->setText(tr("no price: %1%2; nearest shown")
                         .arg(QString::fromStdString(m_editor.document().withoutPrice.front()),
                              (m_editor.document().withoutPrice.size() > 1 ? " …" : "")));
  else
    m_state->clear();
  if (!m_editor.overlay()) m_against->setCurrentIndex(0);
}

/// Only when the list is another one: a choice that stands must not jump.
void SolveBar::fillComparisons() {
  QList<std::pair<QString, QString>> items{{tr("Compare with…"), ""},
                                           {tr("this formula as it stands now"), "now"},
                                           {tr("pure water instead"), "pure"}};
  const auto& parts = m_editor.document().water.sources;
  for (std::size_t p = 0; parts.size() > 1 && p < parts.size(); ++p)
    items.append({tr("only %1").arg(QString::fromStdString(parts[p].name)), QString("part%1").arg(p)});
  const auto& document = m_editor.document();
  for (std::size_t i = 0; i < document.stages.size(); ++i) {
    if (document.stages[i] != document.stage)
      items.append(
          {tr("stage %1").arg(QString::fromStdString(document.stages[i])), QString("stage%1").arg(i)});
  }
  const auto versions = m_desk.isOpen()
                            ? m_desk.book().store().versions(m_desk.inHand().uid)
                            : core::Result<std::vector<book::Version>>(std::vector<book::Version>{});
  if (versions) {
    for (const auto& version : *versions)
      items.append({tr("version %1, %2").arg(version.number).arg(dayText(version.at)),
                    QString("version%1").arg(version.number)});
  }
  const auto heads = m_desk.isOpen()
                         ? m_desk.book().store().list(book::Kind::Formula, false)
                         : core::Result<std::vector<book::RecordHead>>(std::vector<book::RecordHead>{});
  if (heads) {
    for (const auto& head : *heads)
      items.append({QString::fromStdString(head.name), "uid:" + QString::fromStdString(head.ref.uid)});
  }
  bool same = items.size() == m_against->count();
  for (int i = 0; same && i < items.size(); ++i)
    same = m_against->itemText(i) == items[i].first && m_against->itemData(i).toString() == items[i].second;
  if (same) return;
  m_against->clear();
  for (const auto& [text, key] : items)
    m_against->addItem(text, key);
}

void SolveBar::compareWith(int index) {
  const auto choice = m_against->itemData(index).toString();
  const auto name = m_against->itemText(index);
  if (choice.isEmpty()) return m_editor.setOverlay(std::nullopt);
  core::Given given = m_editor.document().given;
  const auto batch = given.request.volume;
  if (choice == "pure") {
    given.waterPlan.reset();
    given.request.water = core::pureWater();
  } else if (choice.startsWith("part")) {
    const auto& parts = m_editor.answer().waters.parts;
    const auto at = choice.mid(4).toUInt();
    given.waterPlan.reset();
    if (at < parts.size()) given.request.water = parts[at].treated;
    given.titration.reset();
  } else if (choice.startsWith("stage")) {
    const auto stages = StageEdits(m_editor).workedOut();
    const auto at = choice.mid(5).toUInt();
    // By its name: a stage that can't be worked out is missing in the list.
    const auto& names = m_editor.document().stages;
    const auto it = std::find_if(stages.begin(), stages.end(), [&](const StageWorked& stage) {
      return at < names.size() && stage.name.toStdString() == names[at];
    });
    if (it == stages.end()) return;
    given = it->document.given;
  } else if (choice.startsWith("version")) {
    const auto other = m_desk.versionInHand(choice.mid(7).toInt());
    if (!other) return emit message(QString::fromStdString(words::problemText(other.problem())));
    given = other->given;
  } else if (choice.startsWith("uid:")) {
    const auto other = m_desk.formula(choice.mid(4).toStdString());
    if (!other) return emit message(QString::fromStdString(words::problemText(other.problem())));
    given = other->given;
  }
  auto overlay = overlayOf(name, given, batch);
  m_editor.setOverlay(std::move(overlay));
  m_against->setCurrentIndex(index);
}

} // namespace butte::app
