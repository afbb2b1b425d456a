#include "window/view_actions.h"

#include "paint/theme.h"
#include "window/main_window.h"
#include "wording/tr.h"

#include <QAction>
#include <QActionGroup>
#include <QMenuBar>

namespace butte::app {

namespace {

/// A group of choices of which one is ticked. Each action is named for tests and scripts: "units_oz".
template <class Unit, class Choose>
void addChoices(QMenu* menu, std::vector<std::tuple<QString, QString, Unit>> choices, Unit current,
                Choose choose) {
  auto* group = new QActionGroup(menu);
  for (const auto& [text, name, unit] : choices) {
    auto* action = menu->addAction(text);
    action->setObjectName(name);
    action->setCheckable(true);
    action->setChecked(unit == current);
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
  addUnits(window.menuBar()->addMenu(tr("&Units")));
}

void ViewActions::addStations(QMenu* menu) {
  for (const auto& info : stations)
    menu->addAction(app::tr(info.menu), shortcutOf(info.station), this,
                    [this, station = info.station] { m_window.showStation(station); });
}

void ViewActions::addUnits(QMenu* menu) {
  auto& units = m_window.units();
  addChoices<MassShown>(menu,
                        {{tr("Weights in grams and kilograms"), "units_g", MassShown::Metric},
                         {tr("Weights in ounces"), "units_oz", MassShown::Ounces},
                         {tr("Weights in pounds, decimal"), "units_lb", MassShown::Pounds}},
                        units.mass(), [&units](MassShown u) { units.setMass(u); });
  addChoices<VolumeShown>(
      menu,
      {{tr("Volumes in litres"), "units_L", VolumeShown::Litres},
       {tr("Volumes in US gallons"), "units_gal_us", VolumeShown::UsGallons},
       {tr("Volumes in imperial gallons"), "units_gal_imp", VolumeShown::ImperialGallons}},
      units.volume(), [&units](VolumeShown u) { units.setVolume(u); });
  addChoices<ConductivityShown>(menu,
                                {{tr("Salts as EC, mS/cm"), "units_ec", ConductivityShown::MilliSiemens},
                                 {tr("Salts as ppm, scale 500"), "units_ppm500", ConductivityShown::Ppm500},
                                 {tr("Salts as ppm, scale 640"), "units_ppm640", ConductivityShown::Ppm640},
                                 {tr("Salts as ppm, scale 700"), "units_ppm700", ConductivityShown::Ppm700}},
                                units.conductivity(),
                                [&units](ConductivityShown u) { units.setConductivity(u); });
}

} // namespace butte::app
