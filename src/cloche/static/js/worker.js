// Answers while there is no signal: the round from what was kept, everything else with a page that says so.
// Served from the root with two lines before it: SHELL, what every page needs, and VERSION, of all that.
const STATIC = `cloche-static-${VERSION}`;
const PAGES = "cloche-pages";
const NO_SIGNAL = "/no-signal/";
const PATIENCE_MS = 4000;

self.addEventListener("install", (event) => {
  event.waitUntil((async () => {
    await (await caches.open(STATIC)).addAll(SHELL);
    await (await caches.open(STATIC)).add(NO_SIGNAL);
    await self.skipWaiting();
  })());
});

self.addEventListener("activate", (event) => {
  event.waitUntil((async () => {
    // The rounds that are kept name the old shell; fetched anew they name this one.
    const pages = await caches.open(PAGES);
    await Promise.all((await pages.keys()).map(async ({ url }) => {
      const answer = await fetch(url).catch(() => null);
      if (answer && answer.ok && !answer.redirected) await pages.put(new URL(url).pathname, answer);
    }));
    const old = (await caches.keys()).filter((name) => name.startsWith("cloche-static-") && name !== STATIC);
    await Promise.all(old.map((name) => caches.delete(name)));
    await self.clients.claim();
  })());
});

self.addEventListener("message", (event) => event.waitUntil(self.clients.claim()));

const isRound = (url) => /^\/g\/\d+\/round\/$/.test(url.pathname);

const patient = (request) => new Promise((resolve, reject) => {
  const timer = setTimeout(() => reject(new Error("no answer in time")), PATIENCE_MS);
  fetch(request).then((answer) => { clearTimeout(timer); resolve(answer); }, (lost) => { clearTimeout(timer); reject(lost); });
});

async function round(request, url) {
  const pages = await caches.open(PAGES);
  const kept = await pages.match(url.pathname);
  try {
    const answer = await (kept ? patient(request) : fetch(request));
    // A round that leads to the sign-in is no round to keep.
    if (answer.ok && !answer.redirected && request.method === "GET") await pages.put(url.pathname, answer.clone());
    return answer;
  } catch {
    return kept || caches.match(NO_SIGNAL);
  }
}

async function shipped(request) {
  const kept = await caches.match(request, { ignoreVary: true });
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok) await (await caches.open(STATIC)).put(request, answer.clone());
  return answer;
}

self.addEventListener("fetch", (event) => {
  const url = new URL(event.request.url);
  if (url.origin !== self.location.origin || event.request.method !== "GET") return;
  if (isRound(url)) event.respondWith(round(event.request, url));
  else if (url.pathname.startsWith("/static/")) event.respondWith(shipped(event.request));
  else if (event.request.mode === "navigate") event.respondWith(fetch(event.request).catch(() => caches.match(NO_SIGNAL)));
});
