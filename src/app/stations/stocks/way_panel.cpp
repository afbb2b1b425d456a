#include "stations/stocks/way_panel.h"

#include "document/formula_editor.h"
#include "document/product_looks.h"
#include "dose/doser.h"
#include "edits/stock_edits.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

using exchange::DosingDevice;
namespace {
constexpr std::pair<DosingDevice, const char*> devices[] = {
    {DosingDevice::Injector, QT_TRANSLATE_NOOP("butte", "injector, all tanks at once")},
    {DosingDevice::Series, QT_TRANSLATE_NOOP("butte", "injectors one behind the other")},
    {DosingDevice::Pumps, QT_TRANSLATE_NOOP("butte", "dosing pumps run alike")},
    {DosingDevice::Setpoint, QT_TRANSLATE_NOOP("butte", "controller on an EC setpoint")},
    {DosingDevice::Hand, QT_TRANSLATE_NOOP("butte", "by hand, jug or syringe")}};
} // namespace

WayPanel::WayPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : StockPanel(editor, units, parent), m_picture(new DilutionPicture), m_note(new WrappedLabel) {
  m_note->setObjectName("wayNote");
  m_note->setFont(faceOf(12));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addWidget(makeFields());
  column->addWidget(m_picture, 1);
  column->addWidget(m_note);
}

QWidget* WayPanel::makeFields() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(6);
  m_device = new QComboBox;
  m_device->setObjectName("dosingDevice");
  m_device->setAccessibleName(tr("how the stocks are dosed"));
  for (const auto& [device, words] : devices)
    m_device->addItem(app::tr(words), static_cast<int>(device));
  connect(m_device, &QComboBox::activated, this, [this] {
    StockEdits(m_editor).setDevice(static_cast<DosingDevice>(m_device->currentData().toInt()));
  });
  row->addWidget(words(tr("Dosed by")));
  row->addWidget(m_device);
  row->addSpacing(12);
  row->addWidget(words(tr("flow")));
  row->addWidget(field(tr("flow of feed per hour"), "feedPerHour", "feed_per_hour", Kind::Volume, 0, 1e7,
                       [] { return QString("?"); }));
  row->addWidget(unitLabel(Kind::Volume));
  row->addWidget(words(tr("per hour")));
  m_setpointRow = new QWidget;
  auto* setpoint = new QHBoxLayout(m_setpointRow);
  setpoint->setContentsMargins(12, 0, 0, 0);
  setpoint->addWidget(words(tr("holds")));
  setpoint->addWidget(field(tr("EC setpoint"), "setpoint", "setpoint", Kind::Conductivity, 0, 30000, [this] {
    return localNumber(m_units.conductivityIn(m_editor.answer().feed.conductivity),
                       m_units.conductivity() == ConductivityShown::MilliSiemens ? 2 : 0);
  }));
  setpoint->addWidget(unitLabel(Kind::Conductivity));
  m_setpointRow->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Preferred);
  row->addWidget(m_setpointRow);
  m_pumpRow = new QWidget;
  auto* pumps = new QHBoxLayout(m_pumpRow);
  pumps->setContentsMargins(12, 0, 0, 0);
  m_runs = new QHBoxLayout;
  m_runs->addWidget(words(tr("mL per run:")));
  m_minutes = new QHBoxLayout;
  m_minutes->addWidget(words(tr("mL per minute:")));
  pumps->addLayout(m_runs);
  pumps->addSpacing(8);
  pumps->addLayout(m_minutes);
  m_pumpRow->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Preferred);
  row->addWidget(m_pumpRow);
  row->addStretch();
  return box;
}

