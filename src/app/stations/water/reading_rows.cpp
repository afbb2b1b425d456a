#include "stations/water/reading_rows.h"

#include "base/decimal.h"
#include "fields/number_field.h"
#include "measures.h"
#include "paint/line_of_text.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "reading_words.h"
#include "services/units_shown.h"
#include "water/water.h"
#include "water_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLocale>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>
#include <QSignalBlocker>
#include <algorithm>

namespace butte::app {

namespace {

constexpr int gutter = 44; ///< where the lines run from source to row
constexpr int rowHeight = 26;
constexpr int stripRoom = 160;         ///< of the paper beside a sure line
constexpr int plainRow = 17;           ///< a line of text alone
constexpr std::size_t mostAsking = 60; ///< rows that ask; more are named in one line

std::optional<double> figureOf(const reading::UnplacedRow& row) {
  const auto digits = row.value.starts_with('<') ? row.value.substr(1) : row.value;
  return core::parseDecimal(digits);
}

/// With the digits of the paper, no zero more.
QString asStated(double value) {
  const auto digits = QString::fromStdString(core::decimalText(value));
  const auto counted = std::count_if(digits.begin(), digits.end(), [](QChar c) { return c.isDigit(); });
  if (counted > 5 || digits.contains('e')) return localFigure(value);
  return QString(digits).replace(".", QLocale().decimalPoint());
}

QString named(const reading::UnplacedRow& row) {
  return QString("“%1 %2 %3”")
      .arg(QString::fromStdString(row.name).left(40), QString::fromStdString(row.value).left(24),
           QString::fromStdString(words::reportUnitName(row.unit)))
      .replace(" ”", "”");
}

bool allHave(const reading::UnplacedRow& row, std::string core::ReportRow::*what) {
  return std::all_of(row.couldBe.begin(), row.couldBe.end(),
                     [&](const auto& one) { return one.*what == row.couldBe.front().*what; });
}

/// What tells one choice from the others: the figure, its unit, or what it is of.
QString choiceText(const reading::UnplacedRow& row, std::size_t choice) {
  const auto& one = row.couldBe[choice];
  const auto figure = QString(one.below ? "< " : "") + asStated(one.value);
  const auto unit = QString::fromStdString(words::reportUnitName(one.unit));
  if (!allHave(row, &core::ReportRow::key)) return QString::fromStdString(words::reportKeyName(one.key));
  if (row.why == reading::WhyUnplaced::Blurred || row.couldBe.size() > 1)
    return row.couldBe.size() > 1 && allHave(row, &core::ReportRow::unit) ? figure : figure + " " + unit;
  return rowText(one);
}

} // namespace

QString rowText(const core::ReportRow& row) {
  const auto figure = QString(row.below ? "< " : "") + asStated(row.value);
  if (row.key == "pH") return "pH " + figure;
  // As the paper has it where the units are alike, else in those of the person.
  const auto& measures = words::measures();
  if (row.key == "EC")
    return "EC " + (measures.conductivity == words::ConductivityShown::MilliSiemens
                        ? figure + " mS/cm"
                        : QString::fromStdString(
                              measures.text(core::Conductivity::fromMilliSiemensPerCm(row.value))));
  if (row.key == "temperature")
    return QString::fromStdString(measures.text(core::Temperature::fromCelsius(row.value)));
  return QString("%1 %2 %3")
      .arg(QString::fromStdString(words::reportKeyName(row.key)), figure,
           QString::fromStdString(words::reportUnitName(row.unit)));
}

ReadingRows::ReadingRows(QWidget* parent) : QWidget(parent) {
  setObjectName("readingRows");
  setAccessibleName(tr("what was read, line by line"));
}

void ReadingRows::standBeside(const ReadingSource& source, Around around) {
  m_source = &source;
  m_around = std::move(around);
}

int ReadingRows::open() const {
  return static_cast<int>(std::count(m_asked.begin(), m_asked.end(), true));
}

void ReadingRows::show(const reading::ReportText& read) {
  for (const auto& row : m_rows)
    delete row.asks;
  m_rows.clear();
  m_read = read;
  m_answers.rows.assign(read.unplaced.size(), std::nullopt);
  m_answers.said.assign(read.unplaced.size(), false);
  m_asked.assign(read.unplaced.size(), false);
  for (const auto& row : read.read)
    m_rows.push_back(sureRow(row));
  std::size_t asking = 0;
  for (std::size_t i = 0; i < read.unplaced.size(); ++i) {
    const auto& row = read.unplaced[i];
    Row shown;
    shown.line = row.place.line;
    shown.from = row.place.from;
    shown.doubtful = true;
    shown.quiet = row.why == reading::WhyUnplaced::NotNeeded;
    if (shown.quiet)
      shown.text = named(row) + " · " + QString::fromStdString(words::whyUnplacedText(row.why));
    else if (asking++ < mostAsking)
      shown.asks = makeAsking(i, row);
    else
      continue;
    m_rows.push_back(std::move(shown));
  }
  std::stable_sort(m_rows.begin(), m_rows.end(), [](const Row& a, const Row& b) {
    return std::pair(a.line, a.from) < std::pair(b.line, b.from);
  });
  QStringList texts;
  for (const auto& row : m_rows)
    texts << row.text;
  setAccessibleDescription(texts.join(" · "));
  place();
}

ReadingRows::Row ReadingRows::sureRow(const reading::ReadRow& row) const {
  Row out;
  out.line = row.place.line;
  out.from = row.place.from;
  out.text = rowText(row.row);
  if (m_around) out.strip = m_around(row.place, {}, plainRow);
  return out;
}

namespace {

/// “Specific condu…”: a name in so much room.
QString shortened(const std::string& name, qsizetype most) {
  const auto text = QString::fromStdString(name).simplified();
  return "“" + (text.size() > most ? text.left(most - 1) + "…" : text) + "”";
}

/// Its figure is what asks: it can be typed as well.
bool figureAsks(const reading::UnplacedRow& row) {
  using enum reading::WhyUnplaced;
  return !row.couldBe.empty() && (row.why == Blurred || row.why == UnclearNumber || row.why == WhichFigure);
}

} // namespace

/// What it is, and a press for each thing that it could be.
QWidget* ReadingRows::makeAsking(std::size_t unplaced, const reading::UnplacedRow& row) {
  auto* box = new QWidget(this);
  auto* line = new QHBoxLayout(box);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(6);
  const auto why = QString::fromStdString(words::whyUnplacedText(row.why));
  const bool answerable = !row.couldBe.empty() || figureOf(row);
  const bool saysItself = answerable && (row.couldBe.size() > 1 ||
                                         row.why == reading::WhyUnplaced::UnknownName || figureAsks(row));
  const bool figureIsAsked = row.couldBe.size() > 1 && row.couldBe.front().key == row.couldBe.back().key;
  const bool bare = figureIsAsked || row.why == reading::WhyUnplaced::Blurred;
  const auto picture = m_around ? m_around(row.place, row.value, rowHeight - 2) : QPixmap();
  const auto what = bare || !picture.isNull() ? shortened(row.name, picture.isNull() ? 30 : 11) : named(row);
  auto* said = new PlainLabel(saysItself ? what + "?" : what + ": " + why);
  said->setToolTip(why);
  said->setAccessibleDescription(why);
  said->setObjectName(QString("unplaced%1").arg(unplaced));
  line->addWidget(said);
  if (!picture.isNull()) {
    auto* strip = new PlainLabel;
    strip->setObjectName(QString("strip%1").arg(unplaced));
    strip->setPixmap(picture);
    strip->setAccessibleName(tr("the paper at this place"));
    line->addWidget(strip);
  }
  addChoices(box, unplaced, row);
  if (figureAsks(row)) addTyping(box, unplaced, row);
  if (row.couldBe.empty() && figureOf(row)) addPlaces(box, unplaced, row);
  if (answerable) addLeaving(box, unplaced);
  m_asked[unplaced] = answerable;
  line->addStretch();
  box->setVisible(true);
  return box;
}

void ReadingRows::addChoices(QWidget* box, std::size_t unplaced, const reading::UnplacedRow& row) {
  for (std::size_t k = 0; k < row.couldBe.size() && k < 4; ++k) {
    auto* press = new QPushButton(choiceText(row, k));
    press->setAccessibleName(rowText(row.couldBe[k]));
    press->setToolTip(rowText(row.couldBe[k]));
    press->setObjectName(QString("choice%1_%2").arg(unplaced).arg(k));
    press->setCheckable(true);
    press->setProperty("quiet", true);
    connect(press, &QPushButton::clicked, this, [this, unplaced, k](bool on) { choose(unplaced, k, on); });
    box->layout()->addWidget(press);
  }
}

/// What stands there, typed: in the unit that its line has.
void ReadingRows::addTyping(QWidget* box, std::size_t unplaced, const reading::UnplacedRow& row) {
  const auto& first = row.couldBe.front();
  const auto unit = first.key == "EC" ? std::string("mS/cm") : first.key == "pH" ? std::string() : first.unit;
  auto* field = new NumberField({tr("what stands there for %1").arg(QString::fromStdString(row.name)),
                                 QString::fromStdString(words::reportUnitName(unit)), 0, 1e6, true, true});
  field->setObjectName(QString("typed%1").arg(unplaced));
  field->setPlaceholderText(tr("type it"));
  field->setFixedWidth(64);
  field->onTyped = [this, unplaced, first](const QString& digits) {
    const bool below = digits.startsWith('<');
    const auto value = core::parseDecimal((below ? digits.mid(1) : digits).toStdString());
    if (!value) return answer(unplaced, std::nullopt, false);
    auto typed = first;
    typed.value = *value;
    typed.below = below;
    answer(unplaced, typed, true);
    showChosen(unplaced);
  };
  box->layout()->addWidget(field);
}

void ReadingRows::addPlaces(QWidget* box, std::size_t unplaced, const reading::UnplacedRow& row) {
  auto* key = new QComboBox;
  key->setObjectName(QString("place%1").arg(unplaced));
  key->addItem(tr("it is…"), "");
  for (const auto& name : core::waterKeys())
    key->addItem(QString::fromStdString(words::reportKeyName(name)), QString::fromStdString(name));
  key->setAccessibleName(tr("what %1 is").arg(named(row)));
  connect(key, &QComboBox::currentIndexChanged, this, [this, unplaced, key, row] {
    const auto chosen = key->currentData().toString().toStdString();
    answer(unplaced, chosen.empty() ? std::nullopt : reading::placedAs(row, chosen), true);
  });
  box->layout()->addWidget(key);
}

/// Waved off: it asks no more, and nothing of it is taken.
void ReadingRows::addLeaving(QWidget* box, std::size_t unplaced) {
  auto* leave = new QPushButton(QString("✕"));
  leave->setAccessibleName(tr("leave it out"));
  leave->setToolTip(tr("Leave it out"));
  leave->setFixedWidth(30);
  leave->setObjectName(QString("leave%1").arg(unplaced));
  leave->setCheckable(true);
  leave->setProperty("quiet", true);
  connect(leave, &QPushButton::clicked, this, [this, unplaced](bool on) {
    answer(unplaced, std::nullopt, on);
    showChosen(unplaced);
  });
  box->layout()->addWidget(leave);
}

/// The buttons of a row as it is answered.
void ReadingRows::showChosen(std::size_t unplaced) {
  const auto& row = m_read.unplaced[unplaced];
  const auto& chosen = m_answers.rows[unplaced];
  for (std::size_t k = 0; k < row.couldBe.size(); ++k) {
    auto* press = findChild<QPushButton*>(QString("choice%1_%2").arg(unplaced).arg(k));
    if (press) press->setChecked(chosen && *chosen == row.couldBe[k]);
  }
  if (auto* leave = findChild<QPushButton*>(QString("leave%1").arg(unplaced)))
    leave->setChecked(m_answers.said[unplaced] && !chosen);
  if (auto* place = findChild<QComboBox*>(QString("place%1").arg(unplaced)); place && chosen) {
    const QSignalBlocker quiet(place);
    place->setCurrentIndex(std::max(0, place->findData(QString::fromStdString(chosen->key))));
  }
}

void ReadingRows::recall(const reading::RowsAnswered& known) {
  for (std::size_t i = 0; i < known.rows.size() && i < m_answers.rows.size(); ++i) {
    if (!known.said[i]) continue;
    m_answers.rows[i] = known.rows[i];
    m_answers.said[i] = true;
    m_asked[i] = false;
    showChosen(i);
  }
  update();
  emit answered();
}

/// One of the things that a line could be. Of several samples' columns one is meant: chosen in one line, it
/// is chosen in all that were not answered otherwise.
void ReadingRows::choose(std::size_t unplaced, std::size_t choice, bool on) {
  const auto& pressed = m_read.unplaced[unplaced];
  for (std::size_t i = 0; i < m_read.unplaced.size(); ++i) {
    const auto& row = m_read.unplaced[i];
    const bool alike = row.why == reading::WhyUnplaced::WhichFigure && pressed.why == row.why &&
                       row.couldBe.size() == pressed.couldBe.size() && m_asked[i];
    if (i != unplaced && !alike) continue;
    m_answers.rows[i] = on ? std::optional(row.couldBe[choice]) : std::nullopt;
    m_answers.said[i] = on;
    m_asked[i] = !on;
    showChosen(i);
  }
  update();
  emit answered();
}

void ReadingRows::answer(std::size_t unplaced, std::optional<core::ReportRow> row, bool said) {
  m_asked[unplaced] = !said;
  m_answers.said[unplaced] = said;
  m_answers.rows[unplaced] = std::move(row);
  update();
  emit answered();
}

/// Each row at the height of its line; where one line has several, they follow one another.
void ReadingRows::place() {
  int next = 0;
  for (auto& row : m_rows) {
    const int height = m_source->lineHeight(row.line);
    row.sourceTop = m_source->lineTop(row.line);
    row.sourceMiddle = row.sourceTop + height / 2;
    // Buttons fill their room, the text above them does not quite.
    constexpr int air = 5;
    row.top = std::max(row.asks ? next + air : next, row.sourceTop + (height - rowHeight) / 2);
    next = row.top + (row.asks ? rowHeight + 4 : std::max(height, plainRow));
    if (row.asks) row.asks->setGeometry(gutter, row.top, std::max(60, width() - gutter), rowHeight);
  }
  setMinimumHeight(next + 8);
  update();
}

void ReadingRows::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  place();
}

