#include "window/line_bar.h"

#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "paint/fitted_text.h"
#include "paint/flow_row.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "units/constants.h"
#include "wording/before_mixing.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "wording/water_words.h"
#include "words.h"

#include <QDateTime>
#include <QPainter>
#include <QPainterPath>

namespace butte::app {

StationCard::StationCard(const QString& name, int number, QWidget* parent)
    : QAbstractButton(parent), m_name(name), m_number(number) {
  setCheckable(true);
  setAutoExclusive(true);
  setFocusPolicy(Qt::StrongFocus);
  setObjectName("station" + QString::number(number));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  setCursor(Qt::PointingHandCursor);
}

void StationCard::setHeadline(const QString& first, const QString& second, bool trouble) {
  if (first == m_first && second == m_second && trouble == m_trouble) return;
  m_first = first;
  m_second = second;
  m_trouble = trouble;
  setAccessibleName(
      QString("%1: %2, %3%4").arg(m_name, first, second, trouble ? tr(", needs attention") : ""));
  setToolTip(QString("%1 (Ctrl+%2)\n%3\n%4").arg(m_name).arg(m_number).arg(first, second));
  update();
}

void StationCard::setLow(bool low) {
  if (low == m_low) return;
  m_low = low;
  updateGeometry();
  update();
}

void StationCard::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const QRectF box = QRectF(rect()).adjusted(1, 1, -1, -1);
  const bool on = isChecked();
  p.setBrush(on ? t.accent : t.card);
  p.setPen(QPen(hasFocus() ? t.amber : on ? t.accent : t.line, hasFocus() ? 2 : 1));
  p.drawRoundedRect(box, 5, 5);
  const QColor ink = on ? t.accentInk : t.ink;
  const QColor soft = on ? t.accentInk : t.inkSoft;
  p.setPen(ink);
  p.setFont(faceOf(14, true));
  p.drawText(QRectF(10, 5, width() - 40, 18), Qt::AlignVCenter, m_name);
  p.setFont(faceOf(11));
  p.setPen(soft);
  if (m_low) return paintTrouble(p);
  p.drawText(QRectF(width() - 24, 5, 14, 18), Qt::AlignRight | Qt::AlignVCenter, QString::number(m_number));
  const QFontMetrics metrics(faceOf(12));
  p.setFont(faceOf(12));
  p.drawText(QRectF(10, 24, width() - 20, 17), Qt::AlignVCenter, fittedText(metrics, m_first, width() - 20));
  p.setFont(faceOf(12, true));
  p.setPen(ink);
  const QFontMetrics bold(faceOf(12, true));
  p.drawText(QRectF(10, 42, width() - 20, 17), Qt::AlignVCenter, fittedText(bold, m_second, width() - 20));
  paintTrouble(p);
}

/// The sign of something that needs attention.
void StationCard::paintTrouble(QPainter& p) const {
  if (!m_trouble) return;
  const auto& t = theme();
  const bool on = isChecked();
  QPainterPath sign;
  const double x = width() - (m_low ? 20 : 44), y = 7;
  sign.moveTo(x + 7, y);
  sign.lineTo(x + 14, y + 13);
  sign.lineTo(x, y + 13);
  sign.closeSubpath();
  p.fillPath(sign, on ? QColor("#f0b95a") : t.amber);
  p.setPen(QPen(on ? QColor("#22434f") : t.card, 1.6));
  p.drawLine(QPointF(x + 7, y + 4.5), QPointF(x + 7, y + 8.5));
  p.drawPoint(QPointF(x + 7, y + 11));
}

