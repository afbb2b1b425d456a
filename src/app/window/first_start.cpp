#include "window/first_start.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "edits/first_formula.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "product/catalogue.h"
#include "services/units_shown.h"
#include "target/scale_target.h"
#include "target/target.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QCompleter>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRadioButton>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

namespace butte::app {

namespace {

// What most shelves hold: enough for every element (common practice).
const std::set<std::string>& usualShelf() {
  static const std::set<std::string> ids{"can_double", "kno3",    "mkp",   "epsom",   "sop",      "fedtpa11",
                                         "mnso4_1",    "znso4_7", "h3bo3", "cuso4_5", "namoo4_2", "hno3_60"};
  return ids;
}

/// What a hand would fill at first: a jug's worth, or a small barrel.
QString usualBatch(VolumeShown volume) {
  return volume == VolumeShown::Litres ? "20" : "5";
}

QLabel* heading(int number, const QString& text) {
  auto* label = new PlainLabel(QString("%1   %2").arg(number).arg(text));
  label->setFont(faceOf(15, true));
  return label;
}
} // namespace

FirstStart::FirstStart(BookDesk& desk, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_units(units), m_mass(new QComboBox), m_volume(new QComboBox),
      m_salts(new QComboBox), m_crop(new QComboBox), m_strength(new QComboBox),
      m_water(new QButtonGroup(this)), m_ec(new NumberField({tr("EC of the water"), "", 0, 14000, true})),
      m_ph(new NumberField({tr("pH of the water"), "", 0, 14, true})),
      m_alkalinity(new NumberField({tr("alkalinity of the water"), tr("mg/L as CaCO₃"), 0, 2000, true})),
      m_batch(new NumberField({tr("batch"), "", 0.001, 1e6})), m_ecUnit(new PlainLabel),
      m_strengthNote(new PlainLabel), m_batchIn(units.volume()), m_who(new QLineEdit) {
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
  column->addWidget(makeCrop());
  column->addWidget(heading(3, tr("Your water")));
  column->addWidget(makeWater());
  column->addWidget(heading(4, tr("What stands on the shelf")));
  column->addWidget(makeShelf());
  auto* row = new FlowRow;
  auto* make = new QPushButton(tr("Make my first formula"));
  make->setObjectName("firstMake");
  make->setProperty("primary", true);
  make->setFont(faceOf(15, true));
  auto* skip = new QPushButton(tr("Skip (Esc)"));
  skip->setObjectName("firstSkip");
  auto* sample = new QPushButton(tr("Look at the sample farm first"));
  sample->setObjectName("firstSample");
  for (auto* button : {make, skip, sample})
    row->addWidget(button);
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
  auto* row = new FlowRow(box);
  m_mass->addItems({tr("grams and kilograms"), tr("ounces"), tr("pounds")});
  m_volume->addItems({tr("litres"), tr("US gallons"), tr("imperial gallons")});
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
  m_batch->show(usualBatch(m_batchIn));
  m_batch->onTyped = [this](const QString&) { m_batchTyped = true; };
  m_batch->asked = [this] { return AskedUnit{m_units.volumeUnit().toStdString(), {}}; };
  m_batch->setFixedWidth(90);
  m_who->setObjectName("firstWho");
  m_who->setFixedWidth(60);
  auto* unit = new PlainLabel;
  const auto showUnit = [this, unit] {
    unit->setText(tr("%1 of feed at a time").arg(m_units.volumeUnitName()));
    showUnits();
  };
  connect(&m_units, &UnitsShown::changed, unit, showUnit);
  showUnit();
  for (auto* part : {m_mass, m_volume, m_salts})
    row->addWidget(part);
  row->addTogether({m_batch, unit});
  row->addTogether({new PlainLabel(tr("Your initials")), m_who});
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
  FlowRow* rows[3];
  for (int i = 0; i < 3; ++i) {
    auto* button = new QRadioButton(texts[i]);
    button->setObjectName(QString("firstWater%1").arg(i));
    m_water->addButton(button, i);
    rows[i] = new FlowRow(nullptr, 8);
    rows[i]->addWidget(button);
    column->addLayout(rows[i]);
  }
  m_water->button(static_cast<int>(WaterKnown::Pure))->setChecked(true);
  m_ec->setObjectName("firstEc");
  m_ec->asked = [this] { return AskedUnit{m_units.conductivityUnit().toStdString(), {}}; };
  m_ph->setObjectName("firstPh");
  m_alkalinity->setPlaceholderText(tr("guessed"));
  m_alkalinity->setToolTip(tr("Left empty it is guessed from the EC, and everything that follows from it is "
                              "marked as a guess"));
  m_alkalinity->setObjectName("firstAlkalinity");
  for (auto* field : {m_ec, m_ph, m_alkalinity}) {
    field->setFixedWidth(70);
    field->onTyped = [this](const QString&) {
      m_water->button(static_cast<int>(WaterKnown::Metered))->setChecked(true);
    };
    field->onMessage = [this](const QString& words) { emit message(words); };
  }
  auto* metered = rows[static_cast<int>(WaterKnown::Metered)];
  metered->addTogether({m_ec, m_ecUnit});
  metered->addTogether({new PlainLabel("pH"), m_ph});
  metered->addTogether({new PlainLabel(tr("alkalinity")), m_alkalinity, new PlainLabel(tr("mg/L as CaCO₃"))});
  return box;
}

QWidget* FirstStart::makeShelf() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box, 4);
  int widest = 0; // they stand in columns, as many as there is room for
  for (const auto& product : core::catalogue()) {
    auto* check = new QCheckBox(qtext(product.shortName));
    check->setObjectName("firstShelf_" + qtext(product.id));
    check->setToolTip(qtext(product.name + " — " + product.cautions));
    check->setChecked(usualShelf().contains(product.id));
    m_shelf.emplace_back(product.id, check);
    widest = std::max(widest, check->sizeHint().width());
    row->addWidget(check);
  }
  for (const auto& [id, check] : m_shelf)
    check->setFixedWidth(widest);
  return box;
}

