#include "window/file_actions.h"

#include "document/formula_file.h"
#include "edits/first_formula.h"
#include "edits/strength_edits.h"
#include "formula_json.h"
#include "print/paper.h"
#include "print/sheet_text.h"
#include "print/stage_card.h"
#include "print/tank_labels.h"
#include "quantity/typed_quantity.h"
#include "stations/formula/stage_strip.h"
#include "window/main_window.h"
#include "wording/before_mixing.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QMenuBar>
#include <QPrintDialog>
#include <QPrinter>

namespace butte::app {

namespace {
/// As a person would name the file: the formula's own name without what paths can't hold.
QString fileNameOf(QString name) {
  static constexpr int mostLetters = 80;
  for (auto& c : name) {
    if (!c.isPrint() || QStringLiteral("/\\:*?\"<>|").contains(c)) c = ' ';
  }
  name = name.simplified().left(mostLetters).trimmed();
  while (name.startsWith('.') || name.startsWith('-'))
    name.remove(0, 1);
  return name.isEmpty() ? tr("Formula") : name;
}

QString filter() {
  return tr("Butte formulas (*.butte.json *.json)");
}
} // namespace

FileActions::FileActions(MainWindow& window, QSettings& settings, Prompts& prompts)
    : QObject(&window), m_window(window), m_settings(settings), m_prompts(prompts) {
  addActions(window.menuBar()->addMenu(tr("&Formula")));
}

void FileActions::addActions(QMenu* menu) {
  const auto add = [&](const QString& text, QKeySequence keys, auto slot) {
    return menu->addAction(text, keys, this, slot);
  };
  add(tr("&New formula"), QKeySequence::New, &FileActions::newFormula);
  add(tr("&Copy of this formula"), QKeySequence("Ctrl+Shift+N"), &FileActions::copyFormula)
      ->setObjectName("copyFormula");
  menu->addAction(tr("Another sta&ge beside this one…"), QKeySequence("Ctrl+G"), this,
                  [this] {
                    m_window.showStation(Station::Formula);
                    m_window.stages().addStage();
                  })
      ->setObjectName("addStage");
  addStrengths(menu->addMenu(tr("&Strength")));
  add(tr("Name this &version…"), QKeySequence("Ctrl+Shift+V"), &FileActions::nameVersion);
  add(tr("Put into the &bin"), {}, &FileActions::binFormula)->setObjectName("binFormula");
  menu->addSeparator();
  add(tr("Bring in from a &file…"), QKeySequence("Ctrl+Shift+O"), &FileActions::open);
  menu->addAction(tr("&Write into a file…"), QKeySequence("Ctrl+Shift+S"), this, [this] { saveAs(); });
  menu->addSeparator();
  add(tr("Bench sheet as &PDF…"), QKeySequence("Ctrl+E"), &FileActions::exportSheet);
  add(tr("P&rint bench sheet…"), QKeySequence::Print, &FileActions::printSheet);
  add(tr("Tank &labels as PDF…"), QKeySequence("Ctrl+L"), &FileActions::exportLabels);
  add(tr("Print t&ank labels…"), QKeySequence("Ctrl+Shift+L"), &FileActions::printLabels);
}

void FileActions::newFormula() {
  if (const auto trouble = m_window.desk().addFormula(nextFormula(m_window.editor().json()),
                                                      {core::DeedCode::FormulaMade, {}}))
    m_prompts.trouble(problemWords(*trouble));
}

/// A sibling: the same in all but its name.
void FileActions::copyFormula() {
  auto copy = m_window.editor().json();
  copy["name"] = tr("%1, copy").arg(QString::fromStdString(m_window.editor().document().name)).toStdString();
  if (const auto trouble = m_window.desk().addFormula(std::move(copy), {core::DeedCode::FormulaMade, {}}))
    m_prompts.trouble(problemWords(*trouble));
}

void FileActions::addStrengths(QMenu* menu) {
  const std::tuple<QString, const char*, double> all[] = {
      {tr("&Half strength"), "strengthHalf", 0.5},
      {tr("&Three quarters"), "strengthThreeQuarters", 0.75},
      {tr("&Boosted by a quarter"), "strengthBoosted", 1.25}};
  for (const auto& [text, name, factor] : all) {
    auto* action = menu->addAction(
        text, this, [this, factor = factor] { StrengthEdits(m_window.editor()).times(factor); });
    action->setObjectName(name);
  }
  auto* reach = menu->addAction(tr("To an &EC…"), this, &FileActions::scaleToConductivity);
  reach->setObjectName("strengthToEc");
}

void FileActions::scaleToConductivity() {
  const auto& units = m_window.units();
  const auto text =
      m_prompts.words(tr("Strength"), tr("EC the feed should have, %1").arg(units.conductivityUnitName()),
                      units.digits(m_window.editor().answer().feed.conductivity));
  if (text.isEmpty()) return;
  const auto typed = reading::typedQuantity(text.toStdString(), units.conductivityUnit().toStdString());
  if (!typed) return m_prompts.trouble(problemWords(typed.problem()));
  if (const auto trouble =
          StrengthEdits(m_window.editor()).toConductivity(units.measures().conductivityOf(typed->value)))
    m_prompts.trouble(problemWords(*trouble));
}

void FileActions::open() {
  const auto path = m_prompts.fileToOpen(
      tr("Bring in a formula"), m_settings.value("files/folder", QDir::homePath()).toString(), filter());
  if (!path.isEmpty()) openFile(path);
}

bool FileActions::openFile(const QString& path) {
  const auto name = QFileInfo(path).fileName();
  const auto json = readFormulaFile(path);
  const auto trouble =
      json ? m_window.desk().addFormula(*json, {core::DeedCode::FormulaOpened, {name.toStdString()}})
           : book::Trouble(json.problem());
  if (trouble) {
    m_prompts.trouble(
        tr("%1 was not brought in; what you have stays as it is.\n\n%2").arg(name, problemWords(*trouble)));
    return false;
  }
  keepVersion(tr("brought in"));
  m_settings.setValue("files/folder", QFileInfo(path).absolutePath());
  m_window.say(tr("%1 is in the book now.").arg(name));
  return true;
}

bool FileActions::saveAs() {
  auto path =
      m_prompts.fileToMake(tr("Write the formula into a file"), suggestedName(".butte.json"), filter());
  if (path.isEmpty()) return false;
  if (!path.endsWith(".json")) path += ".butte.json";
  return saveTo(path);
}

bool FileActions::saveTo(const QString& path) {
  if (const auto problem = writeFormulaFile(path, m_window.editor().json())) {
    m_prompts.trouble(tr("Not written.\n\n%1").arg(problemWords(*problem)));
    return false;
  }
  m_settings.setValue("files/folder", QFileInfo(path).absolutePath());
  m_window.say(tr("Written into %1").arg(QDir::toNativeSeparators(path)));
  return true;
}

void FileActions::exportSheet() {
  const auto path = m_prompts.fileToMake(tr("Bench sheet as PDF"),
                                         suggestedName(tr(" - bench sheet") + ".pdf"), tr("PDF (*.pdf)"));
  if (!path.isEmpty()) exportSheetTo(path);
}

bool FileActions::mayLeave() {
  const auto why = keptFromPaper(m_window.editor());
  if (!why.isEmpty()) m_prompts.trouble(why);
  return why.isEmpty();
}

bool FileActions::exportSheetTo(const QString& path) {
  if (!mayLeave()) return false;
  const auto html = benchSheetHtml(m_window.editor(), m_window.units(), dayAndVersion());
  const auto trouble = writePdf({html}, m_window.units().pageSize(), path,
                                QString::fromStdString(m_window.editor().document().name));
  if (!trouble.isEmpty()) {
    m_prompts.trouble(trouble);
    return false;
  }
  m_window.say(tr("The bench sheet is in %1").arg(QDir::toNativeSeparators(path)));
  return true;
}

void FileActions::printSheet() {
  if (!mayLeave()) return;
  QPrinter printer(QPrinter::HighResolution);
  printer.setPageSize(m_window.units().pageSize());
  QPrintDialog dialog(&printer, &m_window);
  if (dialog.exec() != QDialog::Accepted) return;
  paintPages({benchSheetHtml(m_window.editor(), m_window.units(), dayAndVersion())}, printer);
}

void FileActions::exportLabels() {
  const auto path = m_prompts.fileToMake(tr("Labels of the tanks as PDF"),
                                         suggestedName(tr(" - labels") + ".pdf"), tr("PDF (*.pdf)"));
  if (!path.isEmpty()) exportLabelsTo(path);
}

bool FileActions::exportLabelsTo(const QString& path) {
  if (!mayLeave()) return false;
  const auto labels = tankLabels(m_window.editor(), m_window.units(), dayAndVersion());
  const auto trouble = writePdf(labels, m_window.units().pageSize(), path,
                                QString::fromStdString(m_window.editor().document().name));
  if (!trouble.isEmpty()) {
    m_prompts.trouble(trouble);
    return false;
  }
  m_window.say(tr("The labels are in %1").arg(QDir::toNativeSeparators(path)));
  return true;
}

void FileActions::exportBagLabels(const QStringList& labels) {
  const auto path = m_prompts.fileToMake(tr("Labels of the bags as PDF"),
                                         suggestedName(tr(" - bags") + ".pdf"), tr("PDF (*.pdf)"));
  if (path.isEmpty()) return;
  const auto trouble = writePdf(labels, m_window.units().pageSize(), path,
                                QString::fromStdString(m_window.editor().document().name));
  if (!trouble.isEmpty()) return m_prompts.trouble(trouble);
  m_window.say(tr("The labels are in %1").arg(QDir::toNativeSeparators(path)));
}

void FileActions::exportStageCard() {
  const auto path = m_prompts.fileToMake(tr("Card of all stages as PDF"),
                                         suggestedName(tr(" - stages") + ".pdf"), tr("PDF (*.pdf)"));
  if (!path.isEmpty()) exportStageCardTo(path);
}

bool FileActions::exportStageCardTo(const QString& path) {
  if (!mayLeave()) return false;
  const auto trouble =
      writePdf({stageCardHtml(m_window.editor(), m_window.units(), dayAndVersion())},
               m_window.units().pageSize(), path, QString::fromStdString(m_window.editor().document().name));
  if (!trouble.isEmpty()) {
    m_prompts.trouble(trouble);
    return false;
  }
  m_window.say(tr("The card is in %1").arg(QDir::toNativeSeparators(path)));
  return true;
}

void FileActions::printLabels() {
  if (!mayLeave()) return;
  QPrinter printer(QPrinter::HighResolution);
  printer.setPageSize(m_window.units().pageSize());
  QPrintDialog dialog(&printer, &m_window);
  if (dialog.exec() != QDialog::Accepted) return;
  paintPages(tankLabels(m_window.editor(), m_window.units(), dayAndVersion()), printer);
}

std::optional<int> FileActions::keepVersion(const QString& why) {
  if (!m_window.desk().isOpen() || m_window.desk().isReadOnly())
    return std::nullopt; // looking only: the paper is not of this book's making
  const auto kept = m_window.desk().makeVersion(why);
  if (!kept) m_prompts.trouble(tr("The version was not kept.\n\n%1").arg(problemWords(kept.problem())));
  return kept ? std::optional(*kept) : std::nullopt;
}

void FileActions::nameVersion() {
  const auto name = m_prompts.words(tr("Name this version"),
                                    tr("The formula as it stands now is kept for good under this name:"), {});
  if (name.isEmpty()) return;
  const auto number = m_window.desk().makeVersion("named", name);
  if (!number) return m_prompts.trouble(problemWords(number.problem()));
  m_window.say(tr("Version %1, “%2”, is kept.").arg(*number).arg(name));
}

void FileActions::binFormula() {
  const auto name = m_window.editor().document().name;
  if (const auto trouble = m_window.desk().book().moveToBin(m_window.desk().inHand(), name))
    return m_prompts.trouble(problemWords(*trouble));
  m_window.say(
      tr("“%1” lies in the bin (Book station). Ctrl+Z brings it back.").arg(QString::fromStdString(name)));
}

/// A paper says of which version of the formula it is; that one is kept, so that it can be found again.
QString FileActions::dayAndVersion() {
  return dateOnSheet(QDate::currentDate(), keepVersion("printed"));
}

QString FileActions::suggestedName(const QString& ending) const {
  return m_settings.value("files/folder", QDir::homePath()).toString() + "/" +
         fileNameOf(QString::fromStdString(m_window.editor().document().name)) + ending;
}

} // namespace butte::app
