#include "mends/mend_finder.h"

#include "document/formula_editor.h"
#include "formula/candidates.h"
#include "formula/mix.h"
#include "formula_words.h"
#include "mends/mend_edits.h"
#include "product/catalogue.h"
#include "solve/choose_products.h"
#include "water/shares.h"
#include "wording/tr.h"

#include <cmath>

namespace butte::app {

using core::Mend;
using core::MendKind;

namespace {

constexpr int restMilliseconds = 350; ///< long enough to type on without being overtaken

std::vector<double> sharesOf(const core::WaterPlan& plan) {
  std::vector<double> out;
  for (const auto& part : plan.parts)
    out.push_back(part.share);
  return out;
}

/// A part's share of the blend moved, or a membrane before a single source.
std::vector<core::WaterOption> waterOptions(const exchange::WaterDocument& water, const core::Water& now) {
  std::vector<core::WaterOption> out;
  const auto plan = water.plan;
  if (plan.parts.size() == 1 && std::holds_alternative<std::monostate>(plan.parts[0].treatment)) {
    out.push_back({tr("water through a membrane").toStdString(), 0, 1, [plan, source = now](double share) {
                     core::WaterPlan split = plan;
                     split.parts.push_back(split.parts[0]);
                     split.parts[0].share = 1 - share;
                     split.parts[1].share = share;
                     split.parts[1].treatment = core::ReverseOsmosis{};
                     const auto answer = core::planWater(split);
                     return answer ? answer->water : source;
                   }});
  }
  if (plan.parts.size() < 2) return out;
  double sum = 0;
  for (const auto& part : plan.parts)
    sum += part.share;
  for (std::size_t p = 0; p < plan.parts.size(); ++p) {
    const double shareNow = sum > 0 ? plan.parts[p].share / sum : 0;
    out.push_back({water.sources[p].name, shareNow, 1, [plan, p, source = now](double share) {
                     core::WaterPlan moved = plan;
                     const auto shares = core::withShareOf(sharesOf(plan), p, share);
                     for (std::size_t i = 0; i < moved.parts.size(); ++i)
                       moved.parts[i].share = shares[i];
                     const auto answer = core::planWater(moved);
                     return answer ? answer->water : source;
                   }});
  }
  return out;
}

Overlay overlayOf(const QString& name, const core::SolveRequest& request, const core::SolveAnswer& answer) {
  Overlay out;
  const auto feed = core::mix(request.water, request.shelf, answer.grams, request.volume);
  out.name = name;
  out.milligramsPerLitre = feed.milligramsPerLitre;
  out.conductivity = feed.conductivity;
  out.cost = feed.cost;
  for (std::size_t j = 0; j < answer.grams.size(); ++j)
    out.grams[request.shelf[j].id] = answer.grams[j];
  return out;
}

QString nameFor(const FormulaEditor& editor, const std::string& id) {
  const auto* entry = editor.indexOf(id) < 0 ? core::findInCatalogue(id) : nullptr;
  return QString::fromStdString(entry ? entry->shortName : editor.nameOf(id));
}

/// What should be bought, all at once, as one more offer.
std::optional<OfferedMend> shoppingOffer(const core::SolveRequest& request, const core::SolveAnswer& answer,
                                         const std::vector<core::ShelfProduct>& candidates) {
  core::ProductChoice choice;
  choice.toBuy = candidates;
  core::SolveRequest asked = request;
  asked.objective = core::Objective::Closest; // catalogue products have no price
  const auto chosen = core::chooseProducts(asked, choice);
  if (!chosen || chosen->buy.size() < 2 || chosen->answer.status == core::SolveStatus::Impossible)
    return std::nullopt;
  OfferedMend out;
  out.mend.kind = MendKind::AddProduct;
  out.mend.request = chosen->request;
  out.mend.answer = chosen->answer;
  out.mend.offBefore = core::offBands(request, answer.grams);
  out.mend.offAfter = core::offBands(chosen->request, chosen->answer.grams);
  out.products = chosen->buy;
  return out.mend.offAfter < out.mend.offBefore ? std::optional(out) : std::nullopt;
}

} // namespace

MendFinder::MendFinder(FormulaEditor& editor, QObject* parent) : QObject(parent), m_editor(editor) {
  m_rest.setSingleShot(true);
  m_rest.setInterval(restMilliseconds);
  connect(&m_rest, &QTimer::timeout, this, &MendFinder::search);
  connect(&editor, &FormulaEditor::changed, this, &MendFinder::formulaChanged);
  formulaChanged();
}

void MendFinder::formulaChanged() {
  m_background.cancel();
  m_offers.clear();
  if (m_previewed >= 0) preview(-1);
  if (m_editor.answer().solution.status == core::SolveStatus::Best)
    m_rest.start();
  else
    m_rest.stop();
  emit changed();
}

void MendFinder::search() {
  auto request = m_editor.document().given.request;
  request.water = m_editor.answer().waters.water;
  const auto answer = m_editor.answer().solution;
  if (answer.status != core::SolveStatus::Best) return;
  m_waters = m_editor.document().given.titration
                 ? std::vector<core::WaterOption>()
                 : waterOptions(m_editor.document().water, m_editor.answer().waters.water);
  auto candidates = core::catalogueCandidates(m_editor.document().allProducts);
  const auto& seen = m_editor.document().products;
  for (std::size_t i = 0; i < seen.size(); ++i) {
    if (!seen[i].on && !core::isAcidOrBase(m_editor.document().allProducts[i]))
      candidates.push_back(m_editor.document().allProducts[i]);
  }
  m_background.start<std::vector<OfferedMend>>(
      [request, answer, candidates, waters = m_waters] {
        std::vector<OfferedMend> out;
        for (auto& mend : core::mendsFor(request, answer, candidates, waters, 5)) {
          OfferedMend offer;
          if (mend.kind == MendKind::AddProduct) offer.products = {mend.product};
          offer.mend = std::move(mend);
          out.push_back(std::move(offer));
        }
        const bool whole = !out.empty() && out.front().mend.offAfter == 0;
        auto shopping = whole ? std::nullopt : shoppingOffer(request, answer, candidates);
        if (shopping) out.insert(out.begin(), std::move(*shopping));
        return out;
      },
      [this](std::vector<OfferedMend> found) {
        m_offers = std::move(found);
        const auto namer = [this](const std::string& id) { return nameFor(m_editor, id).toStdString(); };
        for (auto& offer : m_offers) {
          QStringList names;
          for (const auto& id : offer.products)
            names << nameFor(m_editor, id);
          offer.words = !names.isEmpty()
                            ? tr("add %1").arg(names.join(tr(" and ")))
                            : QString::fromStdString(words::mendText(offer.mend, namer, m_waters));
          offer.effect = QString::fromStdString(words::mendEffect(offer.mend));
        }
        emit changed();
      });
}

void MendFinder::preview(int index) {
  m_previewed = index >= 0 && index < static_cast<int>(m_offers.size()) ? index : -1;
  if (m_previewed < 0) {
    m_editor.setOverlay(std::nullopt);
  } else {
    const auto& offer = m_offers[static_cast<std::size_t>(index)];
    m_editor.setOverlay(overlayOf(offer.words, offer.mend.request, offer.mend.answer));
  }
  emit changed();
}

void MendFinder::take(int index) {
  if (index < 0 || index >= static_cast<int>(m_offers.size())) return;
  const OfferedMend offer = m_offers[static_cast<std::size_t>(index)]; // the edit clears the list
  std::vector<std::pair<std::string, QString>> products;
  for (const auto& id : offer.products)
    products.emplace_back(id, nameFor(m_editor, id));
  MendEdits(m_editor).take(offer.mend, products);
}

} // namespace butte::app
