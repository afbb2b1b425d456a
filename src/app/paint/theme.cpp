#include "paint/theme.h"

#include <QApplication>
#include <QFontDatabase>

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

QString styleSheet(const Theme& t) {
  return QString(R"(
    QWidget { color: %1; }
    QMainWindow, QScrollArea, QScrollArea > QWidget > QWidget { background: %2; }
    QLineEdit, QComboBox { background: %3; border: 1px solid %4; border-radius: 4px; padding: 3px 6px; min-height: 20px;
      selection-background-color: %5; selection-color: %6; }
    QLineEdit:focus, QComboBox:focus { border: 2px solid %5; padding: 2px 5px; }
    QLineEdit[wrong="true"] { border: 2px solid %7; padding: 2px 5px; background: %8; }
    QLineEdit:read-only { background: %2; }
    QPushButton, QToolButton { background: %3; border: 1px solid %4; border-radius: 4px; padding: 4px 10px; }
    QPushButton:focus, QToolButton:focus, QCheckBox:focus { border: 2px solid %5; }
    QPushButton:hover, QToolButton:hover { border-color: %5; }
    QPushButton[primary="true"] { background: %5; color: %6; font-weight: bold; }
    QToolButton:checked { background: %5; color: %6; }
    QComboBox::drop-down { border: none; width: 20px; }
    QComboBox::down-arrow { image: none; width: 0; height: 0; border-left: 4px solid %3; border-right: 4px solid %3;
      border-top: 6px solid %9; margin-right: 8px; }
    QComboBox:disabled { background: %2; }
    QComboBox::down-arrow:disabled { border: none; }
    QComboBox QAbstractItemView { background: %3; color: %1; selection-background-color: %5; selection-color: %6; }
    QMenuBar, QMenu { background: %2; color: %1; }
    QMenuBar::item:selected, QMenu::item:selected { background: %5; color: %6; }
    QMenu::item:disabled { color: %9; }
    QStatusBar { background: %2; color: %9; }
    QToolTip { background: %3; color: %1; border: 1px solid %4; }
    QLabel[soft="true"] { color: %9; }
    QScrollBar:vertical { background: %2; width: 10px; } QScrollBar::handle:vertical { background: %4; border-radius: 4px; }
    QScrollBar::add-line, QScrollBar::sub-line { height: 0; }
  )")
      .arg(t.ink.name(), t.page.name(), t.card.name(), t.line.name(), t.accent.name(), t.accentInk.name(),
           t.red.name(), t.redFill.name(), t.inkSoft.name());
}

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
  qApp->setPalette(palette);
  qApp->setStyleSheet(styleSheet(t));
}

void loadFonts() {
  keepResources();
  QFontDatabase::addApplicationFont(":/fonts/B612-Regular.otf");
  QFontDatabase::addApplicationFont(":/fonts/B612-Bold.otf");
  qApp->setFont(faceOf(13));
}

QFont faceOf(int pixels, bool bold) {
  QFont font("B612");
  font.setPixelSize(pixels);
  font.setBold(bold);
  return font;
}

} // namespace butte::app
