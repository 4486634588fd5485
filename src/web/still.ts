import View from 'react-native-web/dist/exports/View';

/**
 * What a field of RNE's asks of animation, for a shake that is never asked for here. All of it would bring lists and images to
 * the first screen.
 */
class Value {
  interpolate(): number {
    return 0;
  }
}
export default { View, Value, timing: () => ({ start: () => undefined }) };
