#pragma once
#include "document/draft_keeper.h"
#include "document/formula_editor.h"
#include "services/units_shown.h"

#include <QMainWindow>
#include <QSettings>

class QLabel;
class QStackedWidget;

namespace butte::app {

class ElementLanes;
class EditActions;
class FileActions;
class LineBar;
class ProductList;
class ProductPage;
class ViewActions;

/// The whole chain at once: the line across the top, the station in hand, the shelf beside it, the tanks below.
class MainWindow : public QMainWindow {
  Q_OBJECT

public:
  /// Settings and drafts live where the caller says, so that tests touch nothing of the user's.
  MainWindow(QSettings& settings, const QString& draftFolder, QWidget* parent = nullptr);
  ~MainWindow() override;

  FormulaEditor& editor() { return m_editor; }
  UnitsShown& units() { return m_units; }
  FileActions& files() { return *m_files; }
  DraftKeeper& draft() { return m_draft; }
  void showStation(int index);
  void say(const QString& words);

protected:
  void closeEvent(QCloseEvent* event) override;

private:
  QWidget* makeStations();
  void light(const std::string& productId);
  void refreshTitle();
  void askForProduct(const std::string& id);

  QSettings& m_settings;
  FormulaEditor m_editor;
  UnitsShown m_units;
  DraftKeeper m_draft;
  QStackedWidget* m_pages = nullptr;
  QStackedWidget* m_side = nullptr;
  LineBar* m_line = nullptr;
  ElementLanes* m_lanes = nullptr;
  ProductList* m_products = nullptr;
  ProductPage* m_productPage = nullptr;
  FileActions* m_files = nullptr;
};

} // namespace butte::app
