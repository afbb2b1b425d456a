#pragma once
#include "window/stations.h"

#include <QAbstractButton>
#include <QWidget>
#include <vector>

namespace butte::app {

class BookDesk;
class FormulaEditor;
class UnitsShown;

/// One station of the line: its name, two lines of live headline, its state in shape and words.
class StationCard : public QAbstractButton {
  Q_OBJECT

public:
  StationCard(const QString& name, int number, QWidget* parent);
  void setHeadline(const QString& first, const QString& second, bool trouble);
  QString headline() const { return m_first + " · " + m_second; }
  /// On a low screen only the name, for the page below it needs the room.
  void setLow(bool low);
  QSize sizeHint() const override { return m_low ? QSize(86, 28) : QSize(114, 66); }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void paintTrouble(QPainter& painter) const;
  QString m_name, m_first, m_second;
  int m_number;
  bool m_trouble = false, m_low = false;
};

/// The work in its order, across the top: dashboard and navigation in one.
class LineBar : public QWidget {
  Q_OBJECT

public:
  LineBar(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent = nullptr);
  StationCard* card(Station station) const { return m_cards[static_cast<std::size_t>(station)]; }
  void setCurrent(Station station);
  void setLow(bool low);

signals:
  void chosen(butte::app::Station station);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void refresh();
  void refreshBook();
  void refreshTank();
  FormulaEditor& m_editor;
  UnitsShown& m_units;
  BookDesk& m_desk;
  std::vector<StationCard*> m_cards;
};

} // namespace butte::app
