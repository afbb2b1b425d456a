#include "tank/tank_filter.h"

#include "algebra/factors.h"
#include "tank/tank_meters.h"
#include "tank/tank_unknowns.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

/// Nine in ten lie within so many standard deviations to each side: more than the 1.645 of a bell curve,
/// since shares multiply and their tails are longer (held against 200 tanks of known truth).
constexpr double sigmasOfBand = 1.75;
/// How far along its axes a spread is looked at, in standard deviations: the root of 3 suits a bell curve
/// (Norgaard, Poulsen & Ravn 2000, from memory).
constexpr double stride = 1.7320508075688772;
/// Past so many a reading is no longer believed as it stands: once in ten thousand if all is as modelled.
constexpr double sigmasOfDoubt = 4;
constexpr double usualLevelSd = 0.02; // of the full vessel: a mark or a stick in waves, common practice
constexpr double rainSd = 0.1;        // of what a gauge says, common practice

Band bandOf(double value, double sd, double least = -HUGE_VAL) {
  return {value, std::max(value - sigmasOfBand * sd, least), value + sigmasOfBand * sd};
}

/// The lower triangular factor of what these columns spread together.
MatrixXd squeezed(const MatrixXd& columns) {
  return triangularForm(columns.transpose(), VectorXd::Zero(columns.cols())).r.transpose();
}

} // namespace

/// What is believed: the likeliest unknowns and a factor L of their covariance L L'.
struct TankFilter::State {
  TankPriors priors;
  double day = 0;
  VectorXd x;
  MatrixXd spread;

  ReservoirContent content() const { return unknowns::contentOf(x); }
  double sdOf(const VectorXd& row) const { return (spread.transpose() * row).norm(); }

  /// Runs everything through `change` along the axes of its spread, then adds what `noise` adds.
  template <class Change> void carry(Change change, const std::vector<VectorXd>& noise) {
    const auto n = x.size();
    MatrixXd columns(n, 2 * n + static_cast<Eigen::Index>(noise.size()));
    const VectorXd here = change(x);
    VectorXd bent = VectorXd::Zero(n);
    for (Eigen::Index j = 0; j < n; ++j) {
      const VectorXd ahead = change(x + stride * spread.col(j)), back = change(x - stride * spread.col(j));
      const VectorXd second = ahead + back - 2 * here;
      columns.col(j) = (ahead - back) / (2 * stride);
      columns.col(n + j) = second * std::sqrt(stride * stride - 1) / (2 * stride * stride);
      bent += second / (2 * stride * stride);
    }
    for (std::size_t k = 0; k < noise.size(); ++k)
      columns.col(2 * n + static_cast<Eigen::Index>(k)) = noise[k];
    x = here + bent;
    spread = squeezed(columns);
  }
  /// The same of what is in the vessel alone.
  template <class Change> void change(Change inVessel, const std::vector<VectorXd>& noise) {
    carry(
        [&](const VectorXd& at) {
          auto content = unknowns::contentOf(at);
          inVessel(content);
          return unknowns::withContent(at, content);
        },
        noise);
  }

  void work(double days);
  /// Takes a figure in by Potter's form: `row` is its slope, `off` how much more was read than expected.
  void correct(const VectorXd& row, double off, double variance);
  ReadingCheck checked(ReadingKind kind, const Band& expected, double read, double offInSigmas) const;

  ReadingCheck takeLevel(const logged::Read& read);
  std::optional<ReadingCheck> takeConductivity(const logged::Read& read);
  std::optional<ReadingCheck> takePh(const logged::Read& read);
  void doubtLevel(double litres);
  void doubt(const VectorXd& direction);

  void take(const logged::Poured& deed);
  void take(const logged::FilledTo& deed);
  void take(const logged::Dissolved& deed);
  void take(const logged::Drained& deed);
  void take(const logged::Emptied& deed);
  void take(const logged::Rained& deed);
  void take(const logged::Analysed& deed);
};

