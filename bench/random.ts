/** Random actions on all screens: seeds of so many actions each, on a phone by finger and on a wide screen by mouse. */
import { browse } from '../scripts/browse';
import { wander } from '../scripts/wander';
import { report } from './report';

const PORT = 4795;
const SEEDS = Number(process.env['SEEDS'] ?? 20);
const ACTIONS = Number(process.env['ACTIONS'] ?? 500);
const FIRST = Number(process.env['FIRST'] ?? 1);
const SCREENS = [
  { name: 'phone', viewport: { width: 390, height: 844 }, hasTouch: true },
  { name: 'wide', viewport: { width: 1280, height: 800 }, hasTouch: false },
];

const main = () =>
  browse(PORT, async (browser) => {
    let [actions, turned, faults] = [0, 0, 0];
    for (const { name, ...screen } of SCREENS)
      for (let seed = FIRST; seed < FIRST + SEEDS; seed++) {
        const context = await browser.newContext(screen);
        const page = await context.newPage();
        await page.goto(`http://127.0.0.1:${PORT}`);
        await page.locator('[data-step]').first().waitFor();
        const out = await wander(page, seed, ACTIONS, screen.hasTouch).catch((error: Error) => ({
          actions: 0,
          turned: 0,
          faults: [`it ended: ${error.message}`],
        }));
        [actions, turned, faults] = [actions + out.actions, turned + out.turned, faults + out.faults.length];
        for (const one of out.faults) console.log(`${name}, seed ${seed}: ${one}`);
        await context.close();
      }
    report(
      `random actions, ${turned} times all undone and redone`,
      `${faults} faults in ${actions}`,
      'none',
      faults === 0 && actions === 2 * SEEDS * ACTIONS,
    );
  });

void main();
