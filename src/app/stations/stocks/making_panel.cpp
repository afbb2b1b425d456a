#include "stations/stocks/making_panel.h"

#include "document/formula_editor.h"
#include "edits/stock_edits.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "print/pre_stock_text.h"
#include "services/units_shown.h"
#include "stock/acid_tank.h"
#include "stock/dissolving.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

MakingPanel::MakingPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : StockPanel(editor, units, parent), m_text(new WrappedLabel), m_acidToPh(new QPushButton) {
  m_text->setObjectName("makingText");
  m_text->setTextFormat(Qt::RichText);
  m_text->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  m_text->setFont(faceOf(12));
  m_acidToPh->setObjectName("acidToPh");
  m_acidToPh->setToolTip(
      tr("So much acid that the injector's ratio alone brings the water to the aimed pH; its "
         "nutrients count in the formula"));
  connect(m_acidToPh, &QPushButton::clicked, this, [this] {
    if (!StockEdits(m_editor).acidToAimedPh())
      emit message(tr("The water's alkalinity is not known, or this acid can't get there."));
  });
  auto* labels = new QPushButton(tr("Labels as PDF…"));
  labels->setObjectName("labelsPdf");
  labels->setProperty("primary", true);
  connect(labels, &QPushButton::clicked, this, &MakingPanel::labelsAsked);
  auto* row = new QHBoxLayout;
  row->setSpacing(6);
  const auto temperature = [&](const QString& name, const QString& id, const char* path, double usual) {
    row->addWidget(words(name));
    row->addWidget(field(name, id, path, Kind::Temperature, 0, 212, [this, usual] {
      return QString::fromStdString(m_units.measures().digits(core::Temperature::fromCelsius(usual)));
    }));
    row->addWidget(unitLabel(Kind::Temperature));
    row->addSpacing(8);
  };
  temperature(tr("cold water"), "coldWater", "cold_water", 12);
  temperature(tr("hot water"), "hotWater", "hot_water", 50);
  temperature(tr("stock wanted at"), "wantedWarm", "wanted", 20);
  row->addStretch();
  row->addWidget(m_acidToPh);
  row->addWidget(labels);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addLayout(row);
  column->addWidget(scrolled(m_text), 1);
}

QString MakingPanel::tankText(std::size_t t) const {
  const auto& content = m_editor.answer().stock.tanks[t];
  const auto& document = m_editor.document();
  const auto& shelf = document.given.request.shelf;
  const auto celsius = [this](core::Temperature c) {
    return m_units.text(core::Temperature::fromCelsius(std::round(c.celsius())));
  };
  QString out = QString("<b style='font-size:14px'>%1</b>")
                    .arg(QString::fromStdString(words::tankTitle(shelf, content)).toHtmlEscaped());
  const auto made = core::dissolve(shelf, content, document.dosing.dissolving);
  out += tr("<br>Pour %1 of water in all; the salts take up the rest. <b>Fill to the %2 mark</b>, never "
            "add salts to %2 of water. The "
            "finished stock weighs %3.")
             .arg(m_units.stockText(made.addedWater), m_units.stockText(content.tank.volume),
                  m_units.densityText(content.densityKgPerLitre));
  if (content.tank.use == core::TankUse::Acid) return out;
  if (made.kilojoules > 0 && made.lowest < document.dosing.dissolving.coldWater) {
    QStringList chills;
    for (const auto& chill : made.chills) {
      if (chill.kilojoules > 0.15 * made.kilojoules)
        chills << QString::fromStdString(m_editor.nameOf(shelf[chill.product].id)).toHtmlEscaped();
    }
    const auto who = chills.join(", ");
    out += tr("<br>%1 chill it: down to <b>%2</b> in half of the water, %3 at the mark. ")
               .arg(who.left(1).toUpper() + who.mid(1), celsius(made.lowest), celsius(made.finished));
    out += made.hot ? *made.hot > core::Volume{}
                          ? tr("<b>%1 hot</b> of it brings it to %2.")
                                .arg(m_units.stockText(*made.hot), celsius(document.dosing.dissolving.wanted))
                          : tr("Warm enough as it is.")
                    : tr("Not even all of it hot would bring it to %1: wait, or stir longer.")
                          .arg(celsius(document.dosing.dissolving.wanted));
  }
  QStringList unknown;
  for (const auto j : made.unknown)
    unknown << QString::fromStdString(m_editor.nameOf(shelf[j].id)).toHtmlEscaped();
  if (!unknown.isEmpty() && unknown.size() <= 3) out += tr("<br>Heat not known: %1.").arg(unknown.join(", "));
  return out;
}

QString MakingPanel::acidText(std::size_t t) const {
  const auto& shelf = m_editor.document().given.request.shelf;
  const auto& tanks = m_editor.answer().stock.tanks;
  QString out;
  for (const auto& acid : core::acidTanks(shelf, m_editor.answer().stock, m_editor.answer().water)) {
    if (acid.tank != t) continue;
    out += tr("<br><b>%1 %2</b> in the tank: %3 % acid. ")
               .arg(acid.volume ? m_units.stockText(*acid.volume) : m_units.text(acid.mass),
                    QString::fromStdString(m_editor.nameOf(shelf[acid.product].id)).toHtmlEscaped(),
                    localFigure(acid.strengthPercent));
    const auto ten = m_units.measures().oneVolume() * 10;
    if (acid.volume && tanks[t].tank.volume > ten)
      out +=
          tr("That is %1 in each 10 %2 of the tank. ")
              .arg(m_units.stockText(*acid.volume * (ten / tanks[t].tank.volume)), m_units.volumeUnitName());
    if (acid.waterPh)
      out += tr("Through the injector the water comes to <b>pH %1</b>.").arg(localNumber(*acid.waterPh, 1));
    for (const auto& line : words::acidTankCautions(shelf[acid.product], acid.warmsByKelvin))
      out += "<br>⚠ " + QString::fromStdString(line).toHtmlEscaped();
  }
  return out;
}

void MakingPanel::refresh() {
  const auto& plan = m_editor.document().given.acid;
  m_acidToPh->setText(tr("Acid to pH %1").arg(localNumber(plan.targetPh, 1)));
  const auto& tanks = m_editor.answer().stock.tanks;
  const bool acidTank = std::any_of(tanks.begin(), tanks.end(),
                                    [](const auto& c) { return c.tank.use == core::TankUse::Acid; });
  m_acidToPh->setVisible(acidTank);
  QString cells;
  for (std::size_t t = 0; t < tanks.size(); ++t) {
    if (tanks[t].items.empty()) continue;
    cells += QString("<td valign='top' width='%1%' style='padding-right:16px'>%2</td>")
                 .arg(100 / static_cast<int>(tanks.size()))
                 .arg(tankText(t) + preStockHtml(m_editor, m_units, t) + acidText(t));
  }
  m_text->setText("<table width='100%'><tr>" + cells + "</tr></table>");
}

} // namespace butte::app