TankFilter::TankFilter(const TankPriors& priors, const ReservoirContent& start, double startRelativeSd)
    : m_state(std::make_unique<State>()) {
  m_state->priors = priors;
  m_state->x = unknowns::startOf(start);
  m_state->spread = unknowns::startSpread(priors, start, startRelativeSd);
}
TankFilter::TankFilter(const TankFilter& other) : m_state(std::make_unique<State>(*other.m_state)) {}
TankFilter& TankFilter::operator=(const TankFilter& other) {
  *m_state = *other.m_state;
  return *this;
}
TankFilter::TankFilter(TankFilter&&) noexcept = default;
TankFilter& TankFilter::operator=(TankFilter&&) noexcept = default;
TankFilter::~TankFilter() = default;

double TankFilter::day() const {
  return m_state->day;
}
ReservoirContent TankFilter::content() const {
  return m_state->content();
}
const TankPriors& TankFilter::priors() const {
  return m_state->priors;
}
ReservoirFlow TankFilter::flow() const {
  return unknowns::flowOf(m_state->x, m_state->priors.flow);
}
void TankFilter::setFlow(const ReservoirFlow& flow) {
  m_state->priors.flow = flow;
}

void TankFilter::advanceTo(double day) {
  while (m_state->day < day - 1e-9) {
    const double step = std::min(1.0, day - m_state->day);
    m_state->work(step);
    m_state->day += step;
  }
}

void TankFilter::State::work(double days) {
  const auto after = [&](const VectorXd& at, double waterShift) {
    auto flow = unknowns::flowOf(at, priors.flow);
    flow.transpirationLPerDay *= std::exp(waterShift);
    return unknowns::withContent(at, passed(unknowns::contentOf(at), flow, days).content);
  };
  // Days are unlike each other: what a part of a day is off grows with the root of its length.
  const double sd = priors.dayToDaySd / std::sqrt(days), probe = std::min(sd, 0.3);
  std::vector<VectorXd> noise{(after(x, probe) - after(x, -probe)) / (2 * probe) * sd};
  for (const auto& [index, perRootDay] : unknowns::wandering(priors, x)) {
    VectorXd column = VectorXd::Zero(x.size());
    column[index] = perRootDay * std::sqrt(days);
    noise.push_back(std::move(column));
  }
  carry([&](const VectorXd& at) { return after(at, 0); }, noise);
}

void TankFilter::State::correct(const VectorXd& row, double off, double variance) {
  const VectorXd seen = spread.transpose() * row;
  const double total = seen.squaredNorm() + variance;
  if (!(total > 0)) return;
  const VectorXd gain = spread * seen / total;
  x += gain * off;
  spread -= gain * seen.transpose() / (1 + std::sqrt(variance / total));
}

ReadingCheck TankFilter::State::checked(ReadingKind kind, const Band& expected, double read,
                                        double offInSigmas) const {
  return {day, kind, expected, read, std::abs(offInSigmas) <= sigmasOfDoubt};
}

void TankFilter::State::doubt(const VectorXd& direction) {
  MatrixXd columns(x.size(), x.size() + 1);
  columns << spread, direction;
  spread = squeezed(columns);
}

/// More or less in it than anybody wrote down: the litres are believed, what came or went is a guess with its
/// doubt (anything from water to twice as strong as the tank; or all drunk, or all drained).
void TankFilter::State::doubtLevel(double litres) {
  const auto stands = content();
  const double share = stands.volume > Volume{} ? litres / stands.volume.litres() - 1 : 0;
  auto content = stands;
  content.milligrams.addScaled(stands.milligrams, share / 2);
  content.alkalinityMeq *= 1 + share / 2;
  content.volume = Volume::fromLitres(litres);
  const auto before = x;
  x = unknowns::withContent(x, content);
  VectorXd direction = x - before;
  direction[unknowns::litres] = 0;
  doubt(direction);
}

ReadingCheck TankFilter::State::takeLevel(const logged::Read& read) {
  const double sd = read.levelSd > Volume{} ? read.levelSd.litres() : usualLevelSd * priors.full.litres();
  VectorXd row = VectorXd::Zero(x.size());
  row[unknowns::litres] = 1;
  const double own = sdOf(row), total = std::hypot(own, sd), off = read.level->litres() - x[unknowns::litres];
  const auto check =
      checked(ReadingKind::Level, bandOf(x[unknowns::litres], total, 0), read.level->litres(), off / total);
  if (!check.fits) doubtLevel(read.level->litres());
  correct(row, read.level->litres() - x[unknowns::litres], sd * sd);
  return check;
}

