#include "app/sheet/names.h"

#include <QCoreApplication>

#include "blank/landmarks.h"
#include "mask/material.h"

namespace nine::app {

QString said(const std::string& sentence) {
    return sentence.empty() ? QString() : QCoreApplication::translate("core", sentence.c_str());
}

QString materialName(std::string_view id) {
    const auto material = findMaterial(id);
    return said(std::string(material ? material->name : id));
}

QString landmarkName(const std::string& name) {
    return said(spokenName(name));
}

QString percentText(double fraction) {
    return QString::number(100 * fraction, 'f', fraction < 0.01 ? 2 : 1) + " %";
}

}  // namespace nine::app
