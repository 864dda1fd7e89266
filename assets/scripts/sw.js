import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching';
import { registerRoute, setCatchHandler } from 'workbox-routing';
import { NetworkFirst, NetworkOnly } from 'workbox-strategies';
import { add, idOf, known } from './unsent.js';

/** Pages that open without a network, as they were seen last. */
const OPENED = [
    /^\/$/,
    /^\/log$/,
    /^\/wall$/,
    /^\/batches\/[0-9a-f-]{36}(\/check|\/steps)?$/,
    /^\/hot-round$/,
    /^\/alarms(\/[0-9a-f-]{36})?$/,
];
/** What can be entered without one: the log line, steps and taps, rounds, alarms. */
const ENTERED = [
    /^\/log$/,
    /^\/batches\/[0-9a-f-]{36}\/(step|check)$/,
    /^\/hot-round$/,
    /^\/alarms\/[0-9a-f-]{36}\/(take|settle|put-off)$/,
];
const PAGES = 'pages';
const AWAY = [502, 503, 504];
const PATIENCE_SECONDS = 5;

self.skipWaiting();
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
cleanupOutdatedCaches();
precacheAndRoute(self.__WB_MANIFEST);

registerRoute(
    ({ request, url }) => request.mode === 'navigate' && OPENED.some((path) => path.test(url.pathname)),
    new NetworkFirst({
        cacheName: PAGES,
        networkTimeoutSeconds: PATIENCE_SECONDS,
        matchOptions: { ignoreSearch: true, ignoreVary: true },
        plugins: [
            {
                // A page to log in at is none of these, and a server that is away is as none.
                cacheWillUpdate: async ({ response }) =>
                    response.status === 200 && !response.redirected ? response : null,
                fetchDidSucceed: async ({ response }) => {
                    if (AWAY.includes(response.status)) throw new Error('The server is away.');
                    return response;
                },
            },
        ],
    }),
);

// Of every other page it is said that there is no connection, and where there is something.
registerRoute(({ request }) => request.mode === 'navigate', new NetworkOnly());

setCatchHandler(async ({ request }) =>
    request.mode === 'navigate'
        ? ((await caches.match('/offline.html', { ignoreSearch: true })) ?? Response.error())
        : Response.error(),
);

self.addEventListener('fetch', (event) => {
    const { request } = event;
    if (request.method !== 'POST' || request.mode !== 'navigate') return;
    const path = new URL(request.url).pathname;
    if (path === '/logout') {
        event.respondWith(fetch(request).finally(() => caches.delete(PAGES)));
    } else if (ENTERED.some((one) => one.test(path))) {
        event.respondWith(sent(request, path));
    }
});

self.addEventListener('notificationclick', (event) => {
    event.notification.close();
    event.waitUntil(self.clients.openWindow(event.notification.data ?? '/alarms'));
});

/** Sends it; where nothing answers, keeps it here and goes back to where it was entered. */
async function sent(request, path) {
    const fields = [...(await request.formData())];
    const id = fields.find(([name]) => name === 'id');
    if (id) id[1] = await idOf(fields);
    try {
        const answer = await fetch(request.url, {
            method: 'POST',
            body: new URLSearchParams(fields),
            redirect: 'manual',
            referrer: request.referrer,
        });
        if (!AWAY.includes(answer.status)) return answer;
    } catch {
        // Kept below.
    }
    const from = request.referrer === '' ? '/' : new URL(request.referrer).pathname;
    const kept = fields.filter(([name]) => name !== '_token');
    await add({ path, fields: kept, from, at: Date.now(), account: (await known('account')) ?? '' });
    const back = fields.find(([name]) => name === 'back')?.[1] ?? '';

    return Response.redirect(/^\/(?!\/)[\w/.-]*$/.test(back) ? back : from, 303);
}
