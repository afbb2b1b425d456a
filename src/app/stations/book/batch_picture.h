#pragma once
#include "book/store.h"
#include "paint/time_picture.h"

#include <vector>

namespace butte::app {

class BookDesk;

/// Batches over time: each mark stands as high as its worst weighing is off plan; its shape tells the crop,
/// its size how many batches it stands for.
class BatchPicture : public TimePicture {
  Q_OBJECT

public:
  explicit BatchPicture(BookDesk& desk, QWidget* parent = nullptr);
  void show(const book::BatchFilter& filter);
  int markCount() const override { return static_cast<int>(m_buckets.size()); }
  QPointF placeOf(int mark) const override;

signals:
  void stretchChosen(book::Moment from, book::Moment before);
  void explained(const QString& words);

protected:
  void paintEvent(QPaintEvent* event) override;
  void fetch() override;
  void showAll() override;
  void explain(int mark) override;
  void choose(int mark) override;

private:
  double yOf(double percent) const;
  int shapeOf(const std::string& crop) const;
  void paintScale(QPainter& painter) const;
  void paintMark(QPainter& painter, std::size_t mark) const;
  QString wordsOf(const book::BatchBucket& bucket) const;

  BookDesk& m_desk;
  book::BatchFilter m_filter;
  std::vector<book::BatchBucket> m_buckets;
  std::vector<std::string> m_crops;
  std::int64_t m_width = 1;
  double m_top = 6;
};

} // namespace butte::app
