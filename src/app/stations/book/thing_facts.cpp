#include "stations/book/thing_facts.h"

#include "cautions.h"
#include "deed_words.h"
#include "document/book_desk.h"
#include "edits/record_edits.h"
#include "fields/number_field.h"
#include "formula_document.h"
#include "language.h"
#include "paint/flow_row.h"
#include "paint/hatch.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QDate>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QRegularExpression>
#include <QToolButton>
#include <QVBoxLayout>

namespace butte::app {

using book::Kind;
using exchange::Amount;
namespace {

QIcon swatch(const ProductLook& look) {
  QPixmap picture(22, 22);
  QPainter painter(&picture);
  fillAs(painter, picture.rect(), look);
  return picture;
}

QHBoxLayout* rowOf(const QString& label) {
  auto* row = new QHBoxLayout;
  auto* words = new PlainLabel(label);
  words->setProperty("soft", true);
  words->setFixedWidth(70);
  row->addWidget(words);
  return row;
}

/// "h272, H318" to ["H272", "H318"]
std::vector<std::string> codesIn(const QString& text) {
  std::vector<std::string> out;
  for (const auto& code : text.toUpper().split(QRegularExpression("[^A-Z0-9]+"), Qt::SkipEmptyParts))
    out.push_back(code.toStdString());
  return out;
}

} // namespace

ThingFacts::ThingFacts(BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_edits(std::make_unique<ThingEdits>(desk)),
      m_column(new QVBoxLayout(this)) {
  m_column->setContentsMargins(0, 0, 0, 0);
}

ThingFacts::~ThingFacts() = default;

void ThingFacts::show(const book::Record& record) {
  if (m_setting || !m_edits->take(record)) return;
  build();
}

void ThingFacts::build() {
  delete m_content;
  m_content = new QWidget;
  m_column->addWidget(m_content);
  m_rows = new QVBoxLayout(m_content);
  m_rows->setContentsMargins(0, 0, 0, 0);
  m_rows->setSpacing(4);
  const auto kind = m_edits->ref().kind;
  if (kind == Kind::Target) {
    addText(tr("crop"), "crop", "lettuce");
    addText(tr("stage"), "stage", "fruiting");
    addText(tr("season"), "season", "winter");
    addText(tr("from week"), "from_week", "4");
  }
  if (kind == Kind::Vessel) {
    addText(tr("name"), "name", "");
    addVolume();
  }
  if (kind == Kind::Product) {
    addBag();
    addHazards();
    addLook();
  }
  if (kind == Kind::Water) {
    for (std::size_t i = 0; i < m_edits->reportCount(); ++i)
      addReport(i);
    // Usual intervals: common practice.
    addUpkeep(QT_TRANSLATE_NOOP("butte", "sediment filter"), "6");
    addUpkeep(QT_TRANSLATE_NOOP("butte", "carbon filter"), "6");
    addUpkeep(QT_TRANSLATE_NOOP("butte", "membrane"), "18");
  }
  if (kind == Kind::PaperLayout) {
    addText(tr("name"), "name", "");
    addSaid();
  }
  const bool notes = kind == Kind::Target || kind == Kind::Product || kind == Kind::Water ||
                     kind == Kind::StockPlan || kind == Kind::Vessel || kind == Kind::PaperLayout;
  if (notes) addText(tr("note"), "note", "");
  m_content->setEnabled(!m_desk.isReadOnly());
}

void ThingFacts::addText(const QString& label, const std::string& key, const QString& hint) {
  auto* row = rowOf(label);
  auto* field = new QLineEdit(qtext(m_edits->fact(key)));
  field->setObjectName("fact_" + qtext(key));
  field->setAccessibleName(label);
  if (!hint.isEmpty()) field->setPlaceholderText(tr("such as %1").arg(hint));
  connect(field, &QLineEdit::textEdited, this,
          [this, key](const QString& typed) { keep([&] { return m_edits->setFact(key, typed); }); });
  row->addWidget(field, 1);
  m_rows->addLayout(row);
}

void ThingFacts::addAmount(const Measure& measure, const Amount& known,
                           const std::function<book::Trouble(const Amount&)>& keepIt) {
  auto* row = rowOf(measure.label);
  auto* size = new NumberField({measure.label, measure.units.front(), measure.least, measure.most, true});
  size->setObjectName("fact_" + measure.id);
  size->setFixedWidth(82);
  auto* unit = new QComboBox;
  unit->setObjectName(QString("fact_%1Unit").arg(measure.id));
  for (const auto& key : measure.units)
    unit->addItem(qtext(words::unitName(key.toStdString())), key);
  size->show(qtext(known.digits));
  if (!known.unit.empty()) unit->setCurrentIndex(std::max(0, unit->findData(qtext(known.unit))));
  const auto keepSize = [this, unit, keepIt](const QString& digits) {
    keep([&] { return keepIt({digits.toStdString(), unit->currentData().toString().toStdString()}); });
  };
  size->asked = [unit] { return AskedUnit{unit->currentData().toString().toStdString(), {}}; };
  size->onTyped = keepSize;
  size->onMessage = [this](const QString& words) { emit message(words); };
  connect(unit, &QComboBox::activated, this, [size, keepSize] {
    if (!size->digits().isEmpty() && !size->isWrong()) keepSize(size->digits());
  });
  row->addWidget(size);
  row->addWidget(unit);
  row->addStretch();
  m_rows->addLayout(row);
}

/// What was answered about a paper's layout, line by line.
void ThingFacts::addSaid() {
  auto* said = new WrappedLabel(m_edits->layoutSaid().join('\n'));
  said->setObjectName("layoutSaid");
  m_rows->addWidget(said);
}

void ThingFacts::addBag() {
  addAmount({tr("bag"), "bag", {"kg", "g", "lb", "oz"}, 0.001, 5000}, m_edits->bag(),
            [this](const Amount& typed) { return m_edits->setBag(typed); });
}

void ThingFacts::addVolume() {
  addAmount({tr("holds"), "volume", {"L", "gal_us", "gal_imp"}, 0.001, 1e8}, m_edits->volume(),
            [this](const Amount& typed) { return m_edits->setVolume(typed); });
}

void ThingFacts::addReport(std::size_t index) {
  auto* row = rowOf(index == 0 ? tr("reports") : QString());
  auto* date = new QLineEdit(qtext(m_edits->reportDate(index)));
  date->setObjectName(QString("reportDate%1").arg(index));
  date->setAccessibleName(tr("date of the report"));
  date->setFixedWidth(96);
  connect(date, &QLineEdit::textEdited, this, [this, index](const QString& typed) {
    if (QDate::fromString(typed, Qt::ISODate).isValid())
      keep([&] { return m_edits->setReportDate(index, typed); });
    else
      emit message(tr("A date reads 2026-03-02."));
  });
  auto* laboratory = new QLineEdit(qtext(m_edits->laboratory(index)));
  laboratory->setObjectName(QString("reportLaboratory%1").arg(index));
  laboratory->setAccessibleName(tr("laboratory"));
  laboratory->setPlaceholderText(tr("laboratory"));
  connect(laboratory, &QLineEdit::textEdited, this, [this, index](const QString& typed) {
    keep([&] { return m_edits->setLaboratory(index, typed); });
  });
  row->addWidget(date);
  row->addWidget(laboratory, 1);
  m_rows->addLayout(row);
}

void ThingFacts::addUpkeep(const std::string& what, const QString& usualMonths) {
  auto* row = new FlowRow;
  auto* part = new PlainLabel(app::tr(what.c_str()).section(' ', 0, 0));
  part->setProperty("soft", true);
  part->setFixedWidth(70);
  const auto known = m_edits->upkeep(what);
  const auto id = qtext(what).section(' ', 0, 0);
  auto* every = new NumberField({tr("%1, every").arg(app::tr(what.c_str())), tr("months"), 0.1, 240, true});
  every->setObjectName("upkeepMonths_" + id);
  every->setFixedWidth(48);
  every->setPlaceholderText(usualMonths);
  every->show(qtext(known.everyMonths));
  every->onTyped = [this, what](const QString& digits) {
    auto now = m_edits->upkeep(what);
    now.everyMonths = digits.toStdString();
    keep([&] { return m_edits->setUpkeep(what, now); });
  };
  every->onMessage = [this](const QString& words) { emit message(words); };
  auto* done = new QLineEdit(qtext(known.last));
  done->setObjectName("upkeepLast_" + id);
  done->setAccessibleName(tr("%1, last changed on").arg(app::tr(what.c_str())));
  done->setPlaceholderText("2026-03-02");
  connect(done, &QLineEdit::textEdited, this, [this, what](const QString& typed) {
    static const QRegularExpression whole("^[0-9]{4}-[0-9]{2}-[0-9]{2}$");
    if (!typed.isEmpty() && !whole.match(typed).hasMatch()) return;
    auto now = m_edits->upkeep(what);
    now.last = typed.toStdString();
    keep([&] { return m_edits->setUpkeep(what, now); });
  });
  done->setMinimumWidth(104);
  row->addTogether({part, new PlainLabel(tr("every")), every, new PlainLabel(tr("months"))});
  row->addTogether({new PlainLabel(tr("last")), done});
  m_rows->addLayout(row);
}

void ThingFacts::addHazards() {
  QStringList codes;
  for (const auto& code : m_edits->hazards())
    codes << qtext(code);
  auto* row = rowOf(tr("hazards"));
  auto* field = new QLineEdit(codes.join(' '));
  field->setObjectName("fact_hazards");
  field->setAccessibleName(tr("hazard codes on the label"));
  field->setPlaceholderText(tr("H-codes, such as H272"));
  row->addWidget(field, 1);
  m_rows->addLayout(row);
  auto* meaning = new WrappedLabel;
  meaning->setObjectName("hazardWords");
  meaning->setFont(faceOf(12));
  const auto explain = [this, meaning] {
    QStringList lines;
    for (const auto& caution : words::cautionsFor({{"", m_edits->hazards()}}))
      lines << "⚠ " + qtext(caution.text);
    meaning->setText(lines.join('\n'));
    meaning->setVisible(!lines.isEmpty());
  };
  explain();
  connect(field, &QLineEdit::textEdited, this, [this, explain](const QString& typed) {
    static const QRegularExpression whole("^H[0-9]{3}[A-Z]*$");
    const auto read = codesIn(typed);
    for (const auto& code : read) {
      if (!whole.match(qtext(code)).hasMatch())
        return emit message(
            tr("“%1” is no hazard code yet; they read H272, H318 and so on.").arg(qtext(code)));
    }
    keep([&] { return m_edits->setHazards(read); });
    explain();
  });
  m_rows->addWidget(meaning);
}

void ThingFacts::addLook() {
  static const std::vector<const char*> tones{"#5b7fa6", "#c26a45", "#cf9d3f", "#8a6284",
                                              "#7d9455", "#3f8579", "#9b4a3c", "#6f7a80"};
  auto* row = rowOf(tr("colour"));
  for (const auto* tone : tones) {
    auto* button = new QToolButton;
    button->setObjectName(QString("tone_") + (tone + 1));
    button->setIcon(swatch({QColor(tone), 0}));
    button->setCheckable(true);
    button->setFixedSize(30, 28);
    button->setStyleSheet("padding: 2px");
    button->setAutoExclusive(true);
    button->setChecked(m_edits->colour() == tone);
    button->setToolTip(tr("colour in every picture"));
    button->setAccessibleName(tr("colour %1").arg(tone));
    connect(button, &QToolButton::clicked, this,
            [this, tone] { keep([&] { return m_edits->setColour(tone); }); });
    row->addWidget(button);
  }
  row->addStretch();
  m_rows->addLayout(row);
  row = rowOf(tr("hatch"));
  auto* hatch = new QComboBox;
  hatch->setObjectName("fact_hatch");
  hatch->setAccessibleName(tr("hatch in every picture"));
  int number = 0;
  for (const auto& name : exchange::hatchNames())
    hatch->addItem(swatch({QColor("#6f7a80"), number++}), qtext(words::text(name)), qtext(name));
  if (!m_edits->hatch().empty()) hatch->setCurrentIndex(hatch->findData(qtext(m_edits->hatch())));
  connect(hatch, &QComboBox::activated, this, [this, hatch] {
    keep([&] { return m_edits->setHatch(hatch->currentData().toString().toStdString()); });
  });
  row->addWidget(hatch, 1);
  m_rows->addLayout(row);
}

void ThingFacts::keep(const std::function<book::Trouble()>& edit) {
  m_setting = true;
  const auto trouble = edit();
  m_setting = false;
  if (trouble) emit message(qtext(words::problemText(*trouble)));
}

} // namespace butte::app
