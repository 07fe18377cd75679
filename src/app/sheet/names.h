// What the core calls things, in the words on the screen: patterns of the core go through the translator,
// then their values are put in, lengths in the unit on the screen.
#pragma once

#include <QString>
#include <string_view>

#include "base/result.h"

namespace nine::app {

/// A sentence of the core (errors, verdicts, warnings).
QString said(const Words& words);
inline QString said(const Error& error) {
    return said(error.words);
}

/// "Masking tape"; the id itself if it is unknown.
QString materialName(std::string_view id);
/// "Opaque", "Through a stencil".
QString paintName(std::string_view id);
QString practiceName(std::string_view id);
/// "gill plate".
QString landmarkName(const std::string& name);

/// With its first letter large, for titles.
QString capital(QString words);

/// A fraction as "2.7 %", finer below one per cent.
QString percentText(double fraction);

}  // namespace nine::app