/// Sorted, and found by typing any part of its name.
QWidget* FirstStart::makeCrop() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
  m_crop->setObjectName("firstCrop");
  m_crop->setAccessibleName(tr("what you grow"));
  m_crop->setMaxVisibleItems(24);
  std::vector<std::pair<QString, QString>> all;
  for (const auto& t : core::targetCatalogue())
    all.emplace_back(targetTitle(t), qtext(t.id));
  std::sort(all.begin(), all.end(),
            [](const auto& a, const auto& b) { return QString::localeAwareCompare(a.first, b.first) < 0; });
  for (const auto& [text, id] : all)
    m_crop->addItem(text, id);
  m_crop->setEditable(true);
  m_crop->setInsertPolicy(QComboBox::NoInsert);
  m_crop->completer()->setFilterMode(Qt::MatchContains);
  m_crop->completer()->setCompletionMode(QCompleter::PopupCompletion);
  m_crop->completer()->setCaseSensitivity(Qt::CaseInsensitive);
  // What most begin with.
  m_crop->setCurrentIndex(std::max(0, m_crop->findText(tr("lettuce"), Qt::MatchStartsWith)));
  connect(m_crop, &QComboBox::currentIndexChanged, this, &FirstStart::showStrengths);
  m_strength->setObjectName("firstStrength");
  m_strength->setAccessibleName(tr("how strong"));
  for (auto* part : std::initializer_list<QWidget*>{m_crop, m_strength, m_strengthNote})
    row->addWidget(part);
  showStrengths();
  return box;
}

/// What is chosen, by its whole text or by the one crop that holds what was typed.
const core::CatalogueTarget* FirstStart::target() const {
  const auto text = m_crop->currentText().trimmed();
  int found = m_crop->findText(text, Qt::MatchFixedString);
  if (found < 0 && !text.isEmpty()) found = m_crop->findText(text, Qt::MatchContains);
  return found < 0 ? nullptr : core::findTarget(m_crop->itemData(found).toString().toStdString());
}

