#pragma once
#include "document/side_by_side.h"

#include <QWidget>

namespace butte::app {

class UnitsShown;

/// Two states of a formula side by side: pairs of bars for what each weighs and what each gives, and what
/// changed in words.
class CompareView : public QWidget {
  Q_OBJECT

public:
  explicit CompareView(const UnitsShown& units, QWidget* parent = nullptr);
  void show(const SideBySide& sides);
  /// What is written beside a row, for tests: "K 205 → 225 mg/L".
  QStringList rowTexts() const;
  QStringList changes() const { return m_sides.changes; }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  QString figures(const book::ComparedRow& row, bool mass) const;
  int paintRows(QPainter& painter, const QString& title, const std::vector<book::ComparedRow>& rows,
                bool mass, QRect column) const;
  const UnitsShown& m_units;
  SideBySide m_sides;
};

} // namespace butte::app
