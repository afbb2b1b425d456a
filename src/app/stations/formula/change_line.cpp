#include "stations/formula/change_line.h"

#include "document/formula_editor.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/tr.h"
#include "words.h"

#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {

QString withSign(double value, const QString& text) {
  return (value < 0 ? "−" : "+") + text;
}

} // namespace

ChangeLine::ChangeLine(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : PlainLabel(parent), m_editor(editor), m_units(units), m_last(seen()) {
  setObjectName("changeLine");
  setTextFormat(Qt::RichText);
  setAccessibleName(tr("what the last change did"));
  setFont(faceOf(12));
  setProperty("soft", true);
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  setText(tr("The effect of your last change shows here."));
  connect(&editor, &FormulaEditor::loaded, this, [this] {
    m_last = seen();
    setText(tr("The effect of your last change shows here."));
    setToolTip({});
  });
  connect(&editor, &FormulaEditor::changed, this, &ChangeLine::formulaChanged);
}

ChangeLine::Seen ChangeLine::seen() const {
  Seen out;
  const auto& given = m_editor.document().given;
  const auto& answer = m_editor.answer();
  out.feed = answer.feed.milligramsPerLitre;
  out.cost = answer.feed.cost;
  out.milliSiemensPerCm = answer.feed.conductivity.milliSiemensPerCm();
  out.litres = given.request.volume.litres();
  for (std::size_t j = 0; j < answer.solution.grams.size(); ++j)
    out.grams[given.request.shelf[j].id] = answer.solution.grams[j];
  return out;
}

void ChangeLine::formulaChanged() {
  const Seen now = seen();
  std::vector<std::pair<double, QString>> parts; // the largest relative change first
  for (const auto n : core::allNutrients) {
    if (n == core::Nutrient::N) continue;
    const double was = m_last.feed.of(n), is = now.feed.of(n), change = is - was;
    const double share = std::abs(change) / std::max({was, is, core::isTraceElement(n) ? 0.05 : 5.0});
    if (share < 0.004) continue;
    parts.emplace_back(share, QString::fromStdString(words::nutrientSymbol(n)) + " " +
                                  withSign(change, localFigure(std::abs(change))) + " mg/L");
  }
  for (const auto& [id, grams] : now.grams) {
    const auto it = m_last.grams.find(id);
    const double was = it == m_last.grams.end() ? 0 : it->second.grams() * now.litres / m_last.litres;
    const double change = grams.grams() - was,
                 share = std::abs(change) / std::max({was, grams.grams(), 1e-6});
    if (share < 0.004) continue;
    parts.emplace_back(share, QString::fromStdString(m_editor.nameOf(id)) + " " +
                                  withSign(change, m_units.text(core::Mass::fromGrams(std::abs(change)))));
  }
  if (now.cost && m_last.cost) {
    const double change = *now.cost / now.litres - *m_last.cost / m_last.litres;
    if (std::abs(change) > 0.002 * *now.cost / now.litres)
      parts.emplace_back(2, tr("cost %1 per %2")
                                .arg(withSign(change, localFigure(m_units.measures().bulkVolume().litres() *
                                                                  std::abs(change))),
                                     QString::fromStdString(m_units.measures().bulkVolumeName())));
  }
  m_last = now;
  if (parts.empty()) return; // a new name changes nothing: what stood here still holds
  std::stable_sort(parts.begin(), parts.end(),
                   [](const auto& a, const auto& b) { return a.first > b.first; });
  QStringList shown;
  for (std::size_t i = 0; i < parts.size() && i < 5; ++i)
    shown << parts[i].second;
  if (parts.size() > 5) shown << tr("%1 more").arg(parts.size() - 5);
  setText(tr("<b>Changed</b>  %1").arg(shown.join(" · ").toHtmlEscaped()));
  setToolTip(shown.join("\n"));
}

} // namespace butte::app
