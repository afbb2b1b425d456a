#include "units/quantity.h"
using namespace butte::core;
#ifdef BAD
Mass mass = Concentration::fromGramsPerLitre(2) * Mass::fromGrams(3);
#else
Mass mass = Concentration::fromGramsPerLitre(2) * Volume::fromLitres(3);
#endif
