/** Makes the page of a test as wide as is wanted: which of the queries for its width hold; all of them, or none. */
export const pageFits = (fits: boolean | ((query: string) => boolean)): void => {
  window.matchMedia = jest.fn((query: string) => ({
    matches: typeof fits === 'boolean' ? fits : fits(query),
    addEventListener: jest.fn(),
    removeEventListener: jest.fn(),
  })) as never;
};
