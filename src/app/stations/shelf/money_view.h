#pragma once
#include "document/shelf_story.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace butte::app {

class ClosedTextView;
class FormulaEditor;
class MoneyPicture;
class NumberField;
class UnitsShown;
class WrappedLabel;

/// What the salts cost: by month, crop, product and element; and what another price would do.
class MoneyView : public QWidget {
  Q_OBJECT

public:
  MoneyView(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);
  void show(const SharedShelfStory& story);

signals:
  void message(const QString& words);

private:
  void refresh();
  void refreshElements();
  void refreshWhatIf();
  QString linesTable(const QString& title, const std::vector<book::CostLine>& lines, bool byFeed) const;
  QString pricesTable() const;
  FormulaEditor& m_editor;
  UnitsShown& m_units;
  SharedShelfStory m_story = std::make_shared<const ShelfStory>();
  book::CostReport m_report;
  QComboBox *m_period, *m_crop, *m_product;
  WrappedLabel *m_total, *m_changed;
  MoneyPicture* m_picture;
  ClosedTextView *m_lines, *m_elements;
  NumberField* m_price;
  QLabel* m_priceUnit;
};

} // namespace butte::app
