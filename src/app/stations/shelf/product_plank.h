#pragma once
#include "document/shelf_story.h"
#include "paint/hatch.h"

#include <QAbstractButton>
#include <string>
#include <vector>

namespace butte::app {

class UnitsShown;

/// One product's board of the shelf: its bags drawn to what is in them, the weeks they do beside it.
class ProductPlank : public QAbstractButton {
  Q_OBJECT

public:
  explicit ProductPlank(std::string product, QWidget* parent = nullptr);
  const std::string& product() const { return m_product; }
  void show(const ShelfStory& story, const UnitsShown& units);
  QSize sizeHint() const override { return QSize(620, 58); }
  QSize minimumSizeHint() const override { return QSize(420, 58); }
  /// Everything that stands on it, for a reader.
  QString said() const { return m_said; }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  struct Bag {
    double size = 1;  ///< of the drawing
    double share = 0; ///< full
    bool isPast = false;
  };
  void paintBag(QPainter& painter, const QRectF& room, const Bag& bag) const;
  void paintBags(QPainter& painter, double left, double right) const;
  std::string m_product;
  QString m_name, m_left, m_lasts, m_below, m_said;
  bool m_hasty = false, m_used = false;
  ProductLook m_look;
  std::vector<Bag> m_bags;
};

} // namespace butte::app
