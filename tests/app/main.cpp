// Interface tests run without a display unless one is there.
#include <gtest/gtest.h>

#include <QApplication>
#include <QSettings>
#include <QStyleFactory>
#include <QTemporaryDir>

#include "app/theme/theme.h"
#include "base/thread_role.h"

namespace nine::app {
void editOnceAndBeKilled(const QString& state);  // nothing_lost_test.cpp
}

int main(int count, char** words) {
    testing::InitGoogleTest(&count, words);
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM") && qEnvironmentVariableIsEmpty("DISPLAY")) {
        qputenv("QT_QPA_PLATFORM", "offscreen");
    }
    QApplication::setAttribute(Qt::AA_DontUseNativeDialogs);
    QApplication application(count, words);
    QApplication::setApplicationName("nine-leaves-test");
    QApplication::setStyle(QStyleFactory::create("Fusion"));
    nine::app::loadFonts();
    const QTemporaryDir settings;  // not those of whoever runs the tests
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    nine::thisThreadPaints = true;
    if (count == 3 && qstrcmp(words[1], "--one-edit") == 0) nine::app::editOnceAndBeKilled(words[2]);
    return RUN_ALL_TESTS();
}
