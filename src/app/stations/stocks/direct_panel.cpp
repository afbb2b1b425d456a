#include "stations/stocks/direct_panel.h"

#include "document/formula_editor.h"
#include "document/product_looks.h"
#include "edits/formula_edits.h"
#include "edits/mixing_edits.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "units/convert.h"
#include "wording/before_mixing.h"
#include "wording/direct_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QVBoxLayout>

namespace butte::app {

DirectPanel::DirectPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_problem(new WrappedLabel),
      m_notes(new WrappedLabel), m_acidFirst(new QCheckBox(tr("Acid or base before the salts"))),
      m_ladder(new LadderPicture) {
  m_problem->setObjectName("directProblem");
  m_notes->setObjectName("directNotes");
  m_notes->setFont(faceOf(13));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  column->addWidget(makeFields());
  column->addWidget(m_problem);
  column->addWidget(m_ladder, 1);
  column->addWidget(m_acidFirst, 0, Qt::AlignLeft);
  column->addWidget(m_notes);
  m_acidFirst->setObjectName("directAcidFirst");
  m_acidFirst->setToolTip(
      tr("First, the carbonate is gone before phosphate and calcium meet it; last, the meter shows what is "
         "still missing. Both are done; the feed is the same."));
  connect(m_acidFirst, &QCheckBox::clicked, this, [this](bool first) {
    MixingEdits(m_editor).setAcidTurn(first ? core::AcidTurn::First : core::AcidTurn::Last);
  });
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  fresh->outdate();
}

NumberField* DirectPanel::makeField(const QString& name, const QString& id, bool mayBeEmpty) {
  auto* field = new NumberField({name, "", 0, 1e9, mayBeEmpty});
  field->setObjectName(id);
  field->setFixedWidth(76);
  field->setFont(faceOf(15, true));
  field->onMessage = [this](const QString& words) { emit message(words); };
  return field;
}

QLabel* DirectPanel::unitLabel(bool volume) {
  auto* label = new PlainLabel;
  m_unitLabels.emplace_back(label, volume);
  return label;
}

QWidget* DirectPanel::makeFields() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(6);
  const auto inVolumes = [this] { return AskedUnit{m_units.volumeUnit().toStdString(), {}}; };
  m_vessel = makeField(tr("the vessel, full to its mark"), "directVessel", false);
  m_vessel->asked = inVolumes;
  m_vessel->onTyped = [this](const QString& d) {
    FormulaEdits(m_editor).setBatch(typed(d, m_units.volumeUnit()));
  };
  m_present = makeField(tr("feed that is in it already"), "directPresent", true);
  m_present->setPlaceholderText("0");
  m_present->asked = inVolumes;
  m_present->onTyped = [this](const QString& d) {
    MixingEdits(m_editor).setPresent(typed(d, m_units.volumeUnit()));
  };
  m_reading = makeField(tr("what the feed in it reads"), "directReading", true);
  m_reading->asked = [this] { return AskedUnit{m_units.conductivityUnit().toStdString(), {}}; };
  m_reading->onTyped = [this](const QString& d) {
    MixingEdits(m_editor).setReading(typed(d, m_units.conductivityUnit()));
  };
  row->addWidget(new PlainLabel(tr("Vessel, full to the mark")));
  row->addWidget(m_vessel);
  row->addWidget(unitLabel(true));
  row->addSpacing(16);
  row->addWidget(new PlainLabel(tr("feed in it already")));
  row->addWidget(m_present);
  row->addWidget(unitLabel(true));
  row->addWidget(new PlainLabel(tr("that reads")));
  row->addWidget(m_reading);
  row->addWidget(unitLabel(false));
  row->addStretch();
  return box;
}

void DirectPanel::refreshFields() {
  for (const auto& [label, volume] : m_unitLabels)
    label->setText(volume ? m_units.volumeUnitName() : m_units.conductivityUnitName());
  const auto shownIn = [](const exchange::Amount& typed, const QString& unit) {
    if (typed.isEmpty() || typed.unit == unit.toStdString()) return QString::fromStdString(typed.digits);
    const auto converted = core::convert(typed.value(), typed.unit, unit.toStdString());
    return QString::fromStdString(converted ? words::digits(*converted) : typed.digits);
  };
  const MixingEdits edits(m_editor);
  m_vessel->show(shownIn(FormulaEdits(m_editor).batch(), m_units.volumeUnit()));
  m_present->show(shownIn(edits.present(), m_units.volumeUnit()));
  m_reading->show(shownIn(edits.reading(), m_units.conductivityUnit()));
  m_reading->setPlaceholderText(
      localNumber(m_units.conductivityIn(m_editor.answer().feed.conductivity),
                  m_units.conductivity() == ConductivityShown::MilliSiemens ? 2 : 0));
}

