/** Reads a beat's text beside the page; null where no worker comes. */
export type ReadAside = (text: string) => Promise<{ ok: true } | { ok: false; error: string } | null>;

let aside: ReadAside | null = null;

/** Says who reads beside the page: it is fetched when it is first wanted. */
export const readBackBy = (read: ReadAside): void => {
  aside = read;
};

/** What that one reads; null where nobody was named, or no worker comes. */
export const readBeside: ReadAside = async (text) => (await aside?.(text)) ?? null;
