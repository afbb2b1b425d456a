#include "paint/theme.h"

#include "paint/theme_style.h"

#include <QApplication>
#include <QFontDatabase>
#include <QHash>
#include <QToolTip>

// Resources of a static library are left out by the linker unless somebody asks; the macro must stand outside
// namespaces.
static void keepResources() {
  Q_INIT_RESOURCE(butte);
}

namespace butte::app {
namespace {

const Theme light{.page = "#f2efe8",
                  .card = "#ffffff",
                  .ink = "#1d2b33",
                  .inkSoft = "#56666e",
                  .line = "#cfd3cf",
                  .accent = "#22434f",
                  .accentInk = "#ffffff",
                  .band = "#dfe8d9",
                  .targetMark = "#101a20",
                  .amber = "#b06a00",
                  .amberInk = "#6d4200",
                  .amberFill = "#f7e2b8",
                  .red = "#a8321f",
                  .redFill = "#f6d5cd",
                  .water = "#b9d3dc"};
const Theme dark{.page = "#182126",
                 .card = "#212d33",
                 .ink = "#e8ece9",
                 .inkSoft = "#a5b4ba",
                 .line = "#3c4b52",
                 .accent = "#9cc7cf",
                 .accentInk = "#10191d",
                 .band = "#2f4136",
                 .targetMark = "#f4f6f3",
                 .amber = "#f0b95a",
                 .amberInk = "#ffdf9f",
                 .amberFill = "#4d3b18",
                 .red = "#ff8f78",
                 .redFill = "#5a2a22",
                 .water = "#4a6c78"};

bool darkNow = false;

} // namespace

const Theme& theme() {
  return darkNow ? dark : light;
}
bool isDark() {
  return darkNow;
}

void applyTheme(bool useDark) {
  darkNow = useDark;
  const auto& t = theme();
  QPalette palette;
  palette.setColor(QPalette::Window, t.page);
  palette.setColor(QPalette::Base, t.card);
  palette.setColor(QPalette::Text, t.ink);
  palette.setColor(QPalette::WindowText, t.ink);
  palette.setColor(QPalette::ButtonText, t.ink);
  palette.setColor(QPalette::Button, t.card);
  palette.setColor(QPalette::Highlight, t.accent);
  palette.setColor(QPalette::HighlightedText, t.accentInk);
  palette.setColor(QPalette::PlaceholderText, t.inkSoft);
  palette.setColor(QPalette::ToolTipBase, t.card);
  palette.setColor(QPalette::ToolTipText, t.ink);
  palette.setColor(QPalette::AlternateBase, t.page);
  palette.setColor(QPalette::Mid, t.line);
  palette.setColor(QPalette::Light, t.card);
  palette.setColor(QPalette::Dark, t.inkSoft);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
    palette.setColor(QPalette::Disabled, role, t.inkSoft);
  qApp->setPalette(palette);
  QToolTip::setPalette(palette);
  softenLabels();
}

void dressApplication() {
  keepResources();
  QApplication::setStyle(new ThemeStyle);
  QFontDatabase::addApplicationFont(":/fonts/B612-Regular.otf");
  QFontDatabase::addApplicationFont(":/fonts/B612-Bold.otf");
  QFontDatabase::addApplicationFont(":/fonts/B612Mono-Regular.otf");
  qApp->setFont(faceOf(13));
}

QFont typewriterFaceOf(int pixels) {
  QFont font;
  font.setFamily("B612 Mono");
  font.setPixelSize(pixels);
  return font;
}

QFont faceOf(int pixels, bool bold) {
  static QHash<int, QFont> faces; // a font that was used knows its glyphs; a fresh one looks for them anew
  const int key = 2 * pixels + (bold ? 1 : 0);
  if (const auto known = faces.constFind(key); known != faces.constEnd()) return *known;
  QFont font("B612");
  font.setPixelSize(pixels);
  font.setBold(bold);
  return *faces.insert(key, font);
}

} // namespace butte::app