/// A field per tank; tanks may come and go.
void WayPanel::makePumps() {
  const auto count = m_editor.document().tanks.size();
  for (; m_pumpCount < count; ++m_pumpCount) {
    const auto i = m_pumpCount;
    m_runs->addWidget(field(tr("mL per run of pump %1").arg(i + 1), QString("pumpRun%1").arg(i),
                            "pumps/" + std::to_string(i) + "/ml_per_run", Kind::Plain, 1e-6, 1e6,
                            [] { return QString("10"); }));
    m_minutes->addWidget(field(tr("mL per minute of pump %1").arg(i + 1), QString("pumpMinute%1").arg(i),
                               "pumps/" + std::to_string(i) + "/ml_per_minute", Kind::Plain, 0, 1e7,
                               [] { return QString("?"); }));
  }
  for (std::size_t i = 0; i < m_pumpCount; ++i) {
    findChild<QWidget*>(QString("pumpRun%1").arg(i))->setVisible(i < count);
    findChild<QWidget*>(QString("pumpMinute%1").arg(i))->setVisible(i < count);
  }
}

std::vector<double> WayPanel::draws() const {
  const auto& dosing = m_editor.document().dosing;
  std::vector<double> out(m_editor.document().tanks.size(), 1.0);
  if (dosing.device != DosingDevice::Pumps || dosing.pumps.empty()) return out;
  const auto given = core::drawsOfEqualRuns(dosing.pumps);
  for (std::size_t t = 0; t < out.size() && t < given.size(); ++t)
    out[t] = given[t];
  return out;
}

QStringList WayPanel::ratesOf(std::size_t tank, double draw) const {
  const auto& dosing = m_editor.document().dosing;
  const auto& content = m_editor.answer().stock.tanks[tank];
  const double dose = 1000 / content.factor * draw;
  QStringList rates{m_units.dose(dose)};
  if (!dosing.feedPerHour) return rates;
  const auto perHour = *dosing.feedPerHour * (draw / content.factor);
  rates << tr("%1 per hour").arg(m_units.stockText(perHour));
  if (dosing.device == DosingDevice::Pumps) {
    const auto pump = tank < dosing.pumps.size() ? dosing.pumps[tank] : core::DosingPump{};
    if (const auto duty = core::pumpDuty(pump, *dosing.feedPerHour, content.factor / draw))
      rates << tr("%1 runs per hour").arg(localFigure(duty->runsPerHour)) +
                   (duty->secondsPerHour > 0 ? tr(", %1 s in all").arg(localFigure(duty->secondsPerHour))
                                             : QString());
  }
  return rates;
}

