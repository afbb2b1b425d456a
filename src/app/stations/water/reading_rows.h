#pragma once
#include "memory/row_answers.h"
#include "papers/reading_source.h"
#include "report/report_text.h"

#include <QPixmap>
#include <QWidget>
#include <functional>
#include <optional>
#include <vector>

namespace butte::app {

/// What was read of a paper, line by line, each at the height of its source and joined to it: sure figures
/// quietly, doubtful ones with what they could be, answered by one press. Nothing is hidden: what is not
/// needed stands there too.
class ReadingRows : public QWidget {
  Q_OBJECT

public:
  explicit ReadingRows(QWidget* parent = nullptr);
  /// Beside what the rows stand: set before show(). `around`: the picture of a figure; nothing for a text.
  using Around = std::function<QPixmap(const reading::Place&, const std::string& figure, int height)>;
  void standBeside(const ReadingSource& source, Around around = {});
  void show(const reading::ReportText& read);
  /// What was said of papers of this layout before: pressed already, to be pressed off where it is wrong.
  void recall(const reading::RowsAnswered& known);
  /// Parallel to the unplaced rows: what was chosen for each.
  const reading::RowsAnswered& answers() const { return m_answers; }
  /// How many still ask.
  int open() const;
  /// The source's lines stand elsewhere.
  void place();

signals:
  void answered();

protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

private:
  struct Row {
    int line = 0;
    std::size_t from = 0;
    QString text;
    QPixmap strip; ///< of a sure line, beside its words
    bool doubtful = false, quiet = false;
    QWidget* asks = nullptr; ///< its buttons
    int top = 0, sourceTop = 0, sourceMiddle = 0;
  };
  Row sureRow(const reading::ReadRow& row) const;
  QWidget* makeAsking(std::size_t unplaced, const reading::UnplacedRow& row);
  void choose(std::size_t unplaced, std::size_t choice, bool on);
  void answer(std::size_t unplaced, std::optional<core::ReportRow> row, bool said);
  void addChoices(QWidget* box, std::size_t unplaced, const reading::UnplacedRow& row);
  void addTyping(QWidget* box, std::size_t unplaced, const reading::UnplacedRow& row);
  void addPlaces(QWidget* box, std::size_t unplaced, const reading::UnplacedRow& row);
  void addLeaving(QWidget* box, std::size_t unplaced);
  void showChosen(std::size_t unplaced);

  const ReadingSource* m_source = nullptr;
  Around m_around;
  reading::ReportText m_read;
  std::vector<Row> m_rows;
  reading::RowsAnswered m_answers;
  std::vector<bool> m_asked; ///< still open
};

/// "Ca 35.2 mg/L", "pH 7.4", as a row of a report is said.
QString rowText(const core::ReportRow& row);

} // namespace butte::app
