#pragma once
#include <Eigen/Core>

#include <array>
#include <cmath>

namespace butte::core {

/// The Cholesky factor of a positive definite matrix of at most N rows, scaled to a unit diagonal first: the
/// balances of a trace element and of a main one stand ten orders of magnitude apart.
///
/// An equilibrium factors some six such matrices of 3 to 20 rows, where the general routine of the library
/// spends most of its time on its own calls (bench/chemistry: three times as long).
template <int N> class ScaledCholesky {
public:
  using Vector = Eigen::Matrix<double, Eigen::Dynamic, 1, 0, N, 1>;
  using Matrix = Eigen::Matrix<double, N, N, Eigen::RowMajor>;

  /// Of the first `size` rows and columns of the matrix with this lower triangle; what stands above the
  /// diagonal is not read.
  ScaledCholesky(const Matrix& lower, int size) : m_size(size) {
    for (int i = 0; i < m_size; ++i)
      m_scale[at(i)] = 1 / std::sqrt(std::max(lower(i, i), smallestDiagonal));
    for (int i = 0; i < m_size && m_good; ++i) {
      for (int j = 0; j <= i; ++j) {
        double sum = lower(i, j) * m_scale[at(i)] * m_scale[at(j)];
        for (int k = 0; k < j; ++k)
          sum -= row(i)[k] * row(j)[k];
        if (j < i) {
          row(i)[j] = sum * m_inverse[at(j)];
        } else {
          sum += ridge;
          m_good = sum > 0;
          m_inverse[at(i)] = 1 / std::sqrt(sum);
        }
      }
    }
  }

  bool good() const { return m_good; }

  Vector solve(Vector b) const {
    for (int i = 0; i < m_size; ++i) {
      double sum = b[i] * m_scale[at(i)];
      for (int k = 0; k < i; ++k)
        sum -= row(i)[k] * b[k];
      b[i] = sum * m_inverse[at(i)];
    }
    for (int i = m_size - 1; i >= 0; --i) {
      b[i] *= m_inverse[at(i)];
      for (int k = 0; k < i; ++k)
        b[k] -= row(i)[k] * b[i];
      b[i] *= m_scale[at(i)];
    }
    return b;
  }

  /// Three right sides side by side.
  std::array<Vector, 3> solve(const std::array<const Vector*, 3>& b) const;

private:
  static constexpr double smallestDiagonal = 1e-290;
  static constexpr double ridge = 1e-15; ///< keeps a matrix that is singular to the last digit solvable

  static std::size_t at(int i) { return static_cast<std::size_t>(i); }
  double* row(int i) { return m_factor.data() + at(i) * N; }
  const double* row(int i) const { return m_factor.data() + at(i) * N; }

  int m_size;
  bool m_good = true;
  std::array<double, N> m_scale;
  std::array<double, N> m_inverse; ///< of the factor's diagonal
  std::array<double, static_cast<std::size_t>(N) * N> m_factor;
};

template <int N>
auto ScaledCholesky<N>::solve(const std::array<const Vector*, 3>& b) const -> std::array<Vector, 3> {
  using Lane = std::array<double, 4>; // the fourth stays empty: two pairs of doubles
  std::array<Lane, N> x;
  const auto take = [](Lane& from, double factor, const Lane& what) {
    for (std::size_t c = 0; c < from.size(); ++c)
      from[c] -= factor * what[c];
  };
  const auto scale = [](Lane& lane, double factor) {
    for (auto& v : lane)
      v *= factor;
  };
  for (int i = 0; i < m_size; ++i) {
    Lane sum{(*b[0])[i], (*b[1])[i], (*b[2])[i], 0};
    scale(sum, m_scale[at(i)]);
    for (int k = 0; k < i; ++k)
      take(sum, row(i)[k], x[at(k)]);
    scale(sum, m_inverse[at(i)]);
    x[at(i)] = sum;
  }
  for (int i = m_size - 1; i >= 0; --i) {
    Lane& own = x[at(i)];
    scale(own, m_inverse[at(i)]);
    for (int k = 0; k < i; ++k)
      take(x[at(k)], row(i)[k], own);
    scale(own, m_scale[at(i)]);
  }
  std::array<Vector, 3> out{Vector(m_size), Vector(m_size), Vector(m_size)};
  for (int i = 0; i < m_size; ++i) {
    for (std::size_t c = 0; c < out.size(); ++c)
      out[c][i] = x[at(i)][c];
  }
  return out;
}

} // namespace butte::core
