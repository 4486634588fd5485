/**
 * What packages ask of React Native for the web as a whole. By its own index all of it would come to the first screen:
 * lists, animation, images and what stands for old parts. What this project and RNE import by name comes by itself.
 */
export { default as Animated, Easing } from './still';
export { default as ActivityIndicator } from 'react-native-web/dist/exports/ActivityIndicator';
export { default as Alert } from 'react-native-web/dist/exports/Alert';
export { default as Appearance } from 'react-native-web/dist/exports/Appearance';
export { default as AppRegistry } from 'react-native-web/dist/exports/AppRegistry';
export { default as AppState } from 'react-native-web/dist/exports/AppState';
export { default as BackHandler } from 'react-native-web/dist/exports/BackHandler';
export { default as DeviceEventEmitter } from 'react-native-web/dist/exports/DeviceEventEmitter';
export { default as Dimensions } from 'react-native-web/dist/exports/Dimensions';
export { default as findNodeHandle } from 'react-native-web/dist/exports/findNodeHandle';
export { default as I18nManager } from 'react-native-web/dist/exports/I18nManager';
export { default as Keyboard } from 'react-native-web/dist/exports/Keyboard';
export { default as Linking } from 'react-native-web/dist/exports/Linking';
export { default as NativeEventEmitter } from 'react-native-web/dist/exports/NativeEventEmitter';
export { default as NativeModules } from 'react-native-web/dist/exports/NativeModules';
export { default as PixelRatio } from 'react-native-web/dist/exports/PixelRatio';
export { default as Platform } from 'react-native-web/dist/exports/Platform';
export { default as Pressable } from 'react-native-web/dist/exports/Pressable';
export { default as processColor } from 'react-native-web/dist/exports/processColor';
export { default as ScrollView } from 'react-native-web/dist/exports/ScrollView';
export { default as StyleSheet } from 'react-native-web/dist/exports/StyleSheet';
export { default as Text } from 'react-native-web/dist/exports/Text';
export { default as TextInput } from 'react-native-web/dist/exports/TextInput';
export { default as UIManager } from 'react-native-web/dist/exports/UIManager';
export { default as unstable_createElement } from 'react-native-web/dist/exports/createElement';
export { default as useColorScheme } from 'react-native-web/dist/exports/useColorScheme';
export { default as useWindowDimensions } from 'react-native-web/dist/exports/useWindowDimensions';
export { default as View } from 'react-native-web/dist/exports/View';
