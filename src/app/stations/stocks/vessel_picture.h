#pragma once
#include <QWidget>

namespace butte::app {

class FormulaEditor;

/// A tank drawn to its volume beside the others: the salts as layers by weight, what lies on the floor
/// hatched black, the water above.
class VesselPicture : public QWidget {
public:
  VesselPicture(FormulaEditor& editor, std::size_t tank, QWidget* parent = nullptr);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  FormulaEditor& m_editor;
  std::size_t m_tank;
};

} // namespace butte::app
