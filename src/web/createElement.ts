/** The one thing that the picker asks of React Native for the web; by its own way it would bring all of that along. */
export { default as unstable_createElement } from 'react-native-web/dist/exports/createElement';
