#include "stations/stocks/supply_panel.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "dose/supply.h"
#include "edits/stock_edits.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QDate>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
QString dayText(const QDate& day) {
  const auto text = QLocale().toString(day, QLocale::ShortFormat);
  return day < QDate::currentDate() ? tr("▲ %1, overdue").arg(text) : text;
}
} // namespace

SupplyPanel::SupplyPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : StockPanel(editor, units, parent), m_mixedOn(new QLineEdit), m_tanks(new PlainLabel),
      m_season(new PlainLabel) {
  m_mixedOn->setObjectName("mixedOn");
  m_mixedOn->setAccessibleName(tr("day on which the tanks were mixed"));
  m_mixedOn->setFixedWidth(96);
  m_mixedOn->setPlaceholderText("2026-12-31");
  connect(m_mixedOn, &QLineEdit::textEdited, this, [this](const QString& text) {
    const bool day = QDate::fromString(text.trimmed(), Qt::ISODate).isValid();
    if (!day && !text.trimmed().isEmpty())
      return emit message(tr("Mixed on: type the day as year-month-day, such as 2026-11-27."));
    StockEdits(m_editor).setMixedOn(text.trimmed());
  });
  auto* row = new FlowRow;
  row->addTogether({words(tr("Feed used")),
                    field(tr("feed used per day"), "feedPerDay", "feed_per_day", Kind::Volume, 0, 1e8,
                          [] { return QString("?"); }),
                    unitLabel(Kind::Volume), words(tr("a day"))});
  row->addTogether({words(tr("· a fill should last")),
                    field(tr("days that a fill should last"), "fillDays", "fill_days", Kind::Plain, 0.1, 1000,
                          [] { return QString("7"); }),
                    words(tr("days"))});
  row->addTogether({words(tr("· last mixed on")), m_mixedOn});
  row->addTogether({words(tr("· the season has")),
                    field(tr("days of the season"), "seasonDays", "season_days", Kind::Plain, 1, 10000,
                          [] { return QString("120"); }),
                    words(tr("days"))});
  for (auto* label : {m_tanks, m_season}) {
    label->setWordWrap(true);
    label->setTextFormat(Qt::RichText);
    label->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    label->setFont(faceOf(12));
  }
  m_tanks->setObjectName("supplyTanks");
  m_season->setObjectName("supplySeason");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addLayout(row);
  column->addWidget(m_tanks);
  column->addWidget(m_season);
  column->addStretch();
}

double SupplyPanel::strength() const {
  const auto& dosing = m_editor.document().dosing;
  if (dosing.device != exchange::DosingDevice::Setpoint || !dosing.setpoint) return 1;
  const auto delivery = core::deliveryOf(m_editor.document().given, m_editor.answer());
  const auto held =
      core::atSetpoint(delivery, std::vector<double>(delivery.tankCount(), 1.0), *dosing.setpoint);
  return held ? held->strength : 1;
}

QString SupplyPanel::tanksText() const {
  const auto& dosing = m_editor.document().dosing;
  const auto& stock = m_editor.answer().stock;
  const auto supplies = core::suppliesOf(stock, *dosing.feedPerDay, dosing.fillDays, strength());
  const auto soft = theme().inkSoft.name();
  QString rows = tr("<tr style='color:%1'><td>tank</td><td>a full tank makes</td><td>it gives a "
                    "day</td><td>it lasts</td><td>for %2 days fill to</td><td>mix again</td></tr>")
                     .arg(soft, QString::fromStdString(core::decimalText(dosing.fillDays)));
  const auto mixed = QDate::fromString(QString::fromStdString(dosing.mixedOn), Qt::ISODate);
  for (std::size_t t = 0; t < supplies.size(); ++t) {
    if (stock.tanks[t].items.empty()) continue;
    const auto& s = supplies[t];
    const bool fits = s.fillForDays <= stock.tanks[t].tank.volume * 1.0001;
    const auto vessel = m_editor.document().tanks[t].vessel;
    QString fill = m_units.stockText(s.fillForDays);
    if (vessel) {
      if (const auto cm = core::heightForVolume(*vessel, s.fillForDays))
        fill += QString(" (%1 cm)").arg(localNumber(*cm, 1));
    }
    const auto again = mixed.isValid() && s.daysPerFill
                           ? dayText(mixed.addDays(static_cast<qint64>(std::floor(*s.daysPerFill))))
                           : QString("—");
    rows += tr("<tr><td><b>%1</b></td><td>%2 of "
               "feed</td><td>%3</td><td><b>%4</b></td><td>%5</td><td><b>%6</b></td></tr>")
                .arg(QString::fromStdString(
                         words::tankTitle(m_editor.document().given.request.shelf, stock.tanks[t]))
                         .toHtmlEscaped(),
                     m_units.text(s.feedPerFill), m_units.stockText(s.drawnPerDay),
                     s.daysPerFill ? tr("%1 days").arg(localNumber(std::floor(*s.daysPerFill * 10) / 10, 1))
                                   : QString("—"),
                     fits ? fill : tr("▲ %1: more than it holds").arg(fill), again);
  }
  return "<table width='100%' cellpadding='2'>" + rows + "</table>";
}

QString SupplyPanel::seasonText() const {
  const auto& document = m_editor.document();
  const auto& dosing = document.dosing;
  const auto& request = document.given.request;
  auto grams = m_editor.answer().solution.grams;
  grams.resize(request.shelf.size());
  auto need = core::needFor(grams, request.volume, *dosing.feedPerDay, dosing.seasonDays, strength());
  QStringList items;
  double cost = 0;
  bool priced = true;
  for (std::size_t j = 0; j < need.size(); ++j) {
    if (need[j] <= core::Mass{}) continue;
    items << QString("<b>%1</b> %2")
                 .arg(m_units.text(need[j]),
                      QString::fromStdString(document.products[document.active[j]].name).toHtmlEscaped());
    if (request.shelf[j].pricePerKg)
      cost += *request.shelf[j].pricePerKg * need[j].kilograms();
    else
      priced = false;
  }
  return tr("The season's %1 days take %2 of feed: %3.%4")
      .arg(QString::fromStdString(core::decimalText(dosing.seasonDays)),
           m_units.text(*dosing.feedPerDay * dosing.seasonDays), items.join(", "),
           priced ? tr(" Together %1 in your currency.").arg(localNumber(cost, 0))
                  : tr(" Some have no price yet."));
}

void SupplyPanel::refresh() {
  const auto& dosing = m_editor.document().dosing;
  const auto mixed = QString::fromStdString(dosing.mixedOn);
  if (m_mixedOn->text() != mixed && !m_mixedOn->hasFocus()) m_mixedOn->setText(mixed);
  if (!dosing.feedPerDay || *dosing.feedPerDay <= core::Volume{}) {
    m_tanks->setText(
        tr("Type how much feed the crop takes in a day: then the tanks say how long they last."));
    m_season->clear();
    return;
  }
  m_tanks->setText(tanksText());
  m_season->setText(seasonText());
}

} // namespace butte::app
