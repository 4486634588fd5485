/** The page of licences: of all that the app is served with, told by the packages that the build took something of. */
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { DECODERS } from './decoders.mjs';

const ROOT = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const MODULES = path.join(ROOT, 'node_modules');
const TEXTS = path.join(ROOT, 'scripts', 'licences');

/** Served, though the bundler knows nothing of them: fonts, what the service worker is made of. */
const BESIDES = [
  '@fontsource/hanken-grotesk',
  '@fontsource/martian-mono',
  'workbox-core',
  'workbox-precaching',
  'workbox-routing',
  'workbox-strategies',
];

const TEXT = /^(licen[cs]e|copying|notice|ofl)([-._].*)?$/i;

/**
 * The folder of the package that a file belongs to, within `node_modules`: one that another package has for itself lies within that.
 *
 * @example packageOf('/x/node_modules/a/node_modules/@b/c/d.js') // 'a/node_modules/@b/c'
 */
export const packageOf = (file) =>
  /[\\/]node_modules[\\/]((?:.*[\\/]node_modules[\\/])?(?:@[^\\/]+[\\/])?[^\\/]+)/
    .exec(file)?.[1]
    ?.replaceAll('\\', '/') ?? null;

/** What a package says of itself and its licence, with the texts that lie in it. */
const told = (place) => {
  const folder = path.join(MODULES, ...place.split('/'));
  const { name, version, license, licenses, author } = JSON.parse(
    fs.readFileSync(path.join(folder, 'package.json'), 'utf8'),
  );
  const texts = fs
    .readdirSync(folder)
    .filter((file) => TEXT.test(file) && fs.statSync(path.join(folder, file)).isFile())
    .map((file) => fs.readFileSync(path.join(folder, file), 'utf8').trim());
  const kind = license?.type ?? license ?? licenses?.map?.(({ type }) => type).join(' or ');
  const by = typeof author === 'string' ? author.replace(/\s*[<(].*$/, '') : author?.name;
  return { name, version, kind: String(kind ?? 'not told'), by, text: texts.join('\n\n') };
};

const escaped = (text) =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]);

const lineOf = ({ name, version, kind, by }) =>
  `<li><b>${escaped(name)}</b> ${escaped(version)}, ${escaped(kind)}${by ? `, ${escaped(by)}` : ''}</li>`;

const group = (all, text) =>
  `<details><summary>${all.length > 1 ? `${all.length} packages` : escaped(all[0].name)}: ${escaped(
    [...new Set(all.map(({ kind }) => kind))].join(', '),
  )}</summary><ul>${all.map(lineOf).join('')}</ul><pre>${escaped(text)}</pre></details>`;

const STYLE = `:root{color-scheme:light dark;--ground:#F3EFE6;--text:#17211F;--line:#8A8473}
@media(prefers-color-scheme:dark){:root{--ground:#17211F;--text:#F3EFE6;--line:#6F7B74}}
body{margin:0;padding:24px 16px 64px;background:var(--ground);color:var(--text);font:16px/1.5 'Hanken Grotesk',sans-serif}
main{max-width:760px;margin:0 auto}a{color:inherit}h1{font-size:24px}h2{font-size:18px;margin-top:32px}
summary{min-height:44px;line-height:44px;cursor:pointer}details{border-top:1px solid var(--line)}
pre{white-space:pre-wrap;overflow-wrap:anywhere;font:13px/1.5 monospace}li{overflow-wrap:anywhere}`;

/** What may be exchanged, and how: their licences ask for that. */
const exchangeable = () => {
  const all = DECODERS.map(
    ({ name, packages, holds }) =>
      `<li><a href="/decoders/${name}.js">decoders/${name}.js</a>: ${escaped(holds)}, made from ${packages
        .map((one) => told(one))
        .map(({ name: of, version }) => `${escaped(of)} ${escaped(version)}`)
        .join(', ')}</li>`,
  );
  const texts = ['LGPL-2.1', 'LGPL-3', 'GPL-3'].map(
    (name) =>
      `<details><summary>${name}</summary><pre>${escaped(
        fs.readFileSync(path.join(TEXTS, `${name}.txt`), 'utf8'),
      )}</pre></details>`,
  );
  return `<h2>Decoders that you may exchange</h2>
<p>MP3, FLAC and OGG files are decoded by libraries under the GNU Lesser General Public License. Each is a file of its own, used
as it is. You may change them and put your own in their place: write a file of the same name into the folder that is served,
with the same function in it. Their sources are the packages named here, in these versions. Nothing in Ruddik’s own licence
forbids to look into how it works with them.</p><ul>${all.join('')}</ul>${texts.join('')}`;
};

/**
 * Writes `licences.html` into a folder that was built.
 *
 * @param packages the folders of those that the bundler took something of
 * @returns how many there are; of each there is a text or it is named as one that came without
 */
export const writeLicences = (folder, packages) => {
  const decoders = DECODERS.flatMap((one) => one.packages);
  const names = [...new Set([...packages, ...decoders, ...BESIDES])].filter(Boolean).sort();
  const all = names.map(told);
  const byText = new Map();
  for (const one of all) {
    // The same words under another name are told once; who holds the rights stands in them.
    const text = one.text || 'It came without a text of its licence.';
    byText.set(text, [...(byText.get(text) ?? []), one]);
  }
  const page = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Licences · Ruddik</title><style>${STYLE}</style></head><body><main>
<p><a href="/beats">Back to Beats</a></p>
<h1>Licences</h1>
<p>Ruddik is free software under the MIT licence. It is served with parts of ${all.length} packages by others, and with
fonts under the SIL Open Font License.</p>
<details><summary>Ruddik itself: MIT</summary><pre>${escaped(fs.readFileSync(path.join(ROOT, 'LICENSE'), 'utf8'))}</pre></details>
${exchangeable()}
<h2>Packages and fonts</h2>
${[...byText].map(([text, some]) => group(some, text)).join('\n')}
</main></body></html>
`;
  fs.writeFileSync(path.join(folder, 'licences.html'), page);
  return all.length;
};
