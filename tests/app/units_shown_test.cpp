// Every unit that figures can be shown in, against GNU units' factors: a pound is 453.59237 g, an
// ounce 28.349523 g, a US gallon 3.7854118 L, an imperial one 4.54609 L.
#include "services/units_shown.h"

#include <QTemporaryDir>
#include <gmock/gmock.h>

using ::testing::EndsWith;

namespace butte::app {

class UnitsShownTest : public ::testing::Test {
protected:
  QTemporaryDir folder;
  QSettings settings{folder.filePath("settings.ini"), QSettings::IniFormat};
  UnitsShown units{settings};
};

TEST_F(UnitsShownTest, Masses) {
  const auto mass = core::Mass::fromGrams(1000);
  const struct {
    MassShown shown;
    const char* unit;
    double value;
  } ways[] = {{MassShown::Metric, "g", 1000},
              {MassShown::Ounces, "oz", 35.27396},
              {MassShown::Pounds, "lb", 2.204623}};
  for (const auto& [shown, unit, value] : ways) {
    units.setMass(shown);
    EXPECT_EQ(units.massUnit().toStdString(), unit);
    EXPECT_NEAR(units.massIn(mass), value, 1e-5);
    EXPECT_EQ(UnitsShown(settings).mass(), shown) << "remembered";
    EXPECT_FALSE(units.text(mass).isEmpty());
  }
  units.setMass(MassShown::Metric);
  EXPECT_EQ(units.text(core::Mass::fromGrams(515)), "515 g");
  EXPECT_EQ(units.text(core::Mass::fromGrams(4200)), "4.200 kg");
}

TEST_F(UnitsShownTest, Volumes) {
  const auto volume = core::Volume::fromLitres(100);
  const struct {
    VolumeShown shown;
    const char *unit, *name;
    double value;
  } ways[] = {{VolumeShown::Litres, "L", "L", 100},
              {VolumeShown::UsGallons, "gal_us", "US gal", 26.41721},
              {VolumeShown::ImperialGallons, "gal_imp", "imp gal", 21.99692}};
  for (const auto& [shown, unit, name, value] : ways) {
    units.setVolume(shown);
    EXPECT_EQ(units.volumeUnit().toStdString(), unit);
    EXPECT_EQ(units.volumeUnitName().toStdString(), name);
    EXPECT_NEAR(units.volumeIn(volume), value, 1e-4);
    EXPECT_THAT(units.text(volume).toStdString(), EndsWith(name));
    EXPECT_FALSE(units.stockText(core::Volume::fromMillilitres(505)).isEmpty());
    EXPECT_FALSE(units.dose(10).isEmpty());
  }
  EXPECT_EQ(units.dose(10), "45.5 mL per imp gal");
  units.setVolume(VolumeShown::UsGallons);
  EXPECT_EQ(units.dose(10), "37.9 mL per US gal");
}

// GNU units: 5 mL are 1.0144207 US teaspoons, 0.16907011 fl oz; a cup is 236.58824 mL.
TEST_F(UnitsShownTest, SmallLiquids) {
  const auto dose = core::Volume::fromMillilitres(5);
  EXPECT_EQ(units.liquidText(dose), "5.00 mL");
  units.setLiquid(LiquidShown::FluidOunces);
  EXPECT_EQ(units.liquidText(dose), "0.169 fl oz");
  units.setLiquid(LiquidShown::Spoons);
  EXPECT_EQ(units.liquidText(dose), "1.01 tsp");
  EXPECT_EQ(units.liquidText(core::Volume::fromMillilitres(0.6)), "12 drops") << "20 a mL";
  EXPECT_EQ(units.liquidText(core::Volume::fromMillilitres(20)), "1.35 tbsp");
  EXPECT_EQ(units.liquidText(core::Volume::fromMillilitres(236.59)), "1.00 cups");
  units.setDropMillilitres(0.03);
  EXPECT_EQ(units.liquidText(core::Volume::fromMillilitres(0.6)), "20 drops");
  EXPECT_EQ(UnitsShown(settings).measures().dropMillilitres, 0.03) << "remembered";
}

// GNU units: 20 degC are 68 degF; 1 g/L is 0.13352647 oz or 0.0083454045 lb a US gallon; 1.25 kg/L are
// 10.431756 lb a US gallon.
TEST_F(UnitsShownTest, TemperaturesAndWhatAVolumeHolds) {
  const auto warm = core::Temperature::fromCelsius(20);
  const auto held = core::Concentration::fromGramsPerLitre(316);
  EXPECT_EQ(units.text(warm), "20 °C");
  EXPECT_EQ(units.text(core::Temperature::fromCelsius(7.5)), "7.5 °C");
  EXPECT_EQ(units.text(held), "316 g/L");
  EXPECT_EQ(units.densityText(1.25), "1.250 kg/L");
  units.setAll(UnitsOf::UnitedStates);
  EXPECT_EQ(units.text(warm), "68 °F");
  EXPECT_EQ(units.text(held), "2.64 lb/US gal");
  EXPECT_EQ(units.densityText(1.25), "10.43 lb/US gal");
  units.setMass(MassShown::Ounces);
  EXPECT_EQ(units.text(held), "42.2 oz/US gal");
  EXPECT_EQ(units.bulkUnit(), "lb") << "nobody buys by the ounce";
}

TEST_F(UnitsShownTest, PaperFollowsTheGallonUntilItIsChosen) {
  EXPECT_EQ(units.pageSize().id(), QPageSize::A4);
  units.setVolume(VolumeShown::UsGallons);
  EXPECT_EQ(units.pageSize().id(), QPageSize::Letter);
  units.setPaper(PaperShown::A4);
  EXPECT_EQ(units.pageSize().id(), QPageSize::A4);
  EXPECT_EQ(UnitsShown(settings).paper(), PaperShown::A4);
}

TEST_F(UnitsShownTest, Conductivities) {
  const auto reading = core::Conductivity::fromMilliSiemensPerCm(2);
  const struct {
    ConductivityShown shown;
    const char* unit;
    double value;
  } ways[] = {{ConductivityShown::MilliSiemens, "mS/cm", 2},
              {ConductivityShown::Ppm500, "ppm500", 1000},
              {ConductivityShown::Ppm640, "ppm640", 1280},
              {ConductivityShown::Ppm700, "ppm700", 1400}};
  for (const auto& [shown, unit, value] : ways) {
    units.setConductivity(shown);
    EXPECT_EQ(units.conductivityUnit().toStdString(), unit);
    EXPECT_NEAR(units.conductivityIn(reading), value, 1e-9);
    EXPECT_EQ(UnitsShown(settings).conductivity(), shown);
  }
  units.setConductivity(ConductivityShown::Ppm640);
  EXPECT_EQ(units.text(reading), "1280 ppm (640)") << "a figure on a scale names the scale";
  EXPECT_EQ(units.conductivityUnitName(), "ppm (640)");
}

TEST_F(UnitsShownTest, AChangeIsSaidOnce) {
  int said = 0;
  QObject::connect(&units, &UnitsShown::changed, [&] { ++said; });
  units.setMass(MassShown::Pounds);
  units.setVolume(VolumeShown::UsGallons);
  units.setConductivity(ConductivityShown::Ppm700);
  EXPECT_EQ(said, 3);
}

} // namespace butte::app
