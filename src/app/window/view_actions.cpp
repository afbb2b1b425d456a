#include "window/view_actions.h"

#include "base/decimal.h"
#include "paint/theme.h"
#include "window/main_window.h"
#include "window/text_size.h"
#include "wording/tr.h"

#include <QAction>
#include <QActionGroup>
#include <QMenuBar>

namespace butte::app {

namespace {

/// A group of choices of which the one in force is ticked, wherever it was chosen. Each action is named for
/// tests and scripts: "units_oz".
template <class Unit, class Current, class Choose>
void addChoices(UnitsShown& units, QMenu* menu, std::vector<std::tuple<QString, QString, Unit>> choices,
                Current current, Choose choose) {
  auto* group = new QActionGroup(menu);
  for (const auto& [text, name, unit] : choices) {
    auto* action = menu->addAction(text);
    action->setObjectName(name);
    action->setCheckable(true);
    action->setChecked(unit == current());
    QObject::connect(&units, &UnitsShown::changed, action,
                     [action, current, unit = unit] { action->setChecked(unit == current()); });
    group->addAction(action);
    QObject::connect(action, &QAction::triggered, menu, [choose, unit = unit] { choose(unit); });
  }
  menu->addSeparator();
}

} // namespace

ViewActions::ViewActions(MainWindow& window, QSettings& settings) : QObject(&window), m_window(window) {
  auto* menu = window.menuBar()->addMenu(tr("&View"));
  addStations(menu);
  menu->addSeparator();
  auto* dark = menu->addAction(tr("&Dark"));
  dark->setObjectName("darkTheme");
  dark->setShortcut(QKeySequence("Ctrl+D"));
  dark->setCheckable(true);
  dark->setChecked(isDark());
  connect(dark, &QAction::triggered, this, [&settings, &window](bool on) {
    settings.setValue("view/dark", on);
    applyTheme(on);
    emit window.editor().changed(); // painted pictures take the new colours
  });
  addTextSizes(menu->addMenu(tr("Te&xt size")), settings);
  addUnits(window.menuBar()->addMenu(tr("&Units")));
}

/// Everything grows with the text, so the window opens anew; all that was typed is kept by then.
void ViewActions::addTextSizes(QMenu* menu, QSettings& settings) {
  const auto choose = [this, &settings](int percent) {
    if (percent == textPercent(settings)) return;
    keepTextPercent(settings, percent);
    settings.sync();
    m_window.openAnew();
  };
  auto* group = new QActionGroup(menu);
  for (const int percent : textPercents) {
    auto* action = menu->addAction(tr("%1 %").arg(percent));
    action->setObjectName(QString("text_%1").arg(percent));
    action->setCheckable(true);
    action->setChecked(percent == textPercent(settings));
    group->addAction(action);
    connect(action, &QAction::triggered, this, [choose, percent] { choose(percent); });
  }
  menu->addSeparator();
  const std::tuple<QString, const char*, QKeySequence, int> steps[] = {
      {tr("Larger"), "text_larger", QKeySequence::ZoomIn, 1},
      {tr("Smaller"), "text_smaller", QKeySequence::ZoomOut, -1}};
  for (const auto& [text, name, keys, step] : steps) {
    auto* action = menu->addAction(text, this, [choose, &settings, step = step] {
      choose(nextTextPercent(textPercent(settings), step));
    });
    action->setObjectName(name);
    action->setShortcuts(keys == QKeySequence(QKeySequence::ZoomIn)
                             ? QList<QKeySequence>{keys, QKeySequence("Ctrl+=")}
                             : QList<QKeySequence>{keys});
  }
}

void ViewActions::addStations(QMenu* menu) {
  for (const auto& info : stations)
    menu->addAction(app::tr(info.menu), shortcutOf(info.station), this,
                    [this, station = info.station] { m_window.showStation(station); });
}

void ViewActions::addUnits(QMenu* menu) {
  auto& units = m_window.units();
  const std::tuple<QString, const char*, UnitsOf> all[] = {
      {tr("All metric: g, L, EC, °C, A4"), "units_metric", UnitsOf::Metric},
      {tr("All as in the US: lb, gal, ppm 500, °F, Letter"), "units_us", UnitsOf::UnitedStates},
      {tr("All as in the UK: g, imperial gal, EC, °C, A4"), "units_uk", UnitsOf::UnitedKingdom}};
  for (const auto& [text, name, which] : all) {
    auto* action = menu->addAction(text, this, [&units, which = which] { units.setAll(which); });
    action->setObjectName(name);
  }
  menu->addSeparator();
  addChoices<MassShown>(
      units, menu,
      {{tr("Weights in grams and kilograms"), "units_g", MassShown::Metric},
       {tr("Weights in ounces"), "units_oz", MassShown::Ounces},
       {tr("Weights in pounds, decimal"), "units_lb", MassShown::Pounds},
       {tr("Weights in pounds and ounces"), "units_lb_oz", MassShown::PoundsAndOunces}},
      [&units] { return units.mass(); }, [&units](MassShown u) { units.setMass(u); });
  addChoices<VolumeShown>(
      units, menu,
      {{tr("Volumes in litres"), "units_L", VolumeShown::Litres},
       {tr("Volumes in US gallons"), "units_gal_us", VolumeShown::UsGallons},
       {tr("Volumes in imperial gallons"), "units_gal_imp", VolumeShown::ImperialGallons}},
      [&units] { return units.volume(); }, [&units](VolumeShown u) { units.setVolume(u); });
  addChoices<ConductivityShown>(
      units, menu,
      {{tr("Salts as EC, mS/cm"), "units_ec", ConductivityShown::MilliSiemens},
       {tr("Salts as ppm, scale 500"), "units_ppm500", ConductivityShown::Ppm500},
       {tr("Salts as ppm, scale 640"), "units_ppm640", ConductivityShown::Ppm640},
       {tr("Salts as ppm, scale 700"), "units_ppm700", ConductivityShown::Ppm700}},
      [&units] { return units.conductivity(); }, [&units](ConductivityShown u) { units.setConductivity(u); });
  addChoices<LiquidShown>(
      units, menu,
      {{tr("Small liquids in mL"), "units_ml", LiquidShown::Millilitres},
       {tr("Small liquids in fluid ounces"), "units_floz", LiquidShown::FluidOunces},
       {tr("Small liquids in drops, spoons and cups"), "units_spoons", LiquidShown::Spoons}},
      [&units] { return units.liquid(); }, [&units](LiquidShown u) { units.setLiquid(u); });
  auto* drop = menu->addAction(tr("Size of a drop…"), this, &ViewActions::countDrops);
  drop->setObjectName("dropSize");
  addChoices<TemperatureShown>(
      units, menu,
      {{tr("Temperatures in °C"), "units_c", TemperatureShown::Celsius},
       {tr("Temperatures in °F"), "units_f", TemperatureShown::Fahrenheit}},
      [&units] { return units.temperature(); }, [&units](TemperatureShown u) { units.setTemperature(u); });
  addChoices<PaperShown>(
      units, menu,
      {{tr("Paper: A4"), "paper_a4", PaperShown::A4},
       {tr("Paper: Letter"), "paper_letter", PaperShown::Letter}},
      [&units] { return units.paper(); }, [&units](PaperShown p) { units.setPaper(p); });
}

/// Pipettes differ by half: counted once, a drop is known.
void ViewActions::countDrops() {
  constexpr double counted = 5, least = 25, most = 500; // mL; drops of 0.2 to 0.01 mL
  auto& units = m_window.units();
  const auto text =
      m_window.prompts().words(tr("Size of a drop"), tr("Count drops into a measure: how many fill 5 mL?"),
                               localNumber(counted / units.measures().dropMillilitres, 0));
  if (text.isEmpty()) return;
  const auto drops = core::parseDecimal(text.trimmed().toStdString());
  if (!drops || *drops < least || *drops > most)
    return m_window.prompts().trouble(
        tr("Size of a drop: “%1” is no count of drops in 5 mL; it should be from 25 to 500.").arg(text));
  units.setDropMillilitres(counted / *drops);
}

} // namespace butte::app