/// The crop's usual strengths; the target's own where it lies within them, else the first of them.
void FirstStart::showStrengths() {
  const auto* chosen = target();
  m_strength->clear();
  m_strengthNote->clear();
  if (!chosen) return;
  const auto shown = [this](double ec) {
    return m_units.text(core::Conductivity::fromMilliSiemensPerCm(ec));
  };
  const auto own = core::conductivityOfTarget(chosen->rows, 0);
  m_strength->addItem(own ? tr("as the target is: %1").arg(shown(*own)) : tr("as the target is"), QVariant());
  bool within = false;
  for (const auto& rule : core::seasonRules(chosen->crop)) {
    m_strength->addItem(tr("%1: %2").arg(qtext(rule.name), shown(rule.milliSiemensPerCm)),
                        rule.milliSiemensPerCm);
    within = within || (own && *own >= *rule.range->ecLow && *own <= *rule.range->ecHigh);
  }
  const bool other = own && !within && m_strength->count() > 1;
  m_strength->setCurrentIndex(other ? 1 : 0);
  if (other) m_strengthNote->setText(tr("its own %1 is unusual").arg(shown(*own)));
}

void FirstStart::showUnits() {
  m_ecUnit->setText(m_units.conductivityUnitName());
  if (m_batchIn != m_units.volume() && !m_batchTyped) m_batch->show(usualBatch(m_units.volume()));
  m_batchIn = m_units.volume();
  m_mass->setCurrentIndex(static_cast<int>(m_units.mass()));
  m_volume->setCurrentIndex(static_cast<int>(m_units.volume()));
  m_salts->setCurrentIndex(static_cast<int>(m_units.conductivity()));
  const int strength = m_strength->currentIndex();
  showStrengths();
  if (strength >= 0 && strength < m_strength->count()) m_strength->setCurrentIndex(strength);
}

/// Escape is the way back, as everywhere.
void FirstStart::keyPressEvent(QKeyEvent* event) {
  if (event->key() != Qt::Key_Escape) return QWidget::keyPressEvent(event);
  emit done();
}

void FirstStart::start() {
  showUnits();
  m_who->setText(m_desk.initials());
  m_crop->setFocus();
}

FirstFormula FirstStart::answers() const {
  const auto decimal = [](const NumberField* field) { return field->digits().toStdString(); };
  FirstFormula out;
  out.target = target();
  if (const auto strength = m_strength->currentData(); strength.isValid())
    out.strengthMsPerCm = strength.toDouble();
  out.waterKnown = static_cast<WaterKnown>(m_water->checkedId());
  out.conductivity = {decimal(m_ec), m_units.conductivityUnit().toStdString()};
  out.ph = decimal(m_ph);
  out.alkalinityAsCaCO3 = decimal(m_alkalinity);
  for (const auto& [id, check] : m_shelf) {
    if (check->isChecked()) out.shelf.push_back(id);
  }
  out.batch = {decimal(m_batch), m_units.volumeUnit().toStdString()};
  return out;
}

void FirstStart::make() {
  if (!target()) {
    m_crop->setFocus();
    return emit message(tr("No crop or target is called “%1”.").arg(m_crop->currentText().trimmed()));
  }
  if (m_batch->isWrong() || m_ec->isWrong() || m_ph->isWrong() || m_alkalinity->isWrong())
    return emit message(tr("One of the numbers is not right yet (red)."));
  if (!m_who->text().trimmed().isEmpty()) m_desk.setInitials(m_who->text().trimmed());
  if (const auto trouble = makeFirstFormula(m_desk, answers()))
    return emit message(qtext(words::problemLine(*trouble)));
  emit message(tr(
      "Your first formula. Type anywhere: everything is computed anew as you type. Ctrl+K finds the rest."));
  emit done();
}

} // namespace butte::app
