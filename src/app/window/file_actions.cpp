#include "window/file_actions.h"

#include "document/formula_file.h"
#include "print/bench_sheet.h"
#include "print/sheet_text.h"
#include "window/main_window.h"
#include "words.h"

#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenuBar>
#include <QMessageBox>
#include <QPrintDialog>
#include <QPrinter>

namespace butte::app {

namespace {
constexpr int mostRecent = 8;
const char* filter = "Butte formulas (*.butte.json *.json)";

QString words(const core::Problem& problem) { return QString::fromStdString(words::problemLine(problem)); }
} // namespace

FileActions::FileActions(MainWindow& window, QSettings& settings)
    : QObject(&window), prompts(dialogPrompts(window)), m_window(window), m_settings(settings) {
  addActions(window.menuBar()->addMenu("&File"));
}

void FileActions::addActions(QMenu* menu) {
  const auto add = [&](const QString& text, QKeySequence keys, auto slot) { menu->addAction(text, keys, this, slot); };
  add("&New formula", QKeySequence::New, &FileActions::newFormula);
  add("&Open…", QKeySequence::Open, &FileActions::open);
  m_recent = menu->addMenu("Open &recent");
  connect(m_recent, &QMenu::aboutToShow, this, &FileActions::fillRecent);
  add("Open the &demo", {}, &FileActions::openDemo);
  menu->addSeparator();
  menu->addAction("&Save", QKeySequence::Save, this, [this] { save(); });
  menu->addAction("Save &as…", QKeySequence("Ctrl+Shift+S"), this, [this] { saveAs(); });
  menu->addSeparator();
  add("Bench sheet as &PDF…", QKeySequence("Ctrl+E"), &FileActions::exportSheet);
  add("P&rint bench sheet…", QKeySequence::Print, &FileActions::printSheet);
  menu->addSeparator();
  menu->addAction("&Quit", QKeySequence::Quit, &m_window, &QWidget::close);
}

bool FileActions::mayLeave() {
  if (!m_window.editor().isUnsaved()) return true;
  switch (prompts.aboutUnsaved(QString::fromStdString(m_window.editor().document().name))) {
  case Prompts::Unsaved::Save: return save();
  case Prompts::Unsaved::Discard: m_window.draft().discard(); return true;
  case Prompts::Unsaved::Stay: return false;
  }
  return false;
}

void FileActions::newFormula() {
  if (!mayLeave()) return;
  m_window.draft().setFilePath({});
  m_window.editor().load(exchange::emptyFormula(), false);
}

void FileActions::openDemo() {
  if (!mayLeave()) return;
  const auto json = readFormulaFile(":/demo/ormsey.json");
  if (!json) return prompts.trouble(words(json.problem()));
  m_window.draft().setFilePath({});
  m_window.editor().load(*json, false);
}

void FileActions::open() {
  if (!mayLeave()) return;
  const auto path = prompts.fileToOpen({});
  if (!path.isEmpty()) openFile(path);
}

bool FileActions::openFile(const QString& path) {
  const auto json = readFormulaFile(path);
  if (!json) {
    prompts.trouble(QString("%1 was not opened; what you have stays as it is.\n\n%2").arg(QFileInfo(path).fileName(), words(json.problem())));
    return false;
  }
  m_window.draft().setFilePath(path);
  m_window.editor().load(*json, false);
  remember(path);
  return true;
}

bool FileActions::save() {
  const auto path = m_window.draft().filePath();
  return path.isEmpty() ? saveAs() : saveTo(path);
}

bool FileActions::saveAs() {
  auto path = prompts.fileToSave(suggestedName(".butte.json"));
  if (path.isEmpty()) return false;
  if (!path.endsWith(".json")) path += ".butte.json";
  return saveTo(path);
}

bool FileActions::saveTo(const QString& path) {
  if (const auto problem = writeFormulaFile(path, m_window.editor().json())) {
    prompts.trouble("Not saved.\n\n" + words(*problem));
    return false;
  }
  m_window.draft().setFilePath(path);
  m_window.editor().markSaved();
  remember(path);
  m_window.say("Saved in " + QDir::toNativeSeparators(path));
  return true;
}

void FileActions::exportSheet() {
  const auto path = prompts.pdfToSave(suggestedName(".pdf"));
  if (!path.isEmpty()) exportSheetTo(path);
}

bool FileActions::exportSheetTo(const QString& path) {
  const auto html = benchSheetHtml(m_window.editor(), m_window.units(), QDateTime::currentDateTime());
  const auto trouble = writeSheetPdf(html, path, QString::fromStdString(m_window.editor().document().name));
  if (!trouble.isEmpty()) {
    prompts.trouble(trouble);
    return false;
  }
  m_window.say("The bench sheet is in " + QDir::toNativeSeparators(path));
  return true;
}

void FileActions::printSheet() {
  QPrinter printer(QPrinter::HighResolution);
  QPrintDialog dialog(&printer, &m_window);
  if (dialog.exec() != QDialog::Accepted) return;
  paintSheet(benchSheetHtml(m_window.editor(), m_window.units(), QDateTime::currentDateTime()), printer);
}

QString FileActions::suggestedName(const QString& ending) const {
  QString name = QString::fromStdString(m_window.editor().document().name);
  for (auto& c : name) {
    if (!c.isLetterOrNumber()) c = '-';
  }
  return m_settings.value("files/folder", QDir::homePath()).toString() + "/" + name.toLower() + ending;
}

QStringList FileActions::recentFiles() const { return m_settings.value("files/recent").toStringList(); }

void FileActions::remember(const QString& path) {
  auto files = recentFiles();
  files.removeAll(path);
  files.prepend(path);
  while (files.size() > mostRecent) files.removeLast();
  m_settings.setValue("files/recent", files);
  m_settings.setValue("files/folder", QFileInfo(path).absolutePath());
}

void FileActions::fillRecent() {
  m_recent->clear();
  for (const auto& path : recentFiles()) {
    m_recent->addAction(QDir::toNativeSeparators(path), this, [this, path] {
      if (mayLeave()) openFile(path);
    });
  }
  if (m_recent->isEmpty()) m_recent->addAction("none yet")->setEnabled(false);
}

Prompts dialogPrompts(MainWindow& window) {
  Prompts prompts;
  prompts.aboutUnsaved = [&window](const QString& name) {
    const auto answer = QMessageBox::question(&window, "Unsaved changes", QString("“%1” has changes that are not saved.").arg(name),
                                              QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
    if (answer == QMessageBox::Save) return Prompts::Unsaved::Save;
    return answer == QMessageBox::Discard ? Prompts::Unsaved::Discard : Prompts::Unsaved::Stay;
  };
  prompts.fileToOpen = [&window](const QString& path) { return QFileDialog::getOpenFileName(&window, "Open a formula", path, filter); };
  prompts.fileToSave = [&window](const QString& path) { return QFileDialog::getSaveFileName(&window, "Save the formula", path, filter); };
  prompts.pdfToSave = [&window](const QString& path) { return QFileDialog::getSaveFileName(&window, "Bench sheet as PDF", path, "PDF (*.pdf)"); };
  prompts.trouble = [&window](const QString& text) { QMessageBox::warning(&window, "Butte", text); };
  return prompts;
}

} // namespace butte::app
