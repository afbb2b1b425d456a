#include "stations/tank/level_typed.h"

#include "base/decimal.h"
#include "wording/tr.h"

#include <QRegularExpression>

namespace butte::app {

namespace {

constexpr const char* figure = R"(([-+]?[0-9]+(?:[.,][0-9]+)?))";

/// The figure of "7 stick" or "stick 7"; nothing where the word is not beside it.
std::optional<double> beside(const QString& text, const QString& word) {
  const auto escaped = QRegularExpression::escape(word);
  for (const auto& pattern :
       {QString(R"(^%1\s*%2$)").arg(figure, escaped), QString(R"(^%2\s*%1$)").arg(figure, escaped)}) {
    const auto found = QRegularExpression(pattern, QRegularExpression::CaseInsensitiveOption).match(text);
    if (found.hasMatch()) return core::parseDecimal(found.captured(1).replace(',', '.').toStdString());
  }
  return std::nullopt;
}

/// The share of "3/4 full" or "75 %".
std::optional<double> shareIn(const QString& text) {
  if (const auto percent = beside(text, "%")) return *percent / 100;
  static const QRegularExpression parts(R"(^([0-9]+)\s*/\s*([0-9]+)\s*(.*)$)");
  const auto found = parts.match(text);
  if (!found.hasMatch() || found.captured(3).compare(tr("full"), Qt::CaseInsensitive) != 0)
    return std::nullopt;
  const double under = found.captured(2).toDouble();
  return under > 0 ? std::optional(found.captured(1).toDouble() / under) : std::nullopt;
}

} // namespace

std::optional<core::Volume> levelTyped(const QString& typed, const book::VesselFacts& facts) {
  const auto text = typed.simplified();
  if (const auto height = beside(text, "cm")) return *height >= 0 ? facts.volumeAt(*height) : std::nullopt;
  if (const auto stick = beside(text, tr("stick"))) return facts.volumeAtStick(*stick);
  const auto full = facts.fullVolume(), low = facts.lowVolume();
  const auto known = [](core::Volume volume) {
    return volume > core::Volume{} ? std::optional(volume) : std::nullopt;
  };
  if (text.compare(tr("full"), Qt::CaseInsensitive) == 0) return known(full);
  if (text.compare(tr("low"), Qt::CaseInsensitive) == 0) return known(low);
  if (const auto share = shareIn(text); share && *share >= 0) return known(full * *share);
  return std::nullopt;
}

QString levelHint() {
  return tr("A volume; or as it is read: 50 cm (by the measures under Vessel), full, low, 3/4 full, 75 %, "
            "7 stick (a float stick with its figures under Vessel)");
}

} // namespace butte::app
