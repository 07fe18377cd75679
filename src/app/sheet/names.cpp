#include "app/sheet/names.h"

#include <QCoreApplication>

#include "app/sheet/units_text.h"
#include "base/number_text.h"
#include "blank/landmarks.h"
#include "mask/material.h"
#include "spray/profile.h"

namespace nine::app {

namespace {

QString valueText(const Said& said_) {
    if (const auto* words = std::get_if<std::shared_ptr<const Words>>(&said_.value)) return said(**words);
    if (const auto* name = std::get_if<std::string>(&said_.value)) return QString::fromStdString(*name);
    const double number = std::get<double>(said_.value);
    if (said_.measure == Measure::Share) return percentText(number);
    if (said_.measure == Measure::Length) return lengthText(number, said_.decimals);
    return QString::fromStdString(said_.decimals == kShortest ? numberText(number)
                                                              : fixedText(number, said_.decimals));
}

QString named(Pattern pattern, std::string_view id) {
    return pattern.empty() ? QString::fromUtf8(id.data(), static_cast<qsizetype>(id.size()))
                           : capital(said(pattern));
}

}  // namespace

QString said(const Words& words) {
    if (words.empty()) return {};
    const QString pattern = QCoreApplication::translate("core", words.pattern().text());
    return QString::fromStdString(filled(pattern.toStdString(), words,
                                         [](const Said& value) { return valueText(value).toStdString(); }));
}

QString materialName(std::string_view id) {
    const auto material = findMaterial(id);
    return named(material ? material->name : Pattern(), id);
}

QString paintName(std::string_view id) {
    const auto family = findPaint(id);
    return named(family ? family->name : Pattern(), id);
}

QString practiceName(std::string_view id) {
    for (const SprayPractice& p : sprayPractices()) {
        if (p.id == id) return capital(said(p.name));
    }
    return named({}, id);
}

QString landmarkName(const std::string& name) {
    return said(spokenName(name));
}

QString percentText(double fraction) {
    return QString::fromStdString(shareText(fraction));
}

QString capital(QString words) {
    if (!words.isEmpty()) words[0] = words[0].toUpper();
    return words;
}

}  // namespace nine::app
