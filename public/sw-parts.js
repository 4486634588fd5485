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

/** Files that another program shares wait in a store until the page is there. */
const takeShared = async (request) => {
  const files = (await request.formData()).getAll('files').filter((one) => typeof one !== 'string');
  const store = await caches.open(SHARED);
  await Promise.all(
    files.map((file, at) =>
      store.put(
        `/shared/${at}`,
        new Response(file, {
          headers: { 'Content-Type': file.type, 'X-Name': encodeURIComponent(file.name) },
        }),
      ),
    ),
  );
  return Response.redirect('/beats?shared=1', 303);
};

self.addEventListener('fetch', (event) => {
  const { request } = event;
  if (request.method === 'POST' && new URL(request.url).pathname === '/share')
    event.respondWith(takeShared(request));
});
