#include "services/prompts.h"

#include "window/main_window.h"
#include "wording/tr.h"

#include <QFileDialog>
#include <QInputDialog>
#include <QMessageBox>
#include <QPushButton>

namespace butte::app {

Prompts dialogPrompts(MainWindow& window) {
  Prompts prompts;
  prompts.fileToOpen = [&window](const QString& title, const QString& path, const QString& filter) {
    return QFileDialog::getOpenFileName(&window, title, path, filter);
  };
  prompts.fileToMake = [&window](const QString& title, const QString& path, const QString& filter) {
    return QFileDialog::getSaveFileName(&window, title, path, filter);
  };
  prompts.words = [&window](const QString& title, const QString& label, const QString& text) {
    bool ok = false;
    const auto typed = QInputDialog::getText(&window, title, label, QLineEdit::Normal, text, &ok);
    return ok ? typed.trimmed() : QString();
  };
  prompts.goOn = [&window](const QString& title, const QString& text, const QString& goOn) {
    QMessageBox box(QMessageBox::Question, title, {}, QMessageBox::Cancel, &window);
    box.setTextFormat(Qt::PlainText); // names and other people's texts stand in it
    box.setText(text);
    auto* yes = box.addButton(goOn, QMessageBox::AcceptRole);
    box.setDefaultButton(QMessageBox::Cancel);
    box.exec();
    return box.clickedButton() == yes;
  };
  prompts.trouble = [&window](const QString& text) {
    QMessageBox box(QMessageBox::Warning, "Butte", {}, QMessageBox::Ok, &window);
    box.setTextFormat(Qt::PlainText);
    box.setText(text);
    box.exec();
  };
  return prompts;
}

} // namespace butte::app