std::optional<ReadingCheck> TankFilter::State::takeConductivity(const logged::Read& read) {
  const auto air = priors.air;
  const auto meter = [&](const FeedContent& content) { return conductivityOf(content, air); };
  auto seen = unknowns::slopeOf(x, meter);
  if (!seen) return std::nullopt;
  const double factor = std::exp(x[unknowns::penGain()]);
  const double expected = factor * seen->value;
  seen->row *= factor;
  seen->row[unknowns::penGain()] = expected;
  const double sd = read.conductivitySd * expected, total = std::hypot(sdOf(seen->row), sd);
  const double off = read.at25->milliSiemensPerCm() - expected;
  const auto check = checked(ReadingKind::Conductivity, bandOf(expected, total, 0),
                             read.at25->milliSiemensPerCm(), off / total);
  if (check.fits) {
    correct(seen->row, off, sd * sd);
  } else {
    // The whole strength may be as far off as the reading says, or the pen: both stay open.
    doubt(unknowns::strengthOf(x) * (off / expected));
  }
  return check;
}

std::optional<ReadingCheck> TankFilter::State::takePh(const logged::Read& read) {
  const auto air = priors.air;
  const double truly = *read.ph - x[unknowns::penPh()];
  const auto lacking = [&](const FeedContent& content) -> std::optional<double> {
    const auto then = alkalinityAtPh(content, truly, air);
    return then ? std::optional(content.alkalinityMeqPerL - *then) : std::nullopt;
  };
  auto seen = unknowns::slopeOf(x, lacking);
  const auto perLitre = content().perLitre();
  if (!seen || !perLitre) return std::nullopt;
  const auto expected = phOf(*perLitre, air);
  const auto above = alkalinityAtPh(*perLitre, truly + read.phSd, air),
             below = alkalinityAtPh(*perLitre, truly - read.phSd, air);
  if (!expected || !above || !below) return std::nullopt;
  const double perPh = (*above - *below) / (2 * read.phSd);
  seen->row[unknowns::penPh()] = perPh;
  const double sd = perPh * read.phSd, total = std::hypot(sdOf(seen->row), sd);
  const auto at = [&](double shift) {
    auto shifted = *perLitre;
    shifted.alkalinityMeqPerL += shift;
    return phOf(shifted, air).value_or(*expected) + x[unknowns::penPh()];
  };
  const Band band{*expected + x[unknowns::penPh()], at(-sigmasOfBand * total), at(sigmasOfBand * total)};
  const auto check = checked(ReadingKind::Ph, band, *read.ph, seen->value / total);
  if (check.fits) {
    correct(seen->row, -seen->value, sd * sd);
  } else {
    VectorXd direction = VectorXd::Zero(x.size());
    direction[unknowns::unbalanced()] = seen->value * x[unknowns::litres];
    doubt(direction);
  }
  return check;
}

void TankFilter::State::take(const logged::Poured& deed) {
  const auto poured = unknowns::columnOf(deed.liquid, deed.volume.litres());
  VectorXd strength = poured * priors.pourSd;
  strength[unknowns::litres] = 0;
  change([&](ReservoirContent& content) { content.pour(deed.liquid, deed.volume); },
         {strength, poured * priors.pourSd});
}

void TankFilter::State::take(const logged::FilledTo& deed) {
  const double missing = std::max(deed.mark.litres() - x[unknowns::litres], 0.0);
  VectorXd strength = unknowns::columnOf(deed.liquid, missing) * priors.pourSd;
  strength[unknowns::litres] = 0;
  const auto past = unknowns::columnOf(deed.liquid, priors.markSd * priors.full.litres());
  change(
      [&](ReservoirContent& content) {
        content.pour(deed.liquid, std::max(deed.mark - content.volume, Volume{}));
      },
      {strength, past});
}

void TankFilter::State::take(const logged::Dissolved& deed) {
  const FeedContent salts{deed.milligrams, deed.alkalinityMeq};
  VectorXd strength = unknowns::columnOf(salts, 1) * priors.pourSd;
  strength[unknowns::litres] = 0;
  change(
      [&](ReservoirContent& content) {
        content.milligrams.addScaled(deed.milligrams, 1);
        content.alkalinityMeq += deed.alkalinityMeq;
      },
      {strength});
}

