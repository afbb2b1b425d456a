#pragma once
#include "base/deed.h"

#include <string>

/// What a test does, in a word: as a sentence kept by an older version.
inline butte::core::Deed told(const std::string& words) {
  return {butte::core::DeedCode::Told, {words}};
}
