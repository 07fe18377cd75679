// nine-leaves: the window.
//
//   nine-leaves [FILE] | --demo
//   nine-leaves --demo --pictures DIR [--size 1280x800] [--theme dark] [--scale 2] [--leaf NAME]   pictures
//   of every view nine-leaves --demo --do-the-job DIR    the main job through the real window, then quits
#include <QApplication>
#include <QCommandLineParser>
#include <QElapsedTimer>
#include <QLocale>
#include <QStyleFactory>
#include <QTemporaryDir>
#include <QTextStream>
#include <QThread>

#include "app/pictures.h"
#include "app/quiet.h"
#include "app/sheet/units_text.h"
#include "base/thread_role.h"

int main(int count, char** words) {
    // In one piece: what the command line asks for, one thing after the other.
    using namespace nine::app;
    // Without a display the program can still draw its pictures.
    const bool displayed =
        !qEnvironmentVariableIsEmpty("DISPLAY") || !qEnvironmentVariableIsEmpty("WAYLAND_DISPLAY");
    if (!displayed && qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    for (int i = 1; i + 1 < count; ++i) {  // must be known before the application is
        if (qstrcmp(words[i], "--scale") == 0) qputenv("QT_SCALE_FACTOR", words[i + 1]);
    }
    provideRuntimeFolder();
    keepToolkitQuiet();
    QApplication application(count, words);
    QApplication::setApplicationName("nine-leaves");
    QApplication::setApplicationVersion(NINE_VERSION);
    QApplication::setStyle(QStyleFactory::create("Fusion"));
    loadFonts();
    nine::thisThreadPaints = true;
    QApplication::setFont(inter(12));
    useInches(QLocale::system().measurementSystem() != QLocale::MetricSystem);

    QCommandLineParser parser;
    parser.setApplicationDescription(QObject::tr("Fitted stencils for lure painters"));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument("file", QObject::tr("a job or a table of readings"));
    const QCommandLineOption demo("demo", QObject::tr("open the demo job"));
    const QCommandLineOption pictures("pictures", QObject::tr("write a PNG of every view and quit"),
                                      "folder");
    const QCommandLineOption job(
        "do-the-job", QObject::tr("do the demo job in the window, write its pages and quit"), "folder");
    const QCommandLineOption size("size", QObject::tr("size of the window"), "WxH", "1280x800");
    const QCommandLineOption theme("theme", QObject::tr("light or dark"), "name", "light");
    const QCommandLineOption leaf("leaf", QObject::tr("only this leaf in pictures"), "name");
    const QCommandLineOption scale("scale", QObject::tr("pixels of the screen for one of the window"),
                                   "factor", "1");
    QCommandLineOption shown("quit-when-shown", QObject::tr("quit after the first picture of the window"));
    shown.setFlags(QCommandLineOption::HiddenFromHelp);
    parser.addOptions({shown, demo, pictures, job, size, theme, leaf, scale});
    parser.process(application);
    QTextStream err(stderr);

    useDarkTheme(parser.value(theme) == "dark");
    const QStringList sides = parser.value(size).split('x');
    const QSize wanted(sides.value(0).toInt(), sides.value(1).toInt());
    if (wanted.width() < 600 || wanted.height() < 400 || wanted.width() > 8000 || wanted.height() > 8000) {
        err << QObject::tr("--size should be like 1280x800.") << Qt::endl;
        return 2;
    }
    if (parser.isSet(pictures)) useInches(false);
    // What it does by itself leaves nothing behind in the user's own folder.
    QTemporaryDir ownFolder;
    const bool byItself = parser.isSet(pictures) || parser.isSet(job);
    MainWindow window(byItself ? ownFolder.path() : QString());
    if (parser.isSet(size) || parser.isSet(pictures) || parser.isSet(job) || parser.isSet(shown))
        window.resize(wanted);
    else
        window.restorePlace();
    window.show();
    if (parser.isSet(shown)) {  // for timing: everything is painted by the time the queue is empty
        (void)window.grab();
        return 0;
    }
    if (!parser.isSet(pictures) && !parser.isSet(job)) window.offerRecovery();
    if (parser.isSet(demo) && window.document().empty()) window.openDemo();
    if (!parser.positionalArguments().isEmpty()) {
        const QString path = parser.positionalArguments().first();
        if (parser.isSet(pictures)) {
            if (const auto opened = window.document().openFile(path); !opened) {
                err << QString::fromStdString(opened.error().text()) << Qt::endl;
                return 1;
            }
        } else {
            window.openPath(path);
        }
    }
    if (parser.isSet(pictures))
        return takePictures(window, parser.value(pictures), parser.value(leaf), parser.value(theme), err);
    if (parser.isSet(job)) return doTheJob(window, parser.value(job), err);
    return QApplication::exec();
}
