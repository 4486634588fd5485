/** The ids that a text of the storage lists; none where it is junk. @example idsIn('["a", 1]') // ["a"] */
export const idsIn = (text: string | null | undefined): string[] => {
  try {
    const read: unknown = JSON.parse(text ?? '[]');
    return Array.isArray(read) ? read.filter((id): id is string => typeof id === 'string') : [];
  } catch {
    return [];
  }
};
