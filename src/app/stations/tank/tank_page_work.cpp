/// What the Tank station has worked out and read behind the window's thread, and what goes into the log and
/// out of it.
#include "document/book_desk.h"
#include "document/formula_file.h"
#include "document/vessel_readings.h"
#include "fields/filling_combo.h"
#include "services/prompts.h"
#include "stations/tank/advice_lines.h"
#include "stations/tank/log_list.h"
#include "stations/tank/tank_page.h"
#include "stations/tank/tank_picture.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QDir>
#include <QSaveFile>

namespace butte::app {

namespace {
/// A vessel's name as a file may have it.
QString fileNameOf(const std::string& name) {
  auto out = qtext(name);
  for (auto& letter : out)
    if (!letter.isLetterOrNumber() && letter != ' ' && letter != '-') letter = '_';
  constexpr int longest = 80;
  return out.left(longest);
}
} // namespace

/// Behind the window's thread: a year of readings takes longer than a keystroke.
void TankPage::work() {
  TankGiven given;
  given.facts = m_log.facts;
  for (const auto& [ref, line] : m_log.lines) {
    given.lines.push_back(line);
    if (!line.formulaUid.empty())
      given.formulas[{line.formulaUid, line.formulaVersion}] =
          m_edits.formula(line.formulaUid, line.formulaVersion);
  }
  given.formulas[{given.facts.formulaUid, 0}] = m_edits.formula(given.facts.formulaUid, 0);
  given.batches = m_edits.batchesOf(m_log);
  for (const auto& [uid, batch] : given.batches)
    given.formulas[{batch.formulaUid, batch.formulaVersion}] =
        m_edits.formula(batch.formulaUid, batch.formulaVersion);
  given.now = book::Moment::now();
  m_given.facts = given.facts;
  const auto read = [given = std::move(given), path = m_desk.book().place(), uid = m_vessel] {
    TankTold out{given, {}, {}};
    auto found = vesselReadingsBeside(path, uid);
    if (!found) {
      out.trouble = found.problem();
      return out;
    }
    auto readings = std::move(found).value();
    out.given.readings = std::move(readings.readings);
    out.given.doubted = std::move(readings.doubted);
    out.given.thinned = readings.thinned;
    out.story = tankStory(out.given);
    return out;
  };
  m_work.start<TankTold>(read, [this](TankTold told) { take(std::move(told)); });
}

void TankPage::layOver() {
  constexpr std::int64_t year = 365LL * 86400;
  const auto uid = m_over->currentData().toString().toStdString();
  if (uid.empty()) return m_picture->layOver({}, {}, 0);
  m_lay.start<VesselReadings>(
      [path = m_desk.book().place(), uid] {
        auto found = vesselReadingsBeside(path, uid);
        return found ? std::move(found).value() : VesselReadings();
      },
      [this, name = m_over->currentText(), later = uid == m_vessel ? year : 0](VesselReadings found) {
        m_picture->layOver(name, found.readings, later);
      });
}

/// Where the book holds more readings than the story was told from, the stretch in view is read as closely as
/// it can be shown.
void TankPage::lookCloser() {
  if (!m_given.thinned || !m_desk.isOpen() || m_vessel.empty()) return;
  const auto from = m_picture->from(), to = m_picture->to(), width = m_picture->secondsPerDot();
  m_look.start<CloseReadings>([path = m_desk.book().place(), uid = m_vessel, from, to,
                               width] { return closeReadingsBeside(path, uid, from, to, width); },
                              [this](const CloseReadings& close) { m_picture->showCloser(close); });
}

void TankPage::logFills() {
  auto lines = fillsShown(m_story, m_given.facts);
  for (auto& line : lines) {
    line.vesselUid = m_vessel;
    m_edits.nameFilling(line, m_given.facts);
  }
  const auto said = counted(lines.size(), tr("%1 fill"), tr("%1 fills"));
  heard(m_edits.tellAll(lines), tr("In the log: %1. Ctrl+Z takes it back.").arg(said));
}

void TankPage::writeLog() {
  const auto path = m_prompts.fileToMake(tr("The log as a table"),
                                         QDir::home().filePath(fileNameOf(m_log.facts.name) + ".csv"),
                                         tr("Tables (*.csv)"));
  if (path.isEmpty()) return;
  QSaveFile file(path);
  if (!file.open(QIODevice::WriteOnly) || !writeAll(file, m_edits.logTable(m_vessel)) || !file.commit())
    return emit message(tr("%1 can't be written: %2").arg(path, file.errorString()));
  emit message(tr("The log is in %1.").arg(path));
}

void TankPage::bringLogIn() {
  const auto path = m_prompts.fileToOpen(tr("A log from a table"), QDir::homePath(), tr("Tables (*.csv)"));
  if (path.isEmpty()) return;
  constexpr qint64 largestLog = 16 << 20;
  const auto bytes = fileBytes(path, largestLog);
  if (!bytes) return emit message(problemWords(bytes.problem()));
  const auto count = m_edits.bringIn(m_vessel, *bytes);
  if (!count) return emit message(problemWords(count.problem()));
  emit message(*count == 0 ? tr("All of it stands in the log already.")
                           : counted(*count, tr("%1 line came in; Ctrl+Z takes it back."),
                                     tr("%1 lines came in; Ctrl+Z takes them back.")));
}

} // namespace butte::app
