#pragma once
#include "book/reading.h"

#include <QString>
#include <map>
#include <string>

namespace butte::app {

class StreamDesk;

/// What loggers say at the moment in the place of what was kept last.
std::map<std::string, book::Reading> liveReadings(const StreamDesk& streams, const std::string& vessel,
                                                  std::map<std::string, book::Reading> last);
/// What is wrong with a logger of this vessel; empty where nothing is.
QString loggerTrouble(const StreamDesk& streams, const std::string& vessel, book::Moment now);

} // namespace butte::app
