#pragma once
#include <QLabel>

namespace butte::app {

/// A label that takes text for text: what was typed or read shows as it stands, marks and all, and nothing is
/// loaded for it. One that shows marks of its own says so, setTextFormat(Qt::RichText), and escapes what it
/// puts between them. (QLabel by itself guesses, and a product's name may then open files.)
class PlainLabel : public QLabel {
public:
  explicit PlainLabel(const QString& text = {}, QWidget* parent = nullptr) : QLabel(parent) {
    setTextFormat(Qt::PlainText);
    setText(text);
  }
  explicit PlainLabel(QWidget* parent) : PlainLabel(QString(), parent) {}
};

} // namespace butte::app
