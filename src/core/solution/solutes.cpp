#include "solution/solutes.h"

namespace butte::core {
namespace {

struct ComponentInfo {
  std::string_view species;
  /// Charge of the component in the form that alkalinity is counted against (CO2, H2PO4-, whole acids).
  int charge;
};
constexpr std::array<ComponentInfo, componentCount> componentInfos{{{"Na+", 1},
                                                                    {"K+", 1},
                                                                    {"NH4+", 1},
                                                                    {"Ca+2", 2},
                                                                    {"Mg+2", 2},
                                                                    {"NO3-", -1},
                                                                    {"Cl-", -1},
                                                                    {"SO4-2", -2},
                                                                    {"CO3-2", 0},
                                                                    {"PO4-3", -1},
                                                                    {"B(OH)3", 0},
                                                                    {"H4SiO4", 0},
                                                                    {"Fe+2", 2},
                                                                    {"Mn+2", 2},
                                                                    {"Zn+2", 2},
                                                                    {"Cu+2", 2},
                                                                    {"MoO4-2", -2},
                                                                    {"Cit-3", 0},
                                                                    {"Ac-", 0}}};

} // namespace

std::string_view componentSpecies(Component component) {
  return componentInfos[static_cast<std::size_t>(component)].species;
}

void Solutes::addScaled(const Solutes& other, double factor) {
  for (std::size_t i = 0; i < componentCount; ++i)
    mol[i] += other.mol[i] * factor;
  for (std::size_t i = 0; i < chelateMol.size(); ++i)
    chelateMol[i] += other.chelateMol[i] * factor;
  alkalinityEq += other.alkalinityEq * factor;
}

Solutes Solutes::scaled(double factor) const {
  Solutes out;
  out.addScaled(*this, factor);
  return out;
}

double Solutes::unbalancedEq() const {
  double charge = -alkalinityEq;
  for (std::size_t i = 0; i < componentCount; ++i)
    charge += mol[i] * componentInfos[i].charge;
  for (std::size_t i = 0; i < chelateMol.size(); ++i)
    charge -= chelateMol[i] * static_cast<double>(i + 1);
  return charge;
}

} // namespace butte::core