void DirectPanel::refresh() {
  refreshFields();
  const auto& direct = m_editor.answer().direct;
  if (!direct) return;
  m_ladder->setVisible(static_cast<bool>(*direct));
  m_problem->setText(*direct ? QString()
                             : "▲ " + QString::fromStdString(words::problemText(direct->problem())));
  m_problem->setVisible(!*direct);
  m_notes->setText(*direct ? notes(**direct) : QString());
  m_notes->setVisible(!m_notes->text().isEmpty());
  m_acidFirst->setVisible(*direct && takesAcid(**direct));
  m_acidFirst->setChecked(MixingEdits(m_editor).acidTurn() == core::AcidTurn::First);
  if (*direct) m_ladder->show(shown(**direct));
}

bool DirectPanel::takesAcid(const core::DirectMix& mix) const {
  const auto& shelf = m_editor.document().given.request.shelf;
  return phTrimOf(m_editor) ||
         std::any_of(mix.steps.begin(), mix.steps.end(),
                     [&](const core::DirectStep& step) { return core::isAcidOrBase(shelf[step.product]); });
}

LadderPicture::Rung DirectPanel::rung(const core::DirectStep& step, const core::WeighStep& weighed) const {
  const auto& p = m_editor.document().given.request.shelf[step.product];
  LadderPicture::Rung out;
  out.amount = directAmount(p, weighed, m_editor.document().scales, m_units);
  out.name = QString::fromStdString(m_editor.nameOf(p.id));
  out.reading = "EC " + m_units.text(step.after);
  out.after = step.after.milliSiemensPerCm();
  out.look = lookIn(m_editor.document(), p.id);
  const bool byVolume = p.liquid && p.densityKgPerL;
  if (weighed.tooFine && !byVolume) out.trouble = tooCoarseText(weighed, m_editor.answer(), m_units);
  return out;
}

std::vector<LadderPicture::Level> DirectPanel::levels(const core::DirectMix& mix) const {
  const auto share = [&](core::Volume v) { return v / mix.vessel; };
  std::vector<LadderPicture::Level> out;
  const auto stays = mix.present - mix.drain;
  if (stays > core::Volume{})
    out.push_back(
        {share(stays),
         mix.drain > core::Volume{}
             ? tr("%1 stays: let %2 out first").arg(m_units.text(stays), m_units.stockText(mix.drain))
             : tr("%1 is in it").arg(m_units.text(stays))});
  if (mix.toMark > core::Volume{})
    out.push_back({share(mix.mixingVolume),
                   mix.pour > core::Volume{}
                       ? tr("%1 of water first, then the salts one by one").arg(m_units.stockText(mix.pour))
                       : tr("the salts one by one")});
  out.push_back({1, mix.steps.empty() ? tr("water to the mark, %1").arg(m_units.text(mix.vessel))
                                      : tr("then water to the mark, %1").arg(m_units.text(mix.vessel))});
  return out;
}

LadderPicture::Shown DirectPanel::shown(const core::DirectMix& mix) const {
  const auto& answer = m_editor.answer();
  LadderPicture::Shown out;
  out.before = mix.present > core::Volume{} ? mix.beforeSalts.milliSiemensPerCm()
                                            : answer.water.conductivity.milliSiemensPerCm();
  out.firstName = mix.present > core::Volume{} ? tr("before the salts") : tr("the water");
  out.first = "EC " + m_units.text(core::Conductivity::fromMilliSiemensPerCm(out.before));
  out.finished = answer.feed.conductivity.milliSiemensPerCm();
  out.last = "EC " + m_units.text(answer.feed.conductivity);
  if (answer.feed.ph) out.last += " · pH " + localNumber(*answer.feed.ph, 1);
  out.present = (mix.present - mix.drain) / mix.vessel;
  out.levels = levels(mix);
  const auto plan = vesselWeighing(m_editor, mix);
  for (std::size_t i = 0; i < mix.steps.size() && i < plan.size(); ++i)
    out.rungs.push_back(rung(mix.steps[i], plan[i]));
  return out;
}

/// What falls out, what harms, and the acid: before the hand begins.
QString DirectPanel::notes(const core::DirectMix& mix) const {
  const auto before = beforeMixing(m_editor);
  QStringList lines;
  for (const auto& line : before.harmful + before.inFeed)
    lines << "▲ " + line;
  if (!mix.steps.empty()) lines << directHowTo(mix, m_units);
  const auto& shelf = m_editor.document().given.request.shelf;
  for (const auto& step : mix.steps) {
    if (shelf[step.product].composition.role == core::ProductRole::Acid)
      lines << acidCaution(QString::fromStdString(m_editor.nameOf(shelf[step.product].id)));
  }
  if (const auto acid = acidAfterwards(m_editor, m_units); !acid.isEmpty()) lines << acid;
  return lines.join('\n');
}

} // namespace butte::app
