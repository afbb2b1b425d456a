#pragma once
#include "book/reading.h"
#include "book/vessel_facts.h"

#include <QAbstractButton>
#include <map>
#include <optional>
#include <string>

namespace butte::app {

/// One vessel as a card: drawn to what is in it, its last readings beside it, and what is wrong with its
/// logger.
class VesselCard : public QAbstractButton {
  Q_OBJECT

public:
  VesselCard(std::string uid, QWidget* parent = nullptr);
  const std::string& uid() const { return m_uid; }
  void show(const book::VesselFacts& facts, const std::map<std::string, book::Reading>& last,
            book::Moment now, const QString& trouble = {});
  QSize sizeHint() const override { return QSize(224, 62); }
  /// Everything that stands on it, for a reader.
  QString said() const { return m_said; }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void paintVessel(QPainter& painter, const QRectF& room) const;
  std::string m_uid;
  QString m_name, m_readings, m_when, m_said;
  bool m_troubled = false;
  std::optional<double> m_share, m_low; ///< of the full mark
};

} // namespace butte::app
