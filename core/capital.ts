/** The same text with a capital letter at its start. @example capital('from beat') // "From beat" */
export const capital = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1);
