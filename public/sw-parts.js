/*
 * What the service worker does beside keeping files: it gives way when asked, tidies up, takes what is shared, and sees that
 * what it keeps is what was built. `SUMS` has the SHA-256 of each file, by its path; `BUILD` is what the build is called.
 */

const OWN = /^ruddik-[0-9a-f]+-precache/;
const SHARED = 'ruddik-shared';

self.addEventListener('message', ({ data }) => {
  if (data === 'take over') self.skipWaiting();
});

const base64 = (bytes) => btoa(String.fromCharCode(...new Uint8Array(bytes)));

/** Whether an answer is the file that was built under that path; what is not of this build is not known here. */
const isBuilt = async (path, answer) => {
  const sum = self.SUMS[path];
  if (!sum) return true;
  return base64(await crypto.subtle.digest('SHA-256', await answer.clone().arrayBuffer())) === sum;
};

const ownStore = async () => {
  const name = (await caches.keys()).find((one) => one.startsWith(`ruddik-${self.BUILD}-precache`));
  return name ? caches.open(name) : null;
};

/** The file as the server has it, past all that was kept of it. @throws where what comes is something else */
const fetched = async (path) => {
  const answer = await fetch(path, { cache: 'reload' });
  if (!answer.ok || answer.redirected || !(await isBuilt(path, answer)))
    throw new Error('It is not what was built.');
  return answer;
};

/** Looks through all that is kept, and fetches anew what is not what was built. @returns how much of it was mended */
const lookThrough = async () => {
  const store = await ownStore();
  let mended = 0;
  for (const request of store ? await store.keys() : []) {
    const path = new URL(request.url).pathname;
    const answer = await store.match(request);
    if (!answer || (await isBuilt(path, answer))) continue;
    // Till it can be had it is asked of the server each time: wrong it is of no use.
    await store.delete(request);
    const right = await fetched(path).catch(() => null);
    if (!right) continue;
    await store.put(request, right);
    mended += 1;
  }
  return mended;
};

let looking = null;
self.addEventListener('message', (event) => {
  if (event.data !== 'look through') return;
  looking ??= lookThrough().finally(() => (looking = null));
  event.waitUntil(looking.then((mended) => event.source?.postMessage({ mended })).catch(() => undefined));
});

/** Code that turned out to be none is asked for past what is kept of it; what comes takes its place there. */
const renewed = async (request) => {
  const { pathname } = new URL(request.url);
  try {
    const answer = await fetched(pathname);
    const store = await ownStore();
    for (const kept of store ? await store.keys() : [])
      if (new URL(kept.url).pathname === pathname) await store.put(kept, answer.clone());
    return answer;
  } catch {
    return (await caches.match(request, { ignoreSearch: true, ignoreVary: true })) ?? fetch(request);
  }
};

/** The page of an address: its own, or for what leads nowhere the one that says so. */
const pageOf = (pathname) => {
  const bare = pathname.replace(/\/+$/, '') || '/index';
  if (self.SUMS[`${bare}.html`]) return `${bare}.html`;
  return /^\/(api|share|health)\b/.test(pathname) || /\.[a-z0-9]+$/.test(pathname)
    ? null
    : '/+not-found.html';
};

/** A page as it was built: one that was kept wrong would show nothing, and could ask for nothing to be mended. */
const pageKept = async (page, request) => {
  const store = await ownStore();
  const [kept] = store ? await store.keys(page, { ignoreSearch: true }) : [];
  if (!kept) return fetch(request);
  const answer = await store.match(kept);
  if (answer && (await isBuilt(page, answer))) return answer;
  const right = await fetched(page).catch(() => null);
  if (!right) return fetch(request);
  await store.put(kept, right.clone());
  return right;
};

const CODE = /^\/(_expo\/static|decoders)\//;

self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches.keys().then((names) => {
      // Of the builds before, the last is left for pages that still are of it.
      const gone = names.filter((name) => OWN.test(name)).slice(0, -2);
      return Promise.all(gone.map((name) => caches.delete(name)));
    }),
  );
});

/** More than this nobody shares: a page of elsewhere may send what it likes. */
const MOST_FILES = 50;
const MOST_BYTES = 400 * 1024 * 1024;

const toBeats = (what) => Response.redirect(`/beats?shared=${what}`, 303);

/**
 * Files that another program shares wait in a store until the page is there, and a person has been asked: a form on any page may
 * send them just as well.
 */
const takeShared = async (request) => {
  if (Number(request.headers.get('Content-Length') ?? 0) > MOST_BYTES) return toBeats('too-much');
  const all = (await request.formData()).getAll('files').filter((one) => typeof one !== 'string');
  const files = all.slice(0, MOST_FILES);
  if (files.reduce((sum, { size }) => sum + size, 0) > MOST_BYTES) return toBeats('too-much');
  await caches.delete(SHARED);
  const store = await caches.open(SHARED);
  await Promise.all(
    files.map((file, at) =>
      store.put(
        `/shared/${at}`,
        new Response(file, {
          headers: {
            'Content-Type': 'application/octet-stream',
            'X-Name': encodeURIComponent(file.name.slice(0, 200)),
          },
        }),
      ),
    ),
  );
  return toBeats('1');
};

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname, searchParams } = new URL(request.url);
  const isAgain = searchParams.has('again') || request.cache === 'reload';
  if (request.method === 'GET' && origin === self.location.origin && CODE.test(pathname) && isAgain) {
    event.respondWith(renewed(request));
    event.stopImmediatePropagation();
    return;
  }
  const page = request.mode === 'navigate' && request.method === 'GET' ? pageOf(pathname) : null;
  if (page && origin === self.location.origin) {
    event.respondWith(pageKept(page, request));
    event.stopImmediatePropagation();
    return;
  }
  if (request.method === 'POST' && pathname === '/share')
    event.respondWith(takeShared(request).catch(() => toBeats('not-read')));
});
