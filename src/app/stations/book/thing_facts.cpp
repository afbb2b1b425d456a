#include "stations/book/thing_facts.h"

#include "cautions.h"
#include "document/book_desk.h"
#include "document/record_edit.h"
#include "fields/number_field.h"
#include "formula_document.h"
#include "paint/hatch.h"
#include "paint/theme.h"
#include "stations/book/book_words.h"
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
using exchange::Json;

namespace {

QIcon swatch(const ProductLook& look) {
  QPixmap picture(22, 22);
  QPainter painter(&picture);
  fillAs(painter, picture.rect(), look);
  return picture;
}

QHBoxLayout* rowOf(const QString& label) {
  auto* row = new QHBoxLayout;
  auto* words = new QLabel(label);
  words->setProperty("soft", true);
  words->setFixedWidth(70);
  row->addWidget(words);
  return row;
}

/// "h272, H318" to ["H272", "H318"]
Json codesIn(const QString& text) {
  Json out = Json::array();
  for (const auto& code : text.toUpper().split(QRegularExpression("[^A-Z0-9]+"), Qt::SkipEmptyParts))
    out.push_back(code.toStdString());
  return out.empty() ? Json() : out;
}

} // namespace

ThingFacts::ThingFacts(BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_column(new QVBoxLayout(this)) {
  m_column->setContentsMargins(0, 0, 0, 0);
}

void ThingFacts::show(const book::Record& record) {
  if (m_setting || (m_ref == record.ref && m_body == record.body)) return;
  m_ref = record.ref;
  m_body = record.body;
  build();
}

QString ThingFacts::text(const std::string& pointer) const {
  const Json::json_pointer place(pointer);
  return m_body.contains(place) && m_body[place].is_string() ? qtext(m_body[place].get<std::string>())
                                                             : QString();
}

void ThingFacts::build() {
  delete m_content;
  m_content = new QWidget;
  m_column->addWidget(m_content);
  m_rows = new QVBoxLayout(m_content);
  m_rows->setContentsMargins(0, 0, 0, 0);
  m_rows->setSpacing(4);
  if (m_ref.kind == Kind::Target) {
    addText("crop", "crop", "lettuce");
    addText("stage", "stage", "fruiting");
    addText("season", "season", "winter");
    addText("from week", "from_week", "4");
  }
  if (m_ref.kind == Kind::Product) {
    addBag();
    addHazards();
    addLook();
  }
  if (m_ref.kind == Kind::Water) {
    for (std::size_t i = 0; m_body.contains("reports") && i < m_body["reports"].size(); ++i)
      addReport(i);
    // Usual intervals: common practice.
    addUpkeep("sediment filter", "6");
    addUpkeep("carbon filter", "6");
    addUpkeep("membrane", "18");
  }
  const bool notes = m_ref.kind == Kind::Target || m_ref.kind == Kind::Product || m_ref.kind == Kind::Water ||
                     m_ref.kind == Kind::StockPlan;
  if (notes) addText("note", "note", "");
  m_content->setEnabled(!m_desk.isReadOnly());
}

void ThingFacts::addText(const QString& label, const std::string& key, const QString& hint) {
  auto* row = rowOf(label);
  auto* field = new QLineEdit(text("/" + key));
  field->setObjectName("fact_" + qtext(key));
  field->setAccessibleName(label);
  if (!hint.isEmpty()) field->setPlaceholderText("such as " + hint);
  connect(field, &QLineEdit::textEdited, this, [this, key, label](const QString& typed) {
    set(label + ": " + typed, key, typed.isEmpty() ? Json() : Json(typed.toStdString()));
  });
  row->addWidget(field, 1);
  m_rows->addLayout(row);
}

void ThingFacts::addBag() {
  auto* row = rowOf("bag");
  auto* size = new NumberField({"bag", "kg", 0.001, 5000, true});
  size->setObjectName("fact_bag");
  size->setFixedWidth(82);
  auto* unit = new QComboBox;
  unit->setObjectName("fact_bagUnit");
  unit->addItems({"kg", "g", "lb", "oz"});
  size->show(text("/bag/amount"));
  if (!text("/bag/unit").isEmpty()) unit->setCurrentText(text("/bag/unit"));
  const auto keep = [this, size, unit](const QString& digits) {
    set("bag: " + digits + " " + unit->currentText(), "bag",
        digits.isEmpty() ? Json()
                         : exchange::amountJson(digits.toStdString(), unit->currentText().toStdString()));
  };
  size->onTyped = keep;
  size->onMessage = [this](const QString& words) { emit message(words); };
  connect(unit, &QComboBox::activated, this, [this, keep] {
    if (!text("/bag/amount").isEmpty()) keep(text("/bag/amount"));
  });
  row->addWidget(size);
  row->addWidget(unit);
  row->addStretch();
  m_rows->addLayout(row);
}

void ThingFacts::addReport(std::size_t index) {
  const auto place = "/reports/" + std::to_string(index);
  auto* row = rowOf(index == 0 ? "reports" : "");
  auto* date = new QLineEdit(text(place + "/date").left(10));
  date->setObjectName(QString("reportDate%1").arg(index));
  date->setAccessibleName("date of the report");
  date->setFixedWidth(96);
  connect(date, &QLineEdit::textEdited, this, [this, place](const QString& typed) {
    if (QDate::fromString(typed, Qt::ISODate).isValid())
      set("report dated " + typed, place.substr(1) + "/date", typed.toStdString());
    else
      emit message("A date reads 2026-03-02.");
  });
  auto* laboratory = new QLineEdit(text(place + "/laboratory"));
  laboratory->setObjectName(QString("reportLaboratory%1").arg(index));
  laboratory->setAccessibleName("laboratory");
  laboratory->setPlaceholderText("laboratory");
  connect(laboratory, &QLineEdit::textEdited, this, [this, place](const QString& typed) {
    set("laboratory " + typed, place.substr(1) + "/laboratory", typed.toStdString());
  });
  row->addWidget(date);
  row->addWidget(laboratory, 1);
  m_rows->addLayout(row);
}

void ThingFacts::addUpkeep(const std::string& what, const QString& usualMonths) {
  auto* row = rowOf(qtext(what).section(' ', 0, 0));
  QString months, last;
  if (m_body.contains("upkeep")) {
    for (const auto& entry : m_body["upkeep"]) {
      if (entry.value("what", std::string()) != what) continue;
      months = qtext(entry.value("every_months", std::string()));
      last = qtext(entry.value("last", std::string()));
    }
  }
  const auto id = qtext(what).section(' ', 0, 0);
  auto* every = new NumberField({qtext(what) + ", every", "months", 0.1, 240, true});
  every->setObjectName("upkeepMonths_" + id);
  every->setFixedWidth(48);
  every->setPlaceholderText(usualMonths);
  every->show(months);
  every->onTyped = [this, what](const QString& digits) { setUpkeep(what, "every_months", digits); };
  every->onMessage = [this](const QString& words) { emit message(words); };
  auto* done = new QLineEdit(last);
  done->setObjectName("upkeepLast_" + id);
  done->setAccessibleName(qtext(what) + ", last changed on");
  done->setPlaceholderText("last: 2026-03-02");
  connect(done, &QLineEdit::textEdited, this, [this, what](const QString& typed) {
    static const QRegularExpression whole("^[0-9]{4}-[0-9]{2}-[0-9]{2}$");
    if (typed.isEmpty() || whole.match(typed).hasMatch()) setUpkeep(what, "last", typed);
  });
  row->addWidget(new QLabel("every"));
  row->addWidget(every);
  row->addWidget(new QLabel("months"));
  row->addWidget(done, 1);
  m_rows->addLayout(row);
}

void ThingFacts::setUpkeep(const std::string& what, const char* key, const QString& text) {
  Json list = m_body.contains("upkeep") ? m_body["upkeep"] : Json::array();
  Json* entry = nullptr;
  for (auto& one : list) {
    if (one.value("what", std::string()) == what) entry = &one;
  }
  if (!entry) {
    list.push_back({{"what", what}});
    entry = &list.back();
  }
  if (text.isEmpty())
    entry->erase(key);
  else
    (*entry)[key] = text.toStdString();
  set(qtext(what) + ": " + text, "upkeep", list);
}

void ThingFacts::addHazards() {
  QStringList codes;
  if (m_body.contains("hazards")) {
    for (const auto& code : m_body["hazards"])
      codes << qtext(code.get<std::string>());
  }
  auto* row = rowOf("hazards");
  auto* field = new QLineEdit(codes.join(' '));
  field->setObjectName("fact_hazards");
  field->setAccessibleName("hazard codes on the label");
  field->setPlaceholderText("H-codes on the label, such as H272 H319");
  row->addWidget(field, 1);
  m_rows->addLayout(row);
  auto* meaning = new QLabel;
  meaning->setObjectName("hazardWords");
  meaning->setWordWrap(true);
  meaning->setFont(faceOf(12));
  const auto explain = [this, meaning] {
    std::vector<std::string> known;
    if (m_body.contains("hazards")) known = m_body["hazards"].get<std::vector<std::string>>();
    QStringList lines;
    for (const auto& caution : words::cautionsFor({{"", known}}))
      lines << "⚠ " + qtext(caution.text);
    meaning->setText(lines.join('\n'));
    meaning->setVisible(!lines.isEmpty());
  };
  explain();
  connect(field, &QLineEdit::textEdited, this, [this, field, explain](const QString& typed) {
    static const QRegularExpression whole("^H[0-9]{3}[A-Z]*$");
    const auto read = codesIn(typed);
    for (const auto& code : read) {
      if (!whole.match(qtext(code.get<std::string>())).hasMatch())
        return emit message("“" + qtext(code.get<std::string>()) +
                            "” is no hazard code yet; they read H272, H318 and so on.");
    }
    set("hazards: " + field->text(), "hazards", read);
    explain();
  });
  m_rows->addWidget(meaning);
}

void ThingFacts::addLook() {
  static const std::vector<const char*> tones{"#5b7fa6", "#c26a45", "#cf9d3f", "#8a6284",
                                              "#7d9455", "#3f8579", "#9b4a3c", "#6f7a80"};
  auto* row = rowOf("colour");
  for (const auto* tone : tones) {
    auto* button = new QToolButton;
    button->setObjectName(QString("tone_") + (tone + 1));
    button->setIcon(swatch({QColor(tone), 0}));
    button->setCheckable(true);
    button->setFixedSize(30, 28);
    button->setStyleSheet("padding: 2px");
    button->setAutoExclusive(true);
    button->setChecked(text("/colour") == tone);
    button->setToolTip("colour in every picture");
    button->setAccessibleName(QString("colour ") + tone);
    connect(button, &QToolButton::clicked, this,
            [this, tone] { set(QString("colour ") + tone, "colour", tone); });
    row->addWidget(button);
  }
  row->addStretch();
  m_rows->addLayout(row);
  row = rowOf("hatch");
  auto* hatch = new QComboBox;
  hatch->setObjectName("fact_hatch");
  hatch->setAccessibleName("hatch in every picture");
  int number = 0;
  for (const auto& name : exchange::hatchNames())
    hatch->addItem(swatch({QColor("#6f7a80"), number++}), qtext(name));
  if (!text("/hatch").isEmpty()) hatch->setCurrentText(text("/hatch"));
  connect(hatch, &QComboBox::activated, this, [this, hatch] {
    set("hatch " + hatch->currentText(), "hatch", hatch->currentText().toStdString());
  });
  row->addWidget(hatch, 1);
  m_rows->addLayout(row);
}

void ThingFacts::set(const QString& words, const std::string& key, const Json& value) {
  m_setting = true;
  const auto trouble = setInRecord(m_desk.book(), m_ref, m_body, "/" + key, value,
                                   text("/name").toStdString() + ", " + words.toStdString());
  m_setting = false;
  if (trouble) emit message(qtext(words::problemText(*trouble)));
}

} // namespace butte::app
