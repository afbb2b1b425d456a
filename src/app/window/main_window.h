#pragma once
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "mends/mend_finder.h"
#include "services/device_desk.h"
#include "services/notifier.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "streams/stream_desk.h"
#include "window/stations.h"

#include <QMainWindow>
#include <QSettings>
#include <functional>
#include <map>
#include <optional>

class QHBoxLayout;
class QLabel;
class QStackedWidget;

namespace butte::app {

class StageStrip;
class ElementLanes;
class BookActions;
class BookPage;
class EditActions;
class FileActions;
class FirstStart;
class LineBar;
class ProductList;
class ProductPage;
class BenchPage;
class RunPage;
enum class RunSort : int;
class StocksPage;
class TankPage;
class ShelfPage;
class WaterPage;
class ViewActions;

/// The whole chain at once: the line across the top, the station in hand, the shelf beside it, the tanks
/// below.
class MainWindow : public QMainWindow {
  Q_OBJECT

public:
  /// Settings and data live where the caller says, so that tests touch nothing of the user's. Without a book
  /// the window shows the way in.
  MainWindow(QSettings& settings, const QString& dataFolder, QWidget* parent = nullptr);
  ~MainWindow() override;

  FormulaEditor& editor() { return m_editor; }
  StageStrip& stages() { return *m_stages; }
  UnitsShown& units() { return m_units; }
  FileActions& files() { return *m_files; }
  BookDesk& desk() { return m_desk; }
  DeviceDesk& devices() { return m_devices; }
  StreamDesk& streams() { return m_streams; }
  BookActions& books() { return *m_books; }
  MendFinder& mends() { return m_mends; }
  BookPage& bookPage() { return *m_bookPage; }
  StocksPage& stocksPage() { return *m_stocks; }
  TankPage& tankPage() { return *m_tank; }
  ShelfPage& shelfPage() { return *m_shelf; }
  Prompts& prompts() { return m_prompts; }
  Notifier& notifier() { return m_notifier; }
  void showStation(Station station);
  Station station() const { return m_station; }
  /// The short way in: units, crop, water, products.
  void showFirstStart();
  /// Opens the finder with a text in it.
  void findText(const QString& text);
  /// Opens a thing where it is worked on: a formula at its station, the rest in the Book station.
  void showRecord(const book::Ref& ref);
  /// A water report as a PDF or a picture: to the Water station.
  void openReport(const QString& path);
  void say(const QString& words);
  /// Ends the window so that the program opens anew (startAgainCode), unless something is not kept; tests put
  /// their own in its place.
  std::function<void()> openAnew;

protected:
  void resizeEvent(QResizeEvent* event) override;
  void closeEvent(QCloseEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

private:
  QWidget* makeStations();
  void addStation(Station station, QWidget* page);
  void connectParts(QWidget* acid);
  void connectBench(BenchPage* bench);
  QWidget* makeTankPage();
  QWidget* makeShelfPage();
  void keepMixedBatch();
  void runAtTheBench(RunSort sort);
  void showRun();
  bool beginRun(RunSort sort);
  std::optional<std::size_t> askedBags();
  void light(const std::string& productId);
  void refreshTitle();
  void askForProduct(const std::string& id);

  QSettings& m_settings;
  FormulaEditor m_editor;
  UnitsShown m_units;
  BookDesk m_desk;
  DeviceDesk m_devices;
  StreamDesk m_streams;
  MendFinder m_mends;
  Prompts m_prompts;
  Notifier m_notifier;
  QStackedWidget* m_pages = nullptr;
  QHBoxLayout* m_body = nullptr;
  QStackedWidget* m_side = nullptr;
  LineBar* m_line = nullptr;
  StageStrip* m_stages = nullptr;
  ElementLanes* m_lanes = nullptr;
  ProductList* m_products = nullptr;
  ProductPage* m_productPage = nullptr;
  FileActions* m_files = nullptr;
  BookActions* m_books = nullptr;
  BookPage* m_bookPage = nullptr;
  StocksPage* m_stocks = nullptr;
  WaterPage* m_water = nullptr;
  TankPage* m_tank = nullptr;
  ShelfPage* m_shelf = nullptr;
  FirstStart* m_firstStart = nullptr;
  QLabel *m_banner = nullptr, *m_kept = nullptr;
  RunPage* m_run = nullptr;
  QWidget *m_productView = nullptr, *m_firstView = nullptr,
          *m_runView = nullptr; ///< the pages that belong to no station of their own
  std::map<Station, QWidget*> m_stationPages;
  std::map<StationSide, QWidget*> m_sides;
  Station m_station = Station::Formula;
};

} // namespace butte::app
