#include "solve/column_factor.h"

#include <cmath>

namespace butte::core {

using Eigen::Index;
using Eigen::VectorXd;

namespace {
/// The pivot of a unit column is the sine of its angle to those before it: below this it depends on them.
constexpr double leastSine = 1e-6;
} // namespace

ColumnFactor::ColumnFactor(const Eigen::MatrixXd& a)
    : m_a(a), m_scale(a.cols()), m_stride(static_cast<std::size_t>(std::min(a.rows(), a.cols()))),
      m_rows(m_stride * m_stride) {
  for (Index j = 0; j < a.cols(); ++j) {
    const double length = a.col(j).norm();
    m_scale[j] = length > 0 ? 1 / length : 0;
  }
}

bool ColumnFactor::take(const std::vector<Index>& columns) {
  std::size_t same = 0;
  while (same < columns.size() && same < m_taken.size() && columns[same] == m_taken[same])
    ++same;
  m_taken.resize(same);
  for (std::size_t i = same; i < columns.size(); ++i) {
    if (!append(columns[i])) return false;
  }
  return true;
}

bool ColumnFactor::append(Index column) {
  const std::size_t k = m_taken.size();
  if (k == m_stride) return false; // more columns than rows
  const auto own = m_a.col(column);
  double rest = m_scale[column] > 0 ? 1 : 0;
  double* const last = row(k);
  for (std::size_t i = 0; i < k; ++i) {
    double sum = m_a.col(m_taken[i]).dot(own) * m_scale[m_taken[i]] * m_scale[column];
    for (std::size_t c = 0; c < i; ++c)
      sum -= row(i)[c] * last[c];
    last[i] = sum * row(i)[i];
    rest -= last[i] * last[i];
  }
  if (!(rest >= leastSine * leastSine)) return false;
  last[k] = 1 / std::sqrt(rest);
  m_taken.push_back(column);
  return true;
}

VectorXd ColumnFactor::nearest(const VectorXd& b) const {
  const std::size_t k = m_taken.size();
  VectorXd z(static_cast<Index>(k));
  for (std::size_t i = 0; i < k; ++i) {
    double sum = m_a.col(m_taken[i]).dot(b) * m_scale[m_taken[i]];
    for (std::size_t c = 0; c < i; ++c)
      sum -= row(i)[c] * z[static_cast<Index>(c)];
    z[static_cast<Index>(i)] = sum * row(i)[i];
  }
  for (std::size_t i = k; i-- > 0;) {
    const double own = z[static_cast<Index>(i)] *= row(i)[i];
    for (std::size_t c = 0; c < i; ++c)
      z[static_cast<Index>(c)] -= row(i)[c] * own;
  }
  for (std::size_t i = 0; i < k; ++i)
    z[static_cast<Index>(i)] *= m_scale[m_taken[i]];
  return z;
}

} // namespace butte::core
