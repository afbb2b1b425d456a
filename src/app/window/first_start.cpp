#include "window/first_start.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "edits/first_formula.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "product/catalogue.h"
#include "services/units_shown.h"
#include "target/target.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRadioButton>
#include <QVBoxLayout>
#include <set>

namespace butte::app {

namespace {

// What most shelves hold: enough for every element (common practice).
const std::set<std::string>& usualShelf() {
  static const std::set<std::string> ids{"can_double", "kno3",    "mkp",   "epsom",   "sop",      "fedtpa11",
                                         "mnso4_1",    "znso4_7", "h3bo3", "cuso4_5", "namoo4_2", "hno3_60"};
  return ids;
}

QLabel* heading(int number, const QString& text) {
  auto* label = new PlainLabel(QString("%1   %2").arg(number).arg(text));
  label->setFont(faceOf(15, true));
  return label;
}
} // namespace

FirstStart::FirstStart(BookDesk& desk, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_units(units), m_mass(new QComboBox), m_volume(new QComboBox),
      m_salts(new QComboBox), m_crop(new QComboBox), m_water(new QButtonGroup(this)),
      m_ec(new NumberField({tr("EC of the water"), "mS/cm", 0, 20, true})),
      m_alkalinity(new NumberField({tr("alkalinity of the water"), tr("mg/L as CaCO₃"), 0, 2000, true})),
      m_batch(new NumberField({tr("batch"), "", 0.001, 1e6})), m_who(new QLineEdit) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(8, 4, 8, 4);
  column->setSpacing(8);
  auto* title =
      new PlainLabel(tr("Welcome. Four answers make your first formula; all of them can be changed later."));
  title->setFont(faceOf(18, true));
  title->setWordWrap(true);
  column->addWidget(title);
  column->addWidget(heading(1, tr("How you measure")));
  column->addWidget(makeUnits());
  column->addWidget(heading(2, tr("What you grow")));
  m_crop->setObjectName("firstCrop");
  m_crop->setMaxVisibleItems(24);
  for (const auto& t : core::targetCatalogue())
    m_crop->addItem(QString("%1 · %2 · %3").arg(qtext(t.crop), qtext(t.stage), qtext(t.name)), qtext(t.id));
  column->addWidget(m_crop);
  column->addWidget(heading(3, tr("Your water")));
  column->addWidget(makeWater());
  column->addWidget(heading(4, tr("What stands on the shelf")));
  column->addWidget(makeShelf());
  auto* row = new QHBoxLayout;
  auto* make = new QPushButton(tr("Make my first formula"));
  make->setObjectName("firstMake");
  make->setProperty("primary", true);
  make->setFont(faceOf(15, true));
  auto* skip = new QPushButton(tr("Skip: an empty formula"));
  skip->setObjectName("firstSkip");
  auto* sample = new QPushButton(tr("Look at the sample farm first"));
  sample->setObjectName("firstSample");
  for (auto* button : {make, skip, sample})
    row->addWidget(button);
  row->addStretch();
  column->addLayout(row);
  auto* note =
      new PlainLabel(tr("Your book is kept on this computer as one file; every edit is kept at once. The "
                        "sample farm is made up and lies in a book of its own."));
  note->setProperty("soft", true);
  note->setWordWrap(true);
  column->addWidget(note);
  column->addStretch();
  connect(make, &QPushButton::clicked, this, &FirstStart::make);
  connect(skip, &QPushButton::clicked, this, &FirstStart::done);
  connect(sample, &QPushButton::clicked, this, [this] {
    if (const auto trouble = m_desk.openSample()) return emit message(qtext(words::problemText(*trouble)));
    emit done();
  });
}

QWidget* FirstStart::makeUnits() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  m_mass->addItems({tr("grams and kilograms"), "ounces", "pounds"});
  m_volume->addItems({"litres", tr("US gallons"), tr("imperial gallons")});
  m_salts->addItems({tr("EC, mS/cm"), tr("ppm, scale 500"), tr("ppm, scale 640"), tr("ppm, scale 700")});
  m_mass->setObjectName("firstMass");
  m_volume->setObjectName("firstVolume");
  m_salts->setObjectName("firstSalts");
  connect(m_mass, &QComboBox::activated, this, [this](int i) { m_units.setMass(static_cast<MassShown>(i)); });
  connect(m_volume, &QComboBox::activated, this,
          [this](int i) { m_units.setVolume(static_cast<VolumeShown>(i)); });
  connect(m_salts, &QComboBox::activated, this,
          [this](int i) { m_units.setConductivity(static_cast<ConductivityShown>(i)); });
  m_batch->setObjectName("firstBatch");
  m_batch->show("1000");
  m_batch->asked = [this] { return AskedUnit{m_units.volumeUnit().toStdString(), {}}; };
  m_batch->setFixedWidth(90);
  m_who->setObjectName("firstWho");
  m_who->setFixedWidth(60);
  auto* unit = new PlainLabel;
  const auto showUnit = [this, unit] {
    unit->setText(tr("%1 of feed at a time    Your initials").arg(m_units.volumeUnitName()));
  };
  connect(&m_units, &UnitsShown::changed, unit, showUnit);
  showUnit();
  for (auto* part : std::initializer_list<QWidget*>{m_mass, m_volume, m_salts, m_batch, unit, m_who})
    row->addWidget(part);
  row->addStretch();
  return box;
}

