#pragma once
#include "fields/number_field.h"

namespace butte::app {

/// A figure of a vessel beside its name: may be empty, `typed` keeps it, `said` hears what is wrong with it.
NumberField* factField(FieldSpec spec, const QString& object, std::function<void(const QString&)> typed,
                       std::function<void(const QString&)> said);

} // namespace butte::app
