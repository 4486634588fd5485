/**
 * The value of a table under a name that came from outside: never what every object has by itself, such as `constructor`.
 *
 * @example namedIn({ Verse: 'lichen' }, 'constructor') // undefined
 */
export const namedIn = <T>(table: Readonly<Record<string, T>>, name: string): T | undefined =>
  Object.hasOwn(table, name) ? table[name] : undefined;
