#include "app/sheet/names.h"

#include <QCoreApplication>

#include "app/sheet/units_text.h"
#include "blank/landmarks.h"
#include "mask/material.h"
#include "spray/profile.h"

namespace nine::app {

QString said(const std::string& sentence) {
    if (sentence.empty()) return {};
    return lengthsInUnits(QCoreApplication::translate("core", sentence.c_str()));
}

QString materialName(std::string_view id) {
    const auto material = findMaterial(id);
    return said(std::string(material ? material->name : id));
}

QString paintName(std::string_view id) {
    const auto family = findPaint(id);
    return said(std::string(family ? family->name : id));
}

QString practiceName(std::string_view id) {
    for (const SprayPractice& p : sprayPractices()) {
        if (p.id == id) return said(std::string(p.name));
    }
    return QString::fromUtf8(id.data(), static_cast<qsizetype>(id.size()));
}

QString landmarkName(const std::string& name) {
    return said(spokenName(name));
}

QString percentText(double fraction) {
    return QString::number(100 * fraction, 'f', fraction < 0.01 ? 2 : 1) + " %";
}

QString capital(QString words) {
    if (!words.isEmpty()) words[0] = words[0].toUpper();
    return words;
}

}  // namespace nine::app
