// The blank: its stations, landmarks, zones, and the pictures it was read from. Also how a blank stands in
// the library.
#pragma once

#include "blank/zones.h"
#include "job/chapter.h"

namespace nine {

/// The picture a body was read from, to be laid under its drawing: a reduced copy, and where it lies.
struct BackPicture {
    std::string file;       ///< name of the file it came from, for people
    std::string hash;       ///< of that file's bytes, to tell whether it is still the same
    std::string jpeg;       ///< the copy, up to kMostPictureBytes
    Vec2 nose_px, tail_px;  ///< of the copy, where the ends of the body lie
    bool fromAbove = false;
    std::string unknownJson = {};
};
using BackPicturePtr = std::shared_ptr<const BackPicture>;
constexpr std::size_t kMostPictureBytes = 2u << 20;

/// A part of rubber that is put on later: never painted, in no area, no mask reaches over it.
struct SoftTail {
    double length_mm = 0, height_mm = 0;
    std::string unknownJson = {};
};

struct BlankChapter {
    std::string name;
    StationTable table;
    Landmarks landmarks;
    std::string unknownJson;
    std::vector<Zone> zones;
    std::string family;  ///< of bodyFamilies(); empty when nobody said
    std::string source;  ///< "tracing", "photo", "family", "readings"; empty when nobody said
    std::vector<BackPicturePtr> pictures;
    SoftTail softTail;
};
using BlankPtr = std::shared_ptr<const BlankChapter>;

template <>
struct ChapterOf<BlankChapter> : UsualChapter<BlankChapter> {
    static constexpr const char* key = "blank";
    static constexpr bool needed = true;
    static BlankChapter read(json::Fields& fields, Warnings& warnings);
    static void write(json::Json& into, const BlankChapter& blank);
    static Status check(const Job& job);
};

/// What no paint and no mask may disregard: the zones drawn, and those that follow from landmarks.
std::vector<Zone> allZones(const Skin& skin, const BlankChapter& blank);

/// A job that holds only a blank of this name and readings.
Job jobOfBlank(std::string name, StationTable table);

}  // namespace nine
