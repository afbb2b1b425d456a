#pragma once
#include "formula/mix.h"

#include <QStringList>

namespace butte::app {

/// What would cloud a solution within hours, a sentence each: "The feed: about 12 mg/L of brushite ... may
/// fall out within minutes". Amounts that no eye sees are left out.
QStringList fallingSentences(const QString& where, const core::MixResult& mix);

} // namespace butte::app
