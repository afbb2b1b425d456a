#pragma once

namespace butte::app {

/// From here on the sentences of src/words come through the program's translators and with the decimal mark
/// of the person's locale. To be called once the translators are installed, and again when they change.
void speakTheProgramsLanguage();

} // namespace butte::app