void TankFilter::State::take(const logged::Drained& deed) {
  VectorXd off = VectorXd::Zero(x.size());
  off =
      -unknowns::strengthOf(x) * (priors.pourSd * deed.volume.litres() / std::max(x[unknowns::litres], 1e-9));
  off[unknowns::litres] = -priors.pourSd * deed.volume.litres();
  change([&](ReservoirContent& content) { content.drain(deed.volume); }, {off});
}

void TankFilter::State::take(const logged::Emptied&) {
  change([](ReservoirContent& content) { content = {}; }, {});
}

void TankFilter::State::take(const logged::Rained& deed) {
  VectorXd off = VectorXd::Zero(x.size());
  off[unknowns::litres] = rainSd * deed.volume.litres();
  change([&](ReservoirContent& content) { content.volume = content.volume + deed.volume; }, {off});
}

void TankFilter::State::take(const logged::Analysed& deed) {
  for (const auto n : deed.named) {
    const auto seen = unknowns::concentrationOf(x, n);
    const double read = deed.milligramsPerLitre.of(n), sd = deed.relativeSd * read;
    correct(seen.row, read - seen.value, std::max(sd * sd, 1e-12));
  }
}

std::vector<ReadingCheck> TankFilter::take(const TankDeed& deed) {
  std::vector<ReadingCheck> out;
  if (const auto* read = std::get_if<logged::Read>(&deed)) {
    if (read->level) out.push_back(m_state->takeLevel(*read));
    if (read->at25)
      if (const auto check = m_state->takeConductivity(*read)) out.push_back(*check);
    if (read->ph)
      if (const auto check = m_state->takePh(*read)) out.push_back(*check);
    return out;
  }
  std::visit(
      [&](const auto& one) {
        if constexpr (!std::is_same_v<std::decay_t<decltype(one)>, logged::Read>) m_state->take(one);
      },
      deed);
  return out;
}

TankEstimate TankFilter::estimate() const {
  const auto& s = *m_state;
  TankEstimate out;
  out.day = s.day;
  VectorXd row = VectorXd::Zero(s.x.size());
  const auto single = [&](Eigen::Index index) {
    row.setZero();
    row[index] = 1;
    return s.sdOf(row);
  };
  out.litres = bandOf(s.x[unknowns::litres], single(unknowns::litres), 0);
  for (const auto n : keptNutrients) {
    const auto seen = unknowns::concentrationOf(s.x, n);
    out.milligramsPerLitre[static_cast<std::size_t>(n)] = bandOf(seen.value, s.sdOf(seen.row), 0);
  }
  const auto alkalinity = unknowns::alkalinityOf(s.x);
  out.alkalinityMeqPerL = bandOf(alkalinity.value, s.sdOf(alkalinity.row));
  const auto meter = [&](const FeedContent& content) { return conductivityOf(content, s.priors.air); };
  if (const auto seen = unknowns::slopeOf(s.x, meter)) out.at25 = bandOf(seen->value, s.sdOf(seen->row), 0);
  out.ph = phBand();
  const auto factor = [&](Eigen::Index index, double of) {
    const double sd = single(index);
    return Band{of * std::exp(s.x[index]), of * std::exp(s.x[index] - sigmasOfBand * sd),
                of * std::exp(s.x[index] + sigmasOfBand * sd)};
  };
  out.transpirationLPerDay = factor(unknowns::water(), s.priors.flow.transpirationLPerDay);
  out.uptakeLevel = factor(unknowns::level(), 1);
  out.penGain = factor(unknowns::penGain(), 1);
  out.penPhOffset = bandOf(s.x[unknowns::penPh()], single(unknowns::penPh()));
  return out;
}

std::optional<Band> TankFilter::phBand() const {
  const auto& s = *m_state;
  const auto perLitre = s.content().perLitre();
  if (!perLitre) return std::nullopt;
  const auto alkalinity = unknowns::alkalinityOf(s.x);
  const double sd = s.sdOf(alkalinity.row);
  const auto at = [&](double shift) {
    auto shifted = *perLitre;
    shifted.alkalinityMeqPerL += shift;
    return phOf(shifted, s.priors.air);
  };
  const auto likeliest = at(0), low = at(-sigmasOfBand * sd), high = at(sigmasOfBand * sd);
  if (!likeliest || !low || !high) return std::nullopt;
  return Band{*likeliest, *low, *high};
}

} // namespace butte::core
