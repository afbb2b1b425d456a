#include "dose/reading_line.h"

#include <cmath>

namespace butte::core {

Result<ReadingLine> fitReadings(const std::vector<DosedReading>& readings) {
  if (readings.size() < 2) return problemAt(ProblemCode::TooFewReadings, "readings", {"2"});
  const auto count = static_cast<double>(readings.size());
  double meanX = 0, meanY = 0;
  for (const auto& r : readings) {
    meanX += r.x / count;
    meanY += r.reading.milliSiemensPerCm() / count;
  }
  double xx = 0, xy = 0;
  for (const auto& r : readings) {
    xx += (r.x - meanX) * (r.x - meanX);
    xy += (r.x - meanX) * (r.reading.milliSiemensPerCm() - meanY);
  }
  if (!(xx > 1e-12))
    return problemAt(ProblemCode::NotDeterminable, "readings", {"readings at two doses at least"});
  ReadingLine line;
  line.slope = xy / xx;
  const double base = meanY - line.slope * meanX;
  line.base = Conductivity::fromMilliSiemensPerCm(base);
  double off = 0;
  for (const auto& r : readings) {
    const double miss = r.reading.milliSiemensPerCm() - base - line.slope * r.x;
    off += miss * miss;
  }
  if (readings.size() > 2) line.plusMinus = Conductivity::fromMilliSiemensPerCm(std::sqrt(off / (count - 2)));
  return line;
}

} // namespace butte::core
