#pragma once
#include <QImage>
#include <QString>

/// Papers as a scanner or a hand's camera would give them, made from their text.
namespace butte::test {

/// What befell the picture on its way.
struct Befallen {
  double turnedDegrees = 0;
  double blurDots = 0;
  bool shadow = false;
  int jpegQuality = 0; ///< 0: none
  double noise = 0;    ///< of 255
};

/// Printed at so many dots per inch in 10 point; cells that tabs or wide blanks part stand in columns.
QImage printed(const QString& text, const QString& family, int dotsPerInch);
QImage afterAll(const QImage& picture, const Befallen& what);

} // namespace butte::test
