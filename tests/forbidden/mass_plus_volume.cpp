#include "units/quantity.h"
using namespace butte::core;
#ifdef BAD
auto sum = Mass::fromGrams(1) + Volume::fromLitres(1);
#else
auto sum = Mass::fromGrams(1) + Mass::fromOunces(1);
#endif
