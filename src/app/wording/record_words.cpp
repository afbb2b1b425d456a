#include "wording/record_words.h"

#include "words.h"

namespace butte::app {

QString problemWords(const core::Problem& problem) {
  return qtext(words::problemLine(problem));
}

} // namespace butte::app
