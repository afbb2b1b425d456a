#include "window/text_size.h"

#include <QFile>
#include <algorithm>
#include <unistd.h>
#include <vector>

namespace butte::app {

namespace {
constexpr const char *key = "view/text_percent", *scaleVariable = "QT_SCALE_FACTOR";
constexpr const char* ownScale = "BUTTE_TEXT_SCALE"; // the scale in the variable is ours, not the desktop's
} // namespace

int textPercent(const QSettings& settings) {
  const int kept = settings.value(key, textPercents.front()).toInt();
  return std::find(textPercents.begin(), textPercents.end(), kept) != textPercents.end()
             ? kept
             : textPercents.front();
}

void keepTextPercent(QSettings& settings, int percent) {
  settings.setValue(key, percent);
}

int nextTextPercent(int percent, int step) {
  const auto at = std::find(textPercents.begin(), textPercents.end(), percent) - textPercents.begin();
  const auto last = static_cast<std::ptrdiff_t>(textPercents.size()) - 1;
  return textPercents[static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(at + step, 0, last))];
}

void scaleText(int percent) {
  const bool ours = qEnvironmentVariableIsSet(ownScale);
  if (qEnvironmentVariableIsSet(scaleVariable) && !ours) return;
  qunsetenv(scaleVariable);
  if (percent == textPercents.front()) return;
  qputenv(scaleVariable, QByteArray::number(percent / 100.0));
  qputenv(ownScale, "1");
}

void startAgain(const QStringList& arguments) {
  std::vector<QByteArray> words;
  for (const auto& argument : arguments)
    words.push_back(QFile::encodeName(argument));
  std::vector<char*> pointers;
  for (auto& word : words)
    pointers.push_back(word.data());
  pointers.push_back(nullptr);
  execv("/proc/self/exe", pointers.data());
}

} // namespace butte::app
