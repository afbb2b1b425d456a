#pragma once
#include "book/tank_line.h"
#include "document/tank_story.h"

#include <QString>
#include <QStringList>

namespace butte::app {

class UnitsShown;

/// The sentences of a tank's station.
QString noStoryWords(NoStory why);
QString shortName(core::Nutrient nutrient); ///< "NO3", "K": above a narrow column
/// "filled to 250 L with Strawberry, fruiting": a line of the log.
QString lineWords(const book::TankLine& line, const TankGiven& given);
/// "Lettuce, batch of 3 May 2026"
QString batchName(const std::string& formula, book::Moment at);
/// "120 g potassium nitrate, ...": of salts that were weighed in.
QString weighedText(const book::TankLine& line, const TankGiven& given);
QString adviceTitle(core::AdviceKind kind);
/// What a hand does then, in the person's units.
QString adviceDoing(const core::Advice& advice, const TankStory& story, const TankGiven& given,
                    const UnitsShown& units);
/// Why it is not open; empty where it is.
QString notOpenWords(const core::Advice& advice, const TankStory& story);
/// "182 mg/L ± 24".
QString bandWords(const core::Band& band);
/// "K falls 4 mg/L a day and leaves its band in about 6 days (at the earliest in 3)".
QString courseWords(const core::ElementCourse& course);
/// What is out of its band, and what will be next: the soonest first; of trace elements only what is out.
QStringList aheadWords(const TankStory& story);
/// Where the pH is heading and what moves it.
QString driftWords(const TankStory& story);
/// What acid or base did here before, the last three times, and where memory and reckoning part.
QStringList doseWords(const TankStory& story, const TankGiven& given);
/// How well readings were foretold.
QString scoreWords(const TankStory& story, const UnitsShown& units);
/// What does not fit, newest last: a doubt, not a judgement.
QStringList doubtWords(const TankStory& story, const UnitsShown& units);
/// What its warmth means for the roots, and what to look at where they were noted.
QStringList warmthWords(const TankGiven& given);
/// Why a logger's reading is doubted: "wild: not counted".
QString markWords(const std::string& mark);
/// What was assumed, since nobody said it.
QStringList guessWords(const TankStory& story);

} // namespace butte::app
