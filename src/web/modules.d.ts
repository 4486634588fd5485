declare module 'react-native-web/dist/exports/*' {
  const part: never;
  export default part;
}
declare module 'react-native-web/dist/exports/View' {
  export { View as default } from 'react-native';
}