void ReadingRows::paintEvent(QPaintEvent* event) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setFont(faceOf(13));
  for (const auto& row : m_rows) {
    const QRect room(gutter, row.top, width() - gutter, rowHeight);
    const double from = row.sourceMiddle, to = row.top + rowHeight / 2.0;
    const QRectF touched(0, std::min(from, to) - 2, width(), std::abs(from - to) + rowHeight);
    if (!touched.intersects(event->rect())) continue;
    const bool asks = row.doubtful && !row.quiet;
    QPainterPath path(QPointF(0, from));
    path.cubicTo(QPointF(gutter / 2.0, from), QPointF(gutter / 2.0, to), QPointF(gutter - 8, to));
    painter.setPen(QPen(asks ? theme().amber : theme().line, asks ? 2 : 1.2));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(path);
    if (row.asks) continue;
    painter.setPen(row.quiet ? theme().inkSoft : theme().ink);
    const auto words = room.adjusted(0, 0, row.strip.isNull() ? 0 : -stripRoom, 0);
    paintLine(painter, words, Qt::AlignLeft | Qt::AlignVCenter, row.text);
    if (!row.strip.isNull()) // at its beginning, so that all stand below one another
      painter.drawPixmap(words.right() + 1, room.top() + (rowHeight - row.strip.height()) / 2, row.strip);
  }
}

} // namespace butte::app
