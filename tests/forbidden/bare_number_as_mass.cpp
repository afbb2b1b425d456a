#include "units/quantity.h"
using namespace butte::core;
#ifdef BAD
Mass mass = 12.5;
#else
Mass mass = Mass::fromGrams(12.5);
#endif
