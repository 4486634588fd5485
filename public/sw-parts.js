/* What the service worker does beside keeping files: it gives way when asked, tidies up, and takes what is shared. */

const OWN = /^ruddik-[0-9a-f]+-precache/;
const SHARED = 'ruddik-shared';

self.addEventListener('message', ({ data }) => {
  if (data === 'take over') self.skipWaiting();
});

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
  if (request.method === 'POST' && new URL(request.url).pathname === '/share')
    event.respondWith(takeShared(request).catch(() => toBeats('not-read')));
});
