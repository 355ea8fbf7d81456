/**
 * Keeps the program itself in the browser, so that a page opens without a connection. Nothing that belongs to anybody
 * is kept here: what is asked of the server goes to the server. A new version waits until somebody takes it.
 */
import { cleanupOutdatedCaches, precacheAndRoute, type PrecacheEntry } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (PrecacheEntry | string)[] }
/** What the build writes in: another one for each version of the program. */
declare const __VERSION__: string

// The page that all pages are, as the server fills it in; of the version of this worker.
const SHELL = `shell-${__VERSION__}`
const ANSWERS_WITHIN_MS = 5_000
/** Pages of who is signed in. Others have nothing to show without the server. */
const PAGES =
  /^\/(?:$|series|meetings|actions|strands|decisions|search|common-time|asking|open-hours|now|people|places|me)/

precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()

self.addEventListener('install', event => {
  event.waitUntil(
    caches.open(SHELL).then(cache => cache.add(new Request('/', { cache: 'reload', credentials: 'omit' }))),
  )
})
self.addEventListener('activate', event => {
  const old = (name: string) => name.startsWith('shell-') && name !== SHELL
  event.waitUntil(caches.keys().then(names => Promise.all(names.filter(old).map(name => caches.delete(name)))))
})

async function page(request: Request) {
  const kept = await caches.match('/', { cacheName: SHELL })
  if (!kept) return fetch(request)
  const late = new Promise<Response>(resolve => setTimeout(() => resolve(kept), ANSWERS_WITHIN_MS))
  return Promise.race([fetch(request).catch(() => kept), late])
}
registerRoute(new NavigationRoute(({ request }) => page(request), { allowlist: [PAGES] }))

self.addEventListener('message', ({ data }) => {
  if (data === 'take over') void self.skipWaiting()
})
