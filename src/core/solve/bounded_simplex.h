#pragma once
#include <Eigen/Core>

#include <optional>
#include <vector>

namespace butte::core {

/// The primal simplex method for a small linear program whose every variable and row lies between two ends,
/// from a point that keeps them all (Chvatal, "Linear Programming" (1983), ch. 3 and 8: dictionaries, bounded
/// variables). Dense, in doubles: for some twenty rows and a hundred columns, asked again and again.
///
/// The start need not be a corner: a variable may stand between its ends without being in the basis, until
/// the objective moves it. Every answer is held against the rows as they were given; where doubles left a
/// doubt it says so instead of answering.
class BoundedSimplex {
public:
  struct Ends {
    double least, most; ///< either may be infinite
  };
  enum class Outcome { Optimal, Unbounded, InDoubt };

  /// `start` keeps all ends but for rounding; else every answer is InDoubt.
  BoundedSimplex(const Eigen::MatrixXd& rows, std::vector<Ends> rowEnds, const Eigen::VectorXd& lower,
                 const Eigen::VectorXd& upper, const Eigen::VectorXd& start);

  void setRowEnds(Eigen::Index row, Ends ends);
  /// Minimises direction . x, each time from the start.
  Outcome least(const Eigen::RowVectorXd& direction);

  /// After Optimal. A price is what the least value rises by for each unit that a row's end, or a variable's,
  /// rises by; 0 where it is not what holds it.
  double value() const { return m_value; }
  double priceOfRow(Eigen::Index row) const { return m_prices[columns() + row]; }
  double priceOfVariable(Eigen::Index column) const { return m_prices[column]; }

private:
  using Index = Eigen::Index;
  using Table = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
  /// The basic variables over the others, the objective as the last row; and where every variable stands.
  /// Variables are counted columns first, then rows.
  struct Dictionary {
    Table table;
    std::vector<Index> basic, other;
    Eigen::VectorXd at;
  };
  struct Step {
    Index leaving = -1; ///< row of the dictionary; -1: the entering variable crosses to its own other end
    double length = 0;
  };

  Index columns() const { return m_rows.cols(); }
  bool keepsEnds(const Eigen::VectorXd& all) const;
  void bringIn();
  Index pickEntering(const Dictionary& d, bool careful) const;
  std::optional<Step> pickLeaving(const Dictionary& d, Index entering, double sign) const;
  void move(Dictionary& d, Index entering, double sign, const Step& step) const;
  static void pivot(Dictionary& d, Index row, Index column);
  bool holds(const Dictionary& d, const Eigen::RowVectorXd& objective) const;
  void readPrices(const Dictionary& d, const Eigen::RowVectorXd& direction);

  Table m_rows; ///< scaled: the largest number of each row and column about 1
  Eigen::VectorXd m_rowScale, m_columnScale;
  std::vector<Ends> m_ends; ///< scaled, of all variables
  Dictionary m_start;
  double m_value = 0;
  Eigen::VectorXd m_prices;
};

} // namespace butte::core