QString WayPanel::noteText(const core::Delivery& delivery, const std::vector<double>& draws) const {
  const auto& dosing = m_editor.document().dosing;
  const auto& stock = m_editor.answer().stock;
  if (dosing.device == DosingDevice::Setpoint) {
    const auto setpoint = dosing.setpoint.value_or(m_editor.answer().feed.conductivity);
    const auto held = core::atSetpoint(delivery, draws, setpoint);
    if (!held) return tr("▲ The water alone reads more than the setpoint: the controller never doses.");
    QString text = tr("The controller doses %1 % of the planned amount, until the meter agrees. The stocks' "
                      "strength only sets how long the tanks last. With one line shut it still reads right: ")
                       .arg(localNumber(100 * held->strength, 0));
    QStringList parts;
    for (std::size_t t = 0; t < stock.tanks.size(); ++t) {
      if (stock.tanks[t].items.empty() || stock.tanks[t].tank.use != core::TankUse::Salts) continue;
      auto shut = draws;
      shut[t] = 0;
      const auto feed = core::atSetpoint(delivery, shut, setpoint);
      if (!feed) continue;
      QStringList lack;
      for (const auto n : {core::Nutrient::NNitrate, core::Nutrient::P, core::Nutrient::K, core::Nutrient::Ca,
                           core::Nutrient::Mg, core::Nutrient::S}) {
        const double due = m_editor.answer().feed.milligramsPerLitre.of(n);
        if (due > 0 && feed->feed.milligramsPerLitre.of(n) < 0.5 * due)
          lack << QString("%1 %2").arg(QString::fromStdString(words::nutrientSymbol(n)),
                                       localFigure(feed->feed.milligramsPerLitre.of(n)));
      }
      parts << tr("without %1 the feed has %2 mg/L")
                   .arg(QString::fromStdString(stock.tanks[t].tank.name),
                        lack.isEmpty() ? QString("all") : lack.join(", "));
    }
    return tr("%1%2. Compare the levels of the tanks.").arg(text, parts.join("; "));
  }
  if (dosing.device == DosingDevice::Series) {
    std::vector<double> doses;
    for (const auto& content : stock.tanks)
      doses.push_back(1000 / content.factor);
    const auto settings = core::settingsInSeries(doses);
    if (!settings) return {};
    QStringList list;
    for (std::size_t t = 0; t < stock.tanks.size(); ++t)
      list << tr("%1 %2 mL per L")
                  .arg(QString::fromStdString(stock.tanks[t].tank.name), localNumber((*settings)[t], 2));
    return tr("Later injectors thin what earlier ones gave. Set, of what flows in: %1.").arg(list.join(", "));
  }
  if (dosing.device == DosingDevice::Pumps) {
    const bool unequal = std::any_of(draws.begin(), draws.end(),
                                     [&](double d) { return std::abs(d - draws.front()) > 0.005; });
    if (unequal)
      return tr(
          "▲ The pumps give unequal measure in a run: the feed leans to the fuller one. Set each by its "
          "own "
          "calibration, or run them by mL.");
  }
  return tr("Equal draw from every tank: a lower level or a weaker tank on one side shifts the ratio, "
            "not only the EC. %1")
      .arg(m_units.dose(stock.doseMlPerLitre));
}

void WayPanel::refresh() {
  const auto& document = m_editor.document();
  const auto& answer = m_editor.answer();
  const auto& dosing = document.dosing;
  m_device->setCurrentIndex(m_device->findData(static_cast<int>(dosing.device)));
  m_setpointRow->setVisible(dosing.device == DosingDevice::Setpoint);
  m_pumpRow->setVisible(dosing.device == DosingDevice::Pumps);
  makePumps();
  auto given = draws();
  const auto delivery = core::deliveryOf(m_editor.document().given, m_editor.answer());
  m_note->setText(noteText(delivery, given));
  if (dosing.device == DosingDevice::Setpoint) {
    if (const auto held =
            core::atSetpoint(delivery, given, dosing.setpoint.value_or(answer.feed.conductivity))) {
      for (auto& draw : given)
        draw *= held->strength;
    }
  }
  QStringList water{QString::fromStdString(document.waterName),
                    "EC " + m_units.text(answer.water.conductivity)};
  if (answer.water.ph) water << "pH " + localNumber(*answer.water.ph, 1);
  std::vector<DilutionPicture::Inlet> inlets;
  std::vector<double> soFar(given.size(), 0.0);
  for (std::size_t t = 0; t < answer.stock.tanks.size(); ++t) {
    const auto& content = answer.stock.tanks[t];
    soFar[t] = given[t];
    if (content.items.empty()) continue;
    DilutionPicture::Inlet inlet{
        QString::fromStdString(words::tankTitle(document.given.request.shelf, content)),
        ratesOf(t, given[t]),
        "→ EC " + m_units.text(delivery.conductivity(soFar, 0)),
        {}};
    for (const auto& item : content.items)
      inlet.products.emplace_back(lookIn(document, document.given.request.shelf[item.product].id),
                                  item.mass / content.total());
    inlets.push_back(std::move(inlet));
  }
  const auto feed = delivery.feed(given);
  QStringList out{tr("Feed"), "EC " + m_units.text(feed.conductivity)};
  if (feed.ph) out << "pH " + localNumber(*feed.ph, 1);
  if (dosing.feedPerHour) out << tr("%1 per hour").arg(m_units.text(*dosing.feedPerHour));
  m_picture->show(water, std::move(inlets), out);
}

} // namespace butte::app
