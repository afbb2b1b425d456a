#pragma once
#include "book/store.h"
#include "paint/time_picture.h"

#include <QStringList>
#include <string>
#include <vector>

namespace butte::app {

class BookDesk;

/// Readings of one quantity over time, a line for each vessel: where several fall together, the line is their
/// mean and the bar behind it reaches from the least to the most.
class ReadingPicture : public TimePicture {
  Q_OBJECT

public:
  explicit ReadingPicture(BookDesk& desk, QWidget* parent = nullptr);
  /// A filter without a vessel shows all; the quantity must be one. The stretch in view stays where only the
  /// readings are others.
  void show(const book::ReadingFilter& filter);
  int markCount() const override { return static_cast<int>(m_buckets.size()); }
  QPointF placeOf(int mark) const override;

signals:
  /// The vessel and the end of the time that a pressed mark stands for.
  void chosen(const std::string& vesselUid, book::Moment before);
  void explained(const QString& words);

protected:
  void paintEvent(QPaintEvent* event) override;
  void fetch() override;
  void showAll() override;
  void explain(int mark) override;
  void choose(int mark) override;

private:
  double yOf(double value) const;
  int shapeOf(const std::string& vesselUid) const;
  QString vesselName(const std::string& vesselUid) const;
  QString valueText(double value) const;
  void nameVessels();
  void fitAxis();
  void paintScale(QPainter& painter) const;
  void paintVessel(QPainter& painter, std::size_t vessel) const;

  BookDesk& m_desk;
  book::ReadingFilter m_filter;
  std::vector<book::ReadingBucket> m_buckets;                 ///< of each vessel in the order of time
  std::vector<std::pair<std::string, std::string>> m_vessels; ///< uid, name
  std::int64_t m_width = 1;
  double m_least = 0, m_most = 1; ///< in the person's unit
};

} // namespace butte::app
