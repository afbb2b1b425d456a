#pragma once
#include <QLineEdit>
#include <functional>
#include <string>

namespace butte::app {

/// What a numeric field takes: one description per quantity drives every field.
struct FieldSpec {
  QString name; ///< for screen readers and messages: "potassium target"
  QString unit; ///< shown behind the number: "mg/L"
  double least = 0;
  double most = 1e9;
  bool mayBeEmpty = false;
  bool mayBeBelow = false; ///< "< 0.02", a limit of detection, is taken too; onTyped then gets "<0.02"
};

/// The unit that a field's digits are in, as core::convert() names it, and of what, where mass and amount
/// differ.
struct AskedUnit {
  std::string unit, substance;
};

/// The one way to type a number. Answers each key: a good number goes to `onTyped` at once, a bad one turns
/// the field red and says in words what would be right, while what stood before the typing counts again: what
/// is red counts for nothing. Reads a decimal point or comma, and any unit of the field's quantity behind the
/// number ("500 mL" in a field of litres). What was typed stays in the field until it is mended or left.
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
  /// The unit asked for just now, where it can change; else that of FieldSpec.
  std::function<AskedUnit()> asked;
  /// Reads what the unit asked for does not take, such as a rate where a weight is asked for: the digits in
  /// that unit, or empty.
  std::function<QString(const QString& text)> orElse;
  /// The digits that count, in the unit asked for: "" for none.
  QString digits() const { return m_shown; }
  /// Called with the words when the field turns wrong, and with "" when it is mended.
  std::function<void(const QString& message)> onMessage;

protected:
  bool event(QEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

private:
  void showName();
  void showDigits(const QString& digits);
  QString unitNow() const;
  void read(const QString& text);
  void refuse(const QString& message);
  void take(const QString& digits);
  QString meantByLimits(const QString& figure) const;
  QString inAskedUnit(const QString& figure, QString& fault) const;
  FieldSpec m_spec;
  QString m_message;
  QString m_shown;
  QString m_before;        ///< what stood before the hand began to type
  bool m_typing = false;   ///< since then
  bool m_withUnit = false; ///< what stands in the field is in a unit of its own
};

} // namespace butte::app
