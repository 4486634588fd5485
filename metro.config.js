const fs = require('node:fs');
const path = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// What the page must not carry: icon fonts that RNE asks for on its way to an icon, and Zod's translations.
const EMPTY = [/^@react-native-vector-icons\//, /^react-native-vector-icons\//];
// Of the router: tab bars, headers and stacks of its own, which nothing here shows.
const EMPTY_IN_ROUTER = [
  /(^|\/)react-navigation\/bottom-tabs$/,
  /(^|\/)layouts\/(Tabs|TabsClient|experimental-stack|stack-utils)$/,
  /(^|\/)split-view$/,
  /(^|\/)standard-navigation$/,
  /\/(DrawerRouter|StaticNavigation|createStaticNavigation|HrefPreview)$/,
];
const isUnusedOfRouter = (from, name) =>
  from.includes('/expo-router/build/') &&
  ((name === './stack' && from.endsWith('/expo-router/build/index.js')) ||
    EMPTY_IN_ROUTER.some((pattern) => pattern.test(name)) ||
    (name === '../../elements' && from.includes('/native-stack/views/')));
const EMPTY_IN_ZOD = /(^|\/)locales\/index(\.js)?$/;

// Under a licence that wants them to be exchangeable: they lie in files of their own.
const OWN_FILES = /^@audio\/decode-(mp3|flac|vorbis)$/;

const resolve = (context, name, platform) => {
  // A native bundle takes packages as they are.
  if (platform !== 'web') return context.resolveRequest(context, name, platform);
  const from = context.originModulePath;
  const [, decoder] = OWN_FILES.exec(name) ?? [];
  if (decoder)
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'workers', `${decoder}.ts`) };
  if (EMPTY.some((pattern) => pattern.test(name))) return { type: 'empty' };
  if (isUnusedOfRouter(from, name)) return { type: 'empty' };
  // A slot takes only its way of going from page to page from a stack, not the stack that is drawn.
  if (name === '../layouts/StackClient' && from.endsWith('/views/Navigator.js'))
    return context.resolveRequest(context, '../react-navigation/routers', platform);
  // Pictures given as text, of which there are none.
  // Turnings of pictures that are told as text: on the web the browser reads them itself.
  if (/^\.\/transform(ToRn)?$/.test(name) && from.endsWith('/extract/extractTransform.js'))
    return { type: 'empty' };
  // The list of all pages, which is off.
  if (name === './views/Sitemap' && from.includes('/expo-router/build/')) return { type: 'empty' };
  // No drawn shape is pressed here: icons lie in buttons, and a chart's lanes are chosen by their rows.
  if (name.endsWith('/SvgTouchableMixin') && from.includes('/react-native-svg/'))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'web', 'noTouch.ts') };
  if (/(^|\/)getIconType$/.test(name) && from.includes('/@rneui/'))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'web', 'noIconFonts.ts') };
  if (name === '../native-tabs/NativeTabTrigger' && from.endsWith('/layouts/withLayoutContext.js'))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'web', 'noNativeTabs.ts') };
  if (name === './xml' && from.includes('/react-native-svg/')) return { type: 'empty' };
  if (from.includes('/zod/') && EMPTY_IN_ZOD.test(name)) return { type: 'empty' };
  // Its connections are not opened again once they were closed, and it writes by halves: see the file that stands for it.
  if (from.includes('/async-storage/') && name.endsWith('web-module/IndexedDBStorage.js'))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'keeping', 'indexedStorage.ts') };
  // All of React Native for the web would come to the first screen for a few functions of it.
  if (/^react-native-web(\/dist\/index)?$/.test(name))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'web', 'reactNative.ts') };
  // A field shakes by animation, and a chart grows by it: neither does so here.
  if (/exports\/Animated$/.test(name) && /@rneui\/base\/dist\/Input\/|gifted-charts/.test(from))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'web', 'still.ts') };
  // The router sets flags on it, and has a slot for tabs that is not shown; all of it would bring animated lists to the first screen.
  if (name === 'react-native-screens' && /(screensFeatureFlags|ui\/TabSlot)\.js$/.test(from))
    return context.resolveRequest(context, 'react-native-screens/lib/module/flags', platform);
  if (name === 'color')
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'web', 'shade.ts') };
  if (name.endsWith('/vendor/react-helmet-async/lib'))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src', 'web', 'noHead.tsx') };
  // Some ask for it in one form and some in another: one is enough.
  if (name === 'immer')
    return {
      type: 'sourceFile',
      filePath: path.join(__dirname, 'node_modules', 'immer', 'dist', 'immer.mjs'),
    };
  return context.resolveRequest(context, name, platform);
};

// Whose code is served is noted while it is built, for the page of licences.
const taken = new Set();
config.resolver.resolveRequest = (context, name, platform) => {
  const found = resolve(context, name, platform);
  if (found.filePath?.includes('node_modules')) taken.add(found.filePath);
  return found;
};
const list = process.env.RUDDIK_TAKEN;
if (list) process.on('exit', () => fs.writeFileSync(list, JSON.stringify([...taken])));

config.transformer.getTransformOptions = async () => ({
  transform: { experimentalImportSupport: true, inlineRequires: true },
});

module.exports = config;
