/** What was tried, and what went wrong. */
export interface Tried {
  what: string;
  tried: number;
  faults: string[];
}

const MOST_SAID = 12;

/** One line for each, and its faults. @returns whether there was none */
export const told = (all: Tried[]): boolean => {
  for (const { what, tried, faults } of all) {
    process.stdout.write(
      `${faults.length ? 'FAILED  ' : 'survived'}  ${what}: ${tried} tried, ${tried - Math.min(tried, faults.length)} survived, ${faults.length} failed\n`,
    );
    for (const fault of faults.slice(0, MOST_SAID)) process.stdout.write(`            ${fault}\n`);
  }
  return all.every(({ faults }) => !faults.length);
};
