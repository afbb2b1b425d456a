#include "wording/spoken_language.h"

#include "language.h"

#include <QCoreApplication>
#include <QLocale>

namespace butte::app {

void speakTheProgramsLanguage() {
  words::speak({[](std::string_view english) {
                  const std::string terminated(english);
                  return QCoreApplication::translate("words", terminated.c_str()).toStdString();
                },
                QLocale().decimalPoint().toStdString()});
}

} // namespace butte::app
