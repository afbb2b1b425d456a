#pragma once
#include <QWidget>
#include <string>
#include <utility>
#include <vector>

namespace butte::app {

class FormulaEditor;

/// A tank drawn to its volume beside the others: the salts as layers by weight, what lies on the floor
/// hatched black, the water above.
class VesselPicture : public QWidget {
public:
  VesselPicture(FormulaEditor& editor, std::size_t tank, QWidget* parent = nullptr);
  /// Repaints where the tank looks otherwise now.
  void refresh();

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  FormulaEditor& m_editor;
  std::size_t m_tank;
  /// What is seen: volumes, and each layer's product with its strength, in what half a pixel shows.
  using Seen = std::vector<std::pair<std::string, long>>;
  Seen m_seen;
};

} // namespace butte::app
