#pragma once
#include "solve/limit_search.h"
#include "solve/linear_model.h"
#include "solve/solve.h"

namespace butte::core {

/// What keeps one element from its band.
struct Obstacles {
  double reachable = 0; ///< mg/L: as near as it comes when nothing else gets worse
  bool reachesBand = false;
  std::vector<BindingLimit> limits; ///< the irreducible set that holds it, the strongest first
  bool everyCarrier = false;        ///< every product that could move it meets the first limit
};

/// For an answer that leaves bands: how far could this element go if every other kept its band (or, being
/// outside, got no worse), and which limits stop it there. A linear program; its duals name the limits, so
/// that all limits not named could go without any gain.
class ObstacleSearch {
public:
  ObstacleSearch(const SolveRequest& request, const LinearModel& model, const Eigen::VectorXd& x);

  /// Direction +1: it should rise; -1: it should fall.
  Obstacles of(Eigen::Index row, int direction);

private:
  /// One limit that holds, before it is put into words.
  struct Holding {
    enum Kind { Inequality, Bound, Equality } kind;
    Eigen::Index index;
    double effect;
  };
  void collect(Eigen::Index row, int direction, Obstacles& out);
  void describe(const Holding& holding, int direction, Obstacles& out) const;
  void describeEdge(std::size_t edge, BindingLimit& limit) const;
  BindingLimit limitOfInequality(std::size_t inequality) const;
  std::optional<BindingLimit> limitOfBound(Eigen::Index column) const;
  std::vector<std::string> carriersThatMeet(int direction, const Eigen::RowVectorXd& limit) const;
  bool couldMove(Eigen::Index column, int direction) const;

  const SolveRequest& m_request;
  const LinearModel& m_model;
  const Eigen::VectorXd& m_x;
  std::optional<LimitSearch> m_search; ///< made when it is first needed
  std::vector<double> m_most;          ///< of each band edge
  std::vector<Eigen::Index> m_movers;  ///< products that carry the element asked for and could move it
};

} // namespace butte::core
