/**
 * Puts small faults into the code, one at a time, and sees whether a test falls: `npm run mutate` for all rooms, `npm run mutate --
 * core/play` for one. What was tried before and has not changed is not tried again. The report goes to docs/tests.md.
 */
import fs from 'node:fs';
import path from 'node:path';
import { ROOT, readyPackages, run } from './ready.mjs';

readyPackages();

const at = (...parts) => path.join(ROOT, ...parts);
const rooms = JSON.parse(fs.readFileSync(at('mutation', 'rooms.json'), 'utf8'));
const scoresFile = at('mutation', 'scores.json');
const scores = fs.existsSync(scoresFile) ? JSON.parse(fs.readFileSync(scoresFile, 'utf8')) : {};
const asked = process.argv.slice(2);
const unknown = asked.filter((room) => !(room in rooms));
if (unknown.length) {
  process.stderr.write(
    `There is no room ${unknown.join(', ')}; there are ${Object.keys(rooms).join(', ')}\n`,
  );
  process.exit(2);
}

const countOf = (report) => {
  const count = { killed: 0, survived: 0, noCoverage: 0, ignored: 0 };
  for (const { mutants } of Object.values(report.files))
    for (const { status } of mutants) {
      if (status === 'Killed' || status === 'Timeout') count.killed += 1;
      else if (status === 'Survived') count.survived += 1;
      else if (status === 'NoCoverage') count.noCoverage += 1;
      else if (status === 'Ignored') count.ignored += 1;
    }
  return count;
};

let failed = false;
for (const room of asked.length ? asked : Object.keys(rooms)) {
  // Properties with few examples: they are many mutants, and a fault that only one example in a hundred finds counts as unseen.
  const env = { ...process.env, ROOM: room, EXPLORE: process.env.EXPLORE ?? '12' };
  if (run('npx', ['stryker', 'run'], { env }) !== 0) failed = true;
  const file = at('test-results', `mutation-${room.replace('/', '-')}.json`);
  if (!fs.existsSync(file)) continue;
  scores[room] = countOf(JSON.parse(fs.readFileSync(file, 'utf8')));
  fs.writeFileSync(scoresFile, `${JSON.stringify(scores, null, 2)}\n`);
}

const score = ({ killed, survived, noCoverage }) => (100 * killed) / (killed + survived + noCoverage);
const rows = Object.entries(rooms).map(([room, { wanted }]) => {
  const one = scores[room];
  if (!one) return `| \`${room}\` | | | | | not tried yet (wanted: ${wanted} %) |`;
  return `| \`${room}\` | ${one.killed} | ${one.survived} | ${one.noCoverage} | ${one.ignored} | ${score(one).toFixed(1)} % (wanted: ${wanted} %) |`;
});
const table = [
  '| room | died | survived | no test came by | left out | score |',
  '| --- | --- | --- | --- | --- | --- |',
  ...rows,
].join('\n');
const docs = at('docs', 'tests.md');
const [before, , after] = fs.readFileSync(docs, 'utf8').split(/(?<=<!-- scores -->)|(?=<!-- \/scores -->)/);
fs.writeFileSync(docs, `${before}\n\n${table}\n\n${after}`);
process.exit(failed ? 1 : 0);
