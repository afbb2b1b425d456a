#pragma once

namespace butte::core {

/// Nine in ten of a bell curve lie within so many standard deviations to each side of its middle.
inline constexpr double sigmasOfNineInTen = 1.645;

/// The same where the deviation itself is known from so many figures alone: Student's t, by the expansion of
/// Abramowitz & Stegun 26.7.5. Of a single figure nothing is known: the bell curve's.
inline double sigmasOfNineInTenOfFew(int figures) {
  constexpr double z = sigmasOfNineInTen;
  if (figures < 2) return z;
  const double freedom = figures - 1;
  return z + (z * z * z + z) / (4 * freedom) +
         (5 * z * z * z * z * z + 16 * z * z * z + 3 * z) / (96 * freedom * freedom);
}

} // namespace butte::core