QWidget* FirstStart::makeWater() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(3);
  const QString texts[] = {
      tr("Rain, RO or distilled: nearly pure"), tr("Tap or well, measured: EC"),
      tr("Not known yet: begin with pure water, mend it at the Water station when the report comes")};
  QHBoxLayout* rows[3];
  for (int i = 0; i < 3; ++i) {
    auto* button = new QRadioButton(texts[i]);
    button->setObjectName(QString("firstWater%1").arg(i));
    m_water->addButton(button, i);
    rows[i] = new QHBoxLayout;
    rows[i]->addWidget(button);
    column->addLayout(rows[i]);
  }
  m_water->button(static_cast<int>(WaterKnown::Pure))->setChecked(true);
  m_ec->setObjectName("firstEc");
  m_alkalinity->setObjectName("firstAlkalinity");
  for (auto* field : {m_ec, m_alkalinity}) {
    field->setFixedWidth(70);
    field->onTyped = [this](const QString&) {
      m_water->button(static_cast<int>(WaterKnown::Metered))->setChecked(true);
    };
    field->onMessage = [this](const QString& words) { emit message(words); };
  }
  rows[static_cast<int>(WaterKnown::Metered)]->addWidget(m_ec);
  rows[static_cast<int>(WaterKnown::Metered)]->addWidget(new PlainLabel(tr("mS/cm   alkalinity")));
  rows[static_cast<int>(WaterKnown::Metered)]->addWidget(m_alkalinity);
  rows[static_cast<int>(WaterKnown::Metered)]->addWidget(new PlainLabel(tr("mg/L as CaCO₃")));
  for (auto* row : rows)
    row->addStretch();
  return box;
}

QWidget* FirstStart::makeShelf() {
  auto* box = new QWidget;
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(2);
  constexpr int columns = 5;
  int index = 0;
  for (const auto& product : core::catalogue()) {
    auto* check = new QCheckBox(qtext(product.shortName));
    check->setObjectName("firstShelf_" + qtext(product.id));
    check->setToolTip(qtext(product.name + " — " + product.cautions));
    check->setChecked(usualShelf().contains(product.id));
    m_shelf.emplace_back(product.id, check);
    grid->addWidget(check, index / columns, index % columns);
    ++index;
  }
  return box;
}

void FirstStart::start() {
  m_mass->setCurrentIndex(static_cast<int>(m_units.mass()));
  m_volume->setCurrentIndex(static_cast<int>(m_units.volume()));
  m_salts->setCurrentIndex(static_cast<int>(m_units.conductivity()));
  m_who->setText(m_desk.initials());
  m_crop->setFocus();
}

FirstFormula FirstStart::answers() const {
  const auto decimal = [](const NumberField* field) { return field->digits().toStdString(); };
  FirstFormula out;
  out.target = core::findTarget(m_crop->currentData().toString().toStdString());
  out.waterKnown = static_cast<WaterKnown>(m_water->checkedId());
  out.conductivityMsPerCm = decimal(m_ec);
  out.alkalinityAsCaCO3 = decimal(m_alkalinity);
  for (const auto& [id, check] : m_shelf) {
    if (check->isChecked()) out.shelf.push_back(id);
  }
  out.batch = {decimal(m_batch), m_units.volumeUnit().toStdString()};
  return out;
}

void FirstStart::make() {
  if (m_batch->isWrong() || m_ec->isWrong() || m_alkalinity->isWrong())
    return emit message(tr("One of the numbers needs a look (red)."));
  if (!m_who->text().trimmed().isEmpty()) m_desk.setInitials(m_who->text().trimmed());
  if (const auto trouble = makeFirstFormula(m_desk, answers()))
    return emit message(qtext(words::problemLine(*trouble)));
  emit message(tr(
      "Your first formula. Drag nothing, type anywhere: everything answers at once. Ctrl+K finds the rest."));
  emit done();
}

} // namespace butte::app
