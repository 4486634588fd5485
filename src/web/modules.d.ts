declare module 'react-native-web/dist/exports/createElement' {
  import type { createElement } from 'react';
  const made: typeof createElement;
  export default made;
}
declare module 'react-native-web/dist/exports/View' {
  export { View as default } from 'react-native';
}
