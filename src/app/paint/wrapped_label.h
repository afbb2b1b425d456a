#pragma once
#include "paint/plain_label.h"

#include <utility>
#include <vector>

namespace butte::app {

/// A label of wrapped text that remembers how high it is at a width. A layout asks that of every such label,
/// at several widths, whenever anything in the window changes its size, and each answer lays the text out
/// anew.
class WrappedLabel : public PlainLabel {
public:
  explicit WrappedLabel(const QString& text = {}, QWidget* parent = nullptr);
  int heightForWidth(int width) const override;

protected:
  void changeEvent(QEvent* event) override;

private:
  mutable QString m_known;                            ///< the text that the heights are of
  mutable std::vector<std::pair<int, int>> m_heights; ///< width, height
};

} // namespace butte::app
