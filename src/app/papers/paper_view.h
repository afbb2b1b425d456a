#pragma once
#include "papers/reading_source.h"
#include "report/report_text.h"
#include "scan/paper_reader.h"

#include <QPixmap>
#include <QWidget>

namespace butte::app {

/// The pages of a paper as they look, one below the other, as wide as there is room; what was read of them
/// underlined, what asks shaded.
class PaperView : public QWidget, public ReadingSource {
  Q_OBJECT

public:
  explicit PaperView(QWidget* parent = nullptr);
  void show(const scan::Paper& paper);
  void mark(const reading::ReportText& read);
  void markLines(const std::vector<reading::Place>& sure, const std::vector<reading::Place>& asks);
  int lineTop(int line) const override;
  int lineHeight(int line) const override;
  /// The picture around a figure, to be looked at beside it; of a place that is a whole line, around what
  /// stands there as `figure`. Nothing where that would be too small to read.
  QPixmap around(const reading::Place& place, const std::string& figure, int height) const;

signals:
  /// Lines stand elsewhere: the room has changed.
  void moved();

protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

private:
  struct Page {
    QImage picture;
    QRectF text; ///< the part with words: margins take room and say nothing
    double top = 0, scale = 1;
    QPixmap shown;
  };
  struct Mark {
    std::size_t page = 0;
    QRectF room;
    bool asks = false;
  };
  void layOut();
  QRectF onView(std::size_t page, const QRectF& room) const;
  QRectF roomOfFigure(const reading::Place& place, const std::string& figure) const;
  QRectF roomOf(const reading::Place& place, std::size_t& page) const;

  std::vector<Page> m_pages;
  reading::LaidOut m_text;
  std::vector<Mark> m_marks;
};

} // namespace butte::app
