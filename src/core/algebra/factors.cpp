#include "algebra/factors.h"

#include <Eigen/Dense>

namespace butte::core {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

struct RowSpace::Factors {
  Eigen::ColPivHouseholderQR<MatrixXd> qr;
};

VectorXd leastSquares(const MatrixXd& a, const VectorXd& b) {
  return a.colPivHouseholderQr().solve(b);
}

VectorXd leastNormLeastSquares(const MatrixXd& a, const VectorXd& b) {
  return a.completeOrthogonalDecomposition().solve(b);
}

RowSpace::RowSpace(const MatrixXd& rows, double threshold)
    : m_factors(std::make_unique<Factors>(Factors{Eigen::ColPivHouseholderQR<MatrixXd>(rows.transpose())})) {
  m_factors->qr.setThreshold(threshold);
}

RowSpace::~RowSpace() = default;

Index RowSpace::rank() const {
  return m_factors->qr.rank();
}

MatrixXd RowSpace::nullSpace() const {
  const auto& qr = m_factors->qr;
  return MatrixXd(qr.householderQ()).rightCols(qr.rows() - qr.rank());
}

VectorXd RowSpace::projected(const VectorXd& v) const {
  const auto& qr = m_factors->qr;
  VectorXd turned = v;
  turned.applyOnTheLeft(qr.householderQ().adjoint());
  turned.tail(turned.size() - qr.rank()).setZero();
  turned.applyOnTheLeft(qr.householderQ());
  return turned;
}

Index rankOf(const MatrixXd& columns, double threshold) {
  Eigen::ColPivHouseholderQR<MatrixXd> qr(columns);
  qr.setThreshold(threshold);
  return qr.rank();
}

VectorXd solveSymmetric(const MatrixXd& a, const VectorXd& b) {
  const Eigen::LDLT<MatrixXd> factors(a);
  VectorXd x = factors.solve(b);
  x += factors.solve(b - a * x);
  return x;
}

SquareSolution solveSquare(const MatrixXd& a, const VectorXd& b, double leastReciprocalCondition) {
  const Eigen::FullPivLU<MatrixXd> lu(a);
  SquareSolution out{lu.rcond(), {}, {}};
  if (out.reciprocalCondition < leastReciprocalCondition) return out;
  out.x = lu.solve(b);
  out.inverse = lu.inverse();
  return out;
}

TriangularForm triangularForm(const MatrixXd& a, const VectorXd& b) {
  const Eigen::HouseholderQR<MatrixXd> qr(a);
  return {qr.matrixQR().topRows(a.cols()).triangularView<Eigen::Upper>(),
          (qr.householderQ().transpose() * b).head(a.cols())};
}

} // namespace butte::core
