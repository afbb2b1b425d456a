#pragma once
#include "document/background.h"
#include "document/shelf_story.h"
#include "edits/lot_edits.h"

#include <QTimer>
#include <QWidget>
#include <functional>
#include <string>
#include <vector>

class QButtonGroup;
class QScrollArea;
class QStackedWidget;
class QVBoxLayout;

namespace butte::app {

class AgendaView;
class BookDesk;
class ClosedTextView;
class DeliveryForm;
class FormulaEditor;
class LotPanel;
class MoneyView;
class NumberField;
class OtherwisePanel;
class ProductPlank;
class UnitsShown;
class WhileSeen;
struct Prompts;

/// The farm's shelf: what is in the bags, how long it does, what to buy, what it costs.
class ShelfPage : public QWidget {
  Q_OBJECT

public:
  ShelfPage(BookDesk& desk, FormulaEditor& editor, UnitsShown& units, Prompts& prompts,
            QWidget* parent = nullptr);
  /// What a scale beside shows at rest, where there is one.
  std::function<std::optional<core::Mass>()> scaleShows;
  void focusFirst();
  void showProduct(const std::string& product);
  enum class View { Bags, Order, Money, Agenda };
  static constexpr int viewCount = 4;
  void showView(View view);
  const std::string& product() const { return m_product; }
  /// Nothing is being worked out, or about to be.
  bool isSettled() const { return !m_work.isBusy() && !m_unseen.isActive(); }
  const ShelfStory& story() const { return *m_story; }

signals:
  void message(const QString& words);
  /// How the shelf stands, for its card: the first to run out, and whether that asks for something.
  void told(const QString& first, const QString& second, bool trouble);

protected:
  void showEvent(QShowEvent* event) override;

private:
  void makeHead(QVBoxLayout* column);
  QWidget* makeShelfView();
  QWidget* makeOrderView();
  void outdate();
  void refresh();
  void take(ShelfStory story);
  void showStory();
  void tellCard();
  void refreshPlanks();
  void refreshOrder();
  void deliver(const std::string& product);
  void writeTable();
  void writePaper();
  void printPaper();

  BookDesk& m_desk;
  UnitsShown& m_units;
  Prompts& m_prompts;
  LotEdits m_edits;
  Background m_work;
  SharedShelfStory m_story = std::make_shared<const ShelfStory>();
  std::string m_product;
  int m_weeks = 8;
  std::vector<ProductPlank*> m_planks;
  QVBoxLayout* m_plankColumn = nullptr;
  QScrollArea* m_plankRoom = nullptr;
  QButtonGroup* m_heads;
  QStackedWidget *m_views, *m_side;
  LotPanel* m_lots;
  OtherwisePanel* m_otherwise;
  DeliveryForm* m_form;
  MoneyView* m_money;
  ClosedTextView* m_order;
  AgendaView* m_agenda;
  NumberField* m_weeksField;
  WhileSeen* m_seen;
  QTimer m_unseen; ///< its card stands on the line: brought up to date a while after a change
};

} // namespace butte::app
