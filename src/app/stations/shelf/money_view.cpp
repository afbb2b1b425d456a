#include "stations/shelf/money_view.h"

#include "book/changes/computed_formula.h"
#include "document/formula_editor.h"
#include "fields/number_field.h"
#include "paint/beside_or_below.h"
#include "paint/closed_text.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "print/html_cell.h"
#include "services/units_shown.h"
#include "stations/shelf/money_picture.h"
#include "wording/record_words.h"
#include "wording/shelf_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QDate>
#include <QVBoxLayout>
#include <set>

namespace butte::app {

using core::Mass;
using core::Money;

namespace {

/// A figure, at the right.
QString figure(const QString& text) {
  return htmlCell(text, CellSide::Right);
}

double inCurrency(const std::vector<Money>& money, const std::string& currency) {
  for (const auto& one : money)
    if (one.currency == currency) return one.amount;
  return 0;
}

QString elementPrice(const core::ElementFromProduct& source, const std::string& currency,
                     const UnitsShown& units) {
  constexpr double nothing = 1e-9;
  if (source.pricePerKg < nothing) return tr("comes along *");
  const auto price = pricePerBulk(source.pricePerKg, currency, units);
  return source.isShared ? tr("%1 *").arg(price) : price;
}

book::ComputedFormula inHand(const FormulaEditor& editor) {
  return {editor.document(), editor.answer()};
}

} // namespace

MoneyView::MoneyView(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_period(new QComboBox), m_crop(new QComboBox),
      m_product(new QComboBox), m_total(new WrappedLabel), m_changed(new WrappedLabel),
      m_picture(new MoneyPicture), m_lines(new ClosedTextView), m_elements(new ClosedTextView),
      m_priceUnit(new PlainLabel) {
  m_period->setObjectName("moneyPeriod");
  m_period->setAccessibleName(tr("which batches"));
  m_period->addItem(tr("the last 12 months"), 365);
  m_period->addItem(tr("this year"), -1);
  m_period->addItem(tr("the last 4 months"), 122);
  m_period->addItem(tr("all batches"), 0);
  m_crop->setObjectName("moneyCrop");
  m_crop->setAccessibleName(tr("of which crop"));
  m_crop->setSizeAdjustPolicy(QComboBox::AdjustToContents);
  m_product->setObjectName("whatIfProduct");
  m_product->setAccessibleName(tr("product whose price changes"));
  m_price =
      new NumberField({.name = tr("another price"), .unit = {}, .least = 0, .most = 1e6, .mayBeEmpty = true});
  m_price->setObjectName("whatIfPrice");
  m_price->setFixedWidth(80);
  m_price->onTyped = [this](const QString&) { refreshWhatIf(); };
  m_price->onMessage = [this](const QString& words) { emit message(words); };
  m_total->setObjectName("moneyTotal");
  m_total->setFont(faceOf(16, true));
  m_changed->setObjectName("whatIfWords");
  m_lines->setObjectName("moneyLines");
  m_elements->setObjectName("moneyElements");
  auto* head = new FlowRow;
  head->addTogether({new PlainLabel(tr("Batches of")), m_period});
  head->addTogether({new PlainLabel(tr("crop")), m_crop});
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addLayout(head);
  column->addWidget(m_total);
  column->addWidget(m_picture);
  auto* below = new BesideOrBelow(16);
  auto* left = new QVBoxLayout;
  left->addWidget(m_lines, 1);
  auto* right = new QVBoxLayout;
  auto* whatIf = new FlowRow;
  whatIf->addTogether({new PlainLabel(tr("What if")), m_product});
  whatIf->addTogether({new PlainLabel(tr("cost")), m_price, m_priceUnit});
  right->addLayout(whatIf);
  right->addWidget(m_changed);
  right->addWidget(m_elements, 1);
  below->add(left, 1);
  below->add(right, 1);
  column->addWidget(below, 1);
  connect(m_period, &QComboBox::currentIndexChanged, this, &MoneyView::refresh);
  connect(m_crop, &QComboBox::currentIndexChanged, this, &MoneyView::refresh);
  connect(m_product, &QComboBox::currentIndexChanged, this, &MoneyView::refreshWhatIf);
  connect(&editor, &FormulaEditor::changed, this, [this] {
    if (isVisible()) refreshElements();
  });
}

void MoneyView::show(const SharedShelfStory& story) {
  m_story = story;
  const QSignalBlocker quietCrop(m_crop), quietProduct(m_product);
  const auto crop = m_crop->currentData(), product = m_product->currentData();
  std::set<std::string> crops;
  for (const auto& use : m_story->shelf.uses)
    if (!use.crop.empty()) crops.insert(use.crop);
  m_crop->clear();
  m_crop->addItem(tr("all"), QString());
  for (const auto& one : crops)
    m_crop->addItem(qtext(one), qtext(one));
  m_crop->setCurrentIndex(std::max(0, m_crop->findData(crop)));
  m_product->clear();
  for (const auto& [id, name] : m_story->shelf.names)
    m_product->addItem(qtext(name), qtext(id));
  m_product->setCurrentIndex(std::max(0, m_product->findData(product)));
  m_priceUnit->setText(tr("%1 per %2").arg(qtext(m_story->currency), m_units.bulkUnit()));
  refresh();
}

void MoneyView::refresh() {
  book::CostAsked asked{m_story->now, {}, {}, m_crop->currentData().toString().toStdString()};
  constexpr std::int64_t day = 86400;
  const int days = m_period->currentData().toInt();
  if (days > 0) asked.from = book::Moment{m_story->now.seconds - days * day};
  if (days < 0)
    asked.from = book::Moment{QDate(QDate::currentDate().year(), 1, 1).startOfDay().toSecsSinceEpoch()};
  m_report = book::costReport(m_story->shelf, m_story->account, asked);
  const auto& total = m_report.total;
  const auto bulk = m_units.measures().bulkVolume();
  const auto per = [&](const std::vector<Money>& money) {
    return moneyText(book::moneyPer(money, total.litres, bulk.litres()));
  };
  auto words = total.batches == 0
                   ? tr("No batch in that time.")
                   : tr("%1 for %2: %3 per %4. At today's prices %5, %6 per %4.")
                         .arg(moneyText(total.cost.paid.money),
                              counted(total.batches, tr("%1 batch"), tr("%1 batches")),
                              per(total.cost.paid.money), qtext(m_units.measures().bulkVolumeName()),
                              moneyText(total.cost.today.money), per(total.cost.today.money));
  if (total.cost.paid.unpriced > Mass::fromGrams(1))
    words += tr(" Of %1 no price is known.").arg(sackText(total.cost.paid.unpriced, m_units));
  m_total->setText(words);
  m_picture->show(m_report.months, m_story->currency);
  m_lines->setHtml(linesTable(tr("By crop"), m_report.crops, true) +
                   linesTable(tr("By product"), m_report.products, false) + pricesTable());
  refreshElements();
  refreshWhatIf();
}

QString MoneyView::linesTable(const QString& title, const std::vector<book::CostLine>& lines,
                              bool byFeed) const {
  const auto bulk = m_units.measures().bulkVolume();
  auto out =
      QString("<h3>%1</h3><table cellspacing='0' cellpadding='2'><tr>%2%3%4%5%6</tr>")
          .arg(title, htmlCell({}), figure(byFeed ? tr("feed") : tr("used")), figure(tr("paid")),
               figure(byFeed ? tr("per %1").arg(qtext(m_units.measures().bulkVolumeName())) : QString()),
               figure(tr("at today's prices")));
  for (const auto& line : lines) {
    const auto name = byFeed ? (line.key.empty() ? tr("no crop") : qtext(line.key)) : qtext(line.name);
    out +=
        "<tr>" + htmlCell(name) +
        figure(byFeed ? m_units.text(core::Volume::fromLitres(line.litres)) : sackText(line.mass, m_units)) +
        figure(moneyText(line.cost.paid.money)) +
        figure(byFeed ? moneyText(book::moneyPer(line.cost.paid.money, line.litres, bulk.litres()))
                      : QString()) +
        figure(moneyText(line.cost.today.money)) + "</tr>";
  }
  return out + "</table>";
}

/// The first price of each product, and the newest.
QString MoneyView::pricesTable() const {
  auto out = QString("<h3>%1</h3><table cellspacing='0' cellpadding='2'>").arg(tr("Prices over time"));
  for (const auto& [id, name] : m_story->shelf.names) {
    const auto history = core::priceHistory(id, m_story->shelf.coreLots);
    if (history.empty()) continue;
    const auto& first = history.front();
    const auto& last = history.back();
    const auto shown = [&](const core::PricePoint& point) {
      return tr("%1 (%2)").arg(pricePerBulk(point.perKg.amount, point.perKg.currency, m_units),
                               dayText({point.atSeconds}));
    };
    const bool comparable = history.size() > 1 && first.perKg.currency == last.perKg.currency;
    const double change = comparable ? (last.perKg.amount / first.perKg.amount - 1) * 100 : 0;
    out += "<tr>" + htmlCell(qtext(name)) + figure(history.size() > 1 ? shown(first) : QString()) +
           figure(shown(last)) +
           figure(comparable ? tr("%1%2 %").arg(change < 0 ? "−" : "+", localNumber(std::abs(change), 0))
                             : QString()) +
           "</tr>";
  }
  return out + "</table>";
}

void MoneyView::refreshElements() {
  const auto prices = core::pricesToday(m_story->shelf.coreLots, m_story->now.seconds);
  const auto formula = inHand(m_editor);
  const auto found = book::elementPricesOf(formula, prices, m_story->currency);
  const auto& shelf = formula.document.given.request.shelf;
  auto out = "<h3>" + tr("What each element costs, from each product").toHtmlEscaped() + "</h3>";
  if (!found)
    return m_elements->setHtml(out + "<p>" +
                               tr("No product of the formula in hand has a price.").toHtmlEscaped() + "</p>");
  out += "<table cellspacing='0' cellpadding='2'>";
  bool shared = false;
  for (const auto& source : found->sources) {
    shared = shared || source.isShared;
    out += "<tr>" + htmlCell(qtext(words::nutrientSymbol(source.nutrient))) +
           htmlCell(qtext(shelf[source.product].name)) +
           figure(elementPrice(source, m_story->currency, m_units)) + "</tr>";
  }
  out += "</table>";
  if (shared)
    out += "<p>" +
           tr("* This product brings several elements: each bears as much of its price as it is worth in the "
              "cheapest "
              "feed that brings what the target of “%1” wants (the dual values of that program). An element "
              "that comes "
              "along for nothing there bears nothing.")
               .arg(qtext(formula.document.name))
               .toHtmlEscaped() +
           "</p>";
  m_elements->setHtml(out);
}

void MoneyView::refreshWhatIf() {
  const auto id = m_product->currentData().toString().toStdString();
  const auto prices = core::pricesToday(m_story->shelf.coreLots, m_story->now.seconds);
  const auto known = prices.find(id);
  const auto per = [&](double perKg) { return pricePerBulk(perKg, m_story->currency, m_units); };
  if (known == prices.end() || known->second.perKg.currency != m_story->currency)
    return m_changed->setText(id.empty() ? QString() : tr("No price of it is known in that currency."));
  const auto digits = m_price->digits();
  if (digits.isEmpty() || m_price->isWrong())
    return m_changed->setText(
        tr("It costs %1 now. Type another price to see what it does.").arg(per(known->second.perKg.amount)));
  const double perKg = digits.toDouble() * m_units.measures().inBulk(Mass::fromKilograms(1));
  Mass used;
  for (const auto& line : m_report.products)
    if (line.key == id) used = line.mass;
  const double more = (perKg - known->second.perKg.amount) * used.kilograms();
  const double before = inCurrency(m_report.total.cost.today.money, m_story->currency);
  const double litres = m_report.total.litres;
  const auto bulk = m_units.measures().bulkVolume().litres();
  m_changed->setText(tr("At %1 the same batches would cost %2 instead of %3 (%4%5): %6 per %7 instead of %8.")
                         .arg(per(perKg), moneyText(Money{m_story->currency, before + more}),
                              moneyText(Money{m_story->currency, before}), more < 0 ? "−" : "+",
                              moneyText(Money{m_story->currency, std::abs(more)}),
                              moneyText(book::moneyPer({{m_story->currency, before + more}}, litres, bulk)),
                              qtext(m_units.measures().bulkVolumeName()),
                              moneyText(book::moneyPer({{m_story->currency, before}}, litres, bulk))));
}

} // namespace butte::app
