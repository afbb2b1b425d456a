#include "stations/tank/log_list.h"

#include "deed_words.h"
#include "paint/flow_row.h"
#include "paint/theme.h"
#include "stations/tank/tank_words.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

namespace {
/// The Book station has all of them; here stands what one scrolls through.
constexpr std::size_t mostLogRows = 400;

struct LogRow {
  std::int64_t seconds = 0;
  QString words;
  std::optional<book::Ref> ref;
};

/// Readings of one moment stand in one row.
std::vector<LogRow> readingRows(const std::vector<book::Reading>& readings) {
  std::vector<LogRow> out;
  for (const auto& reading : readings) {
    const auto words = tr("%1 %2").arg(qtext(words::quantityName(reading.quantity)), readingText(reading));
    if (!out.empty() && out.back().seconds == reading.at.seconds)
      out.back().words += " · " + words;
    else
      out.push_back({reading.at.seconds, words, {}});
  }
  return out;
}
} // namespace

LogList::LogList(QWidget* parent)
    : QWidget(parent), m_list(new QListWidget), m_strike(new QPushButton(tr("This line into the bin"))) {
  m_list->setObjectName("tankLog");
  m_list->setAccessibleName(tr("the tank's log"));
  m_list->setFont(faceOf(12));
  m_list->setWordWrap(true);
  m_list->setMinimumHeight(60);
  m_list->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Ignored);
  m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  m_strike->setObjectName("tankStrike");
  m_strike->setEnabled(false);
  connect(m_list, &QListWidget::currentRowChanged, this, &LogList::chosen);
  connect(m_strike, &QPushButton::clicked, this, [this] {
    const int row = m_list->currentRow();
    if (row < 0) return;
    const auto& ref = m_refs[static_cast<std::size_t>(row)];
    if (ref) emit strikeAsked(*ref, m_list->item(row)->text());
  });
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(m_list, 1);
  auto* row = new FlowRow;
  row->addWidget(m_strike);
  const auto press = [&](const QString& words, const char* object, void (LogList::*asks)()) {
    auto* button = new QPushButton(words);
    button->setObjectName(object);
    connect(button, &QPushButton::clicked, this, asks);
    row->addWidget(button);
  };
  press(tr("As a table…"), "tankLogOut", &LogList::tableAsked);
  press(tr("From a table…"), "tankLogIn", &LogList::bringInAsked);
  column->addLayout(row);
}

void LogList::clear() {
  m_list->clear();
  m_refs.clear();
}

void LogList::chosen() {
  const int row = m_list->currentRow();
  m_strike->setEnabled(row >= 0 && m_refs[static_cast<std::size_t>(row)].has_value());
}

void LogList::show(const VesselLog& log, const TankGiven& given) {
  auto rows = readingRows(given.readings);
  for (const auto& reading : given.doubted)
    rows.push_back({reading.at.seconds,
                    tr("%1 %2: %3")
                        .arg(qtext(words::quantityName(reading.quantity)), readingText(reading),
                             markWords(reading.mark)),
                    {}});
  for (const auto& [ref, line] : log.lines) {
    auto words = lineWords(line, given);
    if (!line.who.empty()) words += tr(" (%1)").arg(qtext(line.who));
    rows.push_back({line.at.seconds, words, ref});
  }
  // Of what was told in one second the later line is the newer.
  std::stable_sort(rows.begin(), rows.end(),
                   [](const LogRow& a, const LogRow& b) { return a.seconds < b.seconds; });
  std::reverse(rows.begin(), rows.end());
  if (rows.size() > mostLogRows) rows.resize(mostLogRows);
  const QSignalBlocker quiet(m_list);
  clear();
  for (const auto& row : rows) {
    m_refs.push_back(row.ref);
    m_list->addItem(tr("%1  %2").arg(whenText({row.seconds}), row.words));
  }
  m_strike->setEnabled(false);
}

} // namespace butte::app
