#pragma once
#include <QLineEdit>
#include <functional>

namespace butte::app {

/// What a numeric field takes: one description per quantity drives every field.
struct FieldSpec {
  QString name;   ///< for screen readers and messages: "potassium target"
  QString unit;   ///< shown behind the number: "mg/L"
  double least = 0;
  double most = 1e9;
  bool mayBeEmpty = false;
  bool mayBeBelow = false; ///< "< 0.02", a limit of detection, is taken too; onTyped then gets "<0.02"
};

/// The one way to type a number. Answers each key: a good number goes to `onTyped` at once, a bad one turns the
/// field red and says in words what would be right, while the last good value stays in force. Reads a decimal
/// point or comma. What was typed stays in the field until it is mended.
class NumberField : public QLineEdit {
  Q_OBJECT

public:
  explicit NumberField(FieldSpec spec, QWidget* parent = nullptr);

  /// Shows digits that come from the document; leaves alone what is being typed when it means the same.
  void show(const QString& digits);
  bool isWrong() const { return !m_message.isEmpty(); }
  QString message() const { return m_message; }
  void setWrong(const QString& message);

  /// Called with the digits (decimal point) on every good change; an empty string where empty is allowed.
  std::function<void(const QString& digits)> onTyped;
  /// Called with the words when the field turns wrong, and with "" when it is mended.
  std::function<void(const QString& message)> onMessage;

protected:
  bool event(QEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

private:
  void read(const QString& text);
  FieldSpec m_spec;
  QString m_message;
  QString m_shown;
};

} // namespace butte::app