LineBar::LineBar(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_desk(desk) {
  auto* row = new FlowRow(this, 10);
  for (const auto& info : stations) {
    auto* card = new StationCard(app::tr(info.name), static_cast<int>(info.station) + 1, this);
    row->addWidget(card);
    m_cards.push_back(card);
    connect(card, &QAbstractButton::clicked, this, [this, station = info.station] { emit chosen(station); });
  }
  connect(&editor, &FormulaEditor::changed, this, &LineBar::refresh);
  connect(&units, &UnitsShown::changed, this, &LineBar::refresh);
  connect(&units, &UnitsShown::changed, this, &LineBar::refreshTank);
  connect(&desk, &BookDesk::bookOpened, this, &LineBar::refreshBook);
  connect(&desk, &BookDesk::changed, this, [this](const std::vector<book::Ref>& refs) {
    if (std::any_of(refs.begin(), refs.end(), [](const auto& ref) {
          return ref.kind == book::Kind::Batch || ref.kind == book::Kind::Reading ||
                 ref.kind == book::Kind::Vessel;
        }))
      refreshBook();
  });
  card(Station::Shelf)->setHeadline(tr("looked at in a moment"), {}, false); // behind the window's thread
  refresh();
  refreshBook();
}

void LineBar::setLow(bool low) {
  for (auto* card : m_cards)
    card->setLow(low);
}

void LineBar::setCurrent(Station station) {
  card(station)->setChecked(true);
}

void LineBar::refresh() {
  const auto& document = m_editor.document();
  const auto& answer = m_editor.answer();
  const auto& water = answer.waters.water;
  const auto alkalinity =
      !answer.water.ph ? tr("alkalinity not known")
      : isGuessed(water)
          ? tr("alk. guessed")
          : tr("alk. %1 mg/L")
                .arg(localNumber(answer.water.netAlkalinityMeqPerL * core::constant::milligramsCaCO3PerMeq,
                                 0));
  const bool waterOdd = std::any_of(water.remarks.begin(), water.remarks.end(),
                                    [](core::WaterRemark r) { return r != core::WaterRemark::Pure; });
  const auto base = water.compositionKnown || !water.conductivityMsPerCm
                        ? answer.water.conductivity
                        : core::Conductivity::fromMilliSiemensPerCm(*water.conductivityMsPerCm);
  const auto waterPh = answer.water.ph ? " · pH " + localNumber(*answer.water.ph, 1) : QString();
  card(Station::Water)
      ->setHeadline(QString::fromStdString(document.waterName) + waterPh,
                    m_units.shortText(base) + " · " + alkalinity, waterOdd);
  card(Station::Target)
      ->setHeadline(QString::fromStdString(document.targetName),
                    counted(document.given.request.rows.size(), tr("%1 element"), tr("%1 elements")), false);
  std::size_t used = 0;
  for (const auto& g : answer.solution.grams)
    used += g > core::Mass{};
  const auto off = answer.solution.reasons.size();
  card(Station::Formula)
      ->setHeadline(m_units.shortText(answer.feed.conductivity) + " · " +
                        counted(used, tr("%1 product"), tr("%1 products")),
                    !answer.harmful.empty()
                        ? tr("%1 %2 mg/L: HARMFUL")
                              .arg(QString::fromStdString(words::nutrientName(answer.harmful[0].nutrient)),
                                   localFigure(answer.harmful[0].milligramsPerLitre))
                    : off == 0 ? tr("all elements in band")
                               : tr("%1 off the band").arg(off),
                    off > 0 || !answer.harmful.empty());
  const auto& stock = answer.stock;
  const auto before = beforeMixing(m_editor);
  const bool troubled = !before.inTanks.isEmpty();
  const bool direct = answer.direct.has_value();
  if (direct)
    card(Station::Stocks)
        ->setHeadline(tr("straight into a vessel"),
                      *answer.direct ? tr("%1 to the mark").arg(m_units.text(document.given.request.volume))
                                     : tr("the vessel needs attention"),
                      !*answer.direct);
  else
    card(Station::Stocks)
        ->setHeadline(QString("1:%1 · %2")
                          .arg(localFigure(document.given.stock.factor), m_units.dose(stock.doseMlPerLitre)),
                      troubled         ? tr("a tank needs attention")
                      : stock.feedMade ? tr("makes %1").arg(m_units.text(*stock.feedMade))
                                       : tr("no stock yet"),
                      troubled);
  const auto plan = answer.solution.grams.empty() ? std::vector<core::WeighStep>()
                                                  : core::weighPlan(document.given.request.shelf,
                                                                    answer.solution.grams, document.scales);
  card(Station::Bench)
      ->setHeadline(!before.harmful.isEmpty() ? tr("HARMFUL: read first")
                    : !before.isEmpty()       ? tr("falls out: read first")
                                              : tr("weighing sheet"),
                    counted(plan.size(), tr("%1 weighing · print or PDF"), tr("%1 weighings · print or PDF")),
                    !before.isEmpty());
}

/// The vessel that was read last.
void LineBar::refreshTank() {
  auto* card = this->card(Station::Tank);
  if (!m_desk.isOpen()) return card->setHeadline(tr("no book open"), "", false);
  auto& store = m_desk.book().store();
  const auto newest = store.readings(std::nullopt, 1);
  if (!newest || newest->empty()) {
    const auto vessels = store.list(book::Kind::Vessel, false);
    const auto count = vessels ? vessels->size() : 0;
    return card->setHeadline(count == 0 ? tr("no tank yet") : counted(count, tr("%1 tank"), tr("%1 tanks")),
                             count == 0 ? tr("name one") : tr("nothing read yet"), false);
  }
  QStringList said;
  for (const auto* quantity : {"ec", "ph"}) {
    const auto last = store.readings(std::nullopt, 1, {newest->front().vesselUid, quantity, {}, {}});
    if (last && !last->empty())
      said << (std::string_view(quantity) == "ph" ? tr("pH %1").arg(readingText(last->front()))
                                                  : readingText(last->front()));
  }
  card->setHeadline(said.join(" · "), qtext(newest->front().vesselName), false);
}

void LineBar::refreshBook() {
  refreshTank();
  if (!m_desk.isOpen()) return card(Station::Book)->setHeadline(tr("no book open"), "", false);
  const auto newest = m_desk.book().store().batches({}, std::nullopt, 1);
  const auto farm = QString::fromStdString(m_desk.book().farm());
  if (!newest || newest->empty())
    return card(Station::Book)->setHeadline(farm, tr("nothing mixed yet"), false);
  const auto days =
      QDateTime::fromSecsSinceEpoch(newest->front().at.seconds).date().daysTo(QDate::currentDate());
  card(Station::Book)
      ->setHeadline(farm,
                    days <= 0   ? tr("mixed today")
                    : days == 1 ? tr("mixed yesterday")
                                : tr("mixed %1 days ago").arg(days),
                    false);
}

void LineBar::paintEvent(QPaintEvent*) {
  // The pipe that joins the stations.
  QPainter p(this);
  p.setPen(QPen(theme().line, 2));
  for (const int y : {height() / 2 - 3, height() / 2 + 3})
    p.drawLine(0, y, width(), y);
}

} // namespace butte::app
