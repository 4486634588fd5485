/**
 * What the command line's parser says of wrong usage, as one plain sentence.
 *
 * @example plainly("error: option '--swing <percent>' argument 'x' is invalid. It is to be a number.")
 *   // "--swing does not take “x”. It is to be a number."
 */
export const plainly = (text: string): string =>
  text
    .replace(/^error: /, '')
    .trim()
    .split('\n')[0]!
    .replace(/^option '(\S+)[^']*' argument '(.*)' is invalid\. ?/, '$1 does not take “$2”. ');
