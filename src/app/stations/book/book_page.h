#pragma once
#include "book/record.h"
#include "book/store.h"

#include <QTimer>
#include <QWidget>

class QButtonGroup;
class QLabel;
class QListView;
class QPushButton;
class QScrollArea;
class QStackedWidget;
class QTextBrowser;

namespace butte::app {

class BatchFilterRow;
class BatchModel;
class BatchPanel;
class BatchPicture;
class BookDesk;
class CompareView;
class CopiesPanel;
class FormulaEditor;
class ReadingList;
class VesselsNow;
class ThingModel;
class TrailPanel;
class UnitsShown;
struct Prompts;

/// The Book station: what was mixed, over time and off plan; everything that is kept; how it came to be; the
/// bin; copies.
class BookPage : public QWidget {
  Q_OBJECT

public:
  enum Section {
    Batches,
    Formulas,
    Waters,
    Targets,
    Products,
    StockPlans,
    Vessels,
    Readings,
    Papers,
    Bin,
    Copies
  };
  static constexpr int sectionCount = Copies + 1;

  BookPage(BookDesk& desk, FormulaEditor& editor, UnitsShown& units, Prompts& prompts,
           QWidget* parent = nullptr);
  /// What stands beside: the batch, the trail, help.
  QWidget* side() const;
  void showSection(Section section);
  void showRecord(const book::Ref& ref);
  void showVersion(const std::string& formulaUid, int version);

signals:
  void message(const QString& words);
  void recordAsked(const book::Ref& ref);

protected:
  void showEvent(QShowEvent* event) override;

private:
  QWidget* makeSections();
  QWidget* makeBatches();
  QWidget* makeThings();
  QWidget* makeAside(QWidget* content);
  QWidget* makeHelpSide();
  void refresh();
  void applyFilter();
  void fillThings();
  void chooseBatch(const QModelIndex& index);
  void chooseThing(const QModelIndex& index);
  void use(const book::Ref& ref);
  void keepCurrent();
  void binBatch();
  void onChanged(const std::vector<book::Ref>& refs);

  BookDesk& m_desk;
  FormulaEditor& m_editor;
  UnitsShown& m_units;
  Prompts& m_prompts;
  Section m_section = Batches;
  QButtonGroup* m_sections;
  QStackedWidget *m_center, *m_sideStack;
  BatchModel* m_batches;
  BatchPicture* m_picture;
  QListView *m_batchList, *m_thingList;
  ThingModel* m_things;
  BatchPanel* m_batchPanel;
  TrailPanel* m_trail;
  CopiesPanel* m_copies;
  ReadingList* m_readings;
  CompareView* m_compare;
  QTextBrowser* m_sheet;
  BatchFilterRow* m_filter;
  QLabel* m_empty;
  VesselsNow* m_vesselsNow;
  QPushButton* m_keep;
  QTimer m_later;
};

} // namespace butte::app
