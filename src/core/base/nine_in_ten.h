#pragma once

namespace butte::core {

/// Nine in ten of a bell curve lie within so many standard deviations to each side of its middle.
inline constexpr double sigmasOfNineInTen = 1.645;

} // namespace butte::core
