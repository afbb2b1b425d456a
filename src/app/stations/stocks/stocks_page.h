#pragma once
#include <QWidget>
#include <vector>

class QButtonGroup;
class QComboBox;
class QHBoxLayout;
class QLabel;
class QStackedWidget;

namespace butte::app {

class BookDesk;
class DirectPanel;
class FormulaEditor;
class StockPanel;
class StrengthBar;
class StrengthRuler;
class TankCard;
class UnitsShown;

/// The Stocks station: through stock tanks, or straight into one vessel. Of tanks: how strong, the tanks as
/// they are, and below them what one wants to know of them: the way to the tap, cold nights, making them, how
/// long they last, a vessel by hand, the meter, the levels.
class StocksPage : public QWidget {
  Q_OBJECT

public:
  StocksPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent = nullptr);
  /// Parts in the order of their buttons.
  enum class Part { Way, Cold, Making, Supply, Vessel, Reading, Levels };
  static constexpr int partCount = static_cast<int>(Part::Levels) + 1;
  void showPart(Part part);

signals:
  void message(const QString& words);
  void labelsAsked();

protected:
private:
  QWidget* makeWays();
  QWidget* makeTanks();
  QWidget* makeParts();
  void makeCards();
  void refresh();
  void refreshRuler();
  void refreshApart();
  void refreshBeside();
  void drop(std::size_t from, const std::string& product, const QPoint& global, bool half);
  int cardAt(const QPoint& global) const;
  void aimAt(const QPoint& global);

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  BookDesk& m_desk;
  StrengthRuler* m_ruler = nullptr;
  QComboBox* m_beside = nullptr;
  QLabel *m_apart = nullptr, *m_besideText = nullptr;
  StrengthBar* m_strength = nullptr;
  QHBoxLayout* m_cardRow = nullptr;
  std::vector<TankCard*> m_cards;
  QButtonGroup* m_partButtons = nullptr;
  QStackedWidget* m_parts = nullptr;
  QButtonGroup* m_wayButtons = nullptr;
  QStackedWidget* m_ways = nullptr; ///< through tanks, or straight into a vessel
  DirectPanel* m_direct = nullptr;
};

} // namespace butte::app
