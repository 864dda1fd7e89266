import { kitchenTime } from './clock.js';

const EVERY_SECONDS = 5;

/** Keeps a part of the page current: fetched anew now and then, its clocks counted down in between. */
export function keepCurrent() {
    return {
        offset: 0,
        timers: [],

        init() {
            this.offset = Number(this.$root.dataset.now) * 1000 - Date.now();
            this.timers.push(setInterval(() => this.tick(), 1000));
            this.timers.push(setInterval(() => this.load(), EVERY_SECONDS * 1000));
            document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && this.load());
        },

        destroy() {
            this.timers.forEach(clearInterval);
        },

        /** A part somebody is using is left alone: an open fold, a focused button. */
        isInUse(part) {
            return part.contains(document.activeElement) || part.querySelector('details[open]') !== null;
        },

        async load() {
            if (document.visibilityState !== 'visible') return;
            let answer = null;
            try {
                answer = await fetch(this.$root.dataset.source, {
                    headers: { Accept: 'text/html' },
                    redirect: 'manual',
                });
            } catch {
                // The network is poor outside: what is shown stays, and says how old it is.
            }
            const stale = document.getElementById('stale');
            if (stale) stale.hidden = Boolean(answer && answer.ok);
            if (!answer || !answer.ok) return;
            const html = await answer.text();
            const fresh = document.createElement('template');
            fresh.innerHTML = html;
            fresh.content.querySelectorAll('[data-part]').forEach((part) => {
                const shown = this.$root.querySelector(`[data-part="${part.dataset.part}"]`);
                if (shown && !this.isInUse(shown)) shown.replaceChildren(...part.childNodes);
            });
            const now = fresh.content.querySelector('[data-now]');
            if (now) this.offset = Number(now.dataset.now) * 1000 - Date.now();
            this.tick();
        },

        tick() {
            const now = Math.floor((Date.now() + this.offset) / 1000);
            const clock = document.getElementById('clock');
            document.querySelectorAll('[data-deadline]').forEach((node) => {
                const left = Number(node.dataset.deadline) - now;
                const isNow = left > -60 && left < (node.dataset.ahead ? 0 : 60);
                const ahead = left < 0 ? clock.dataset.late : (node.dataset.ahead ?? clock.dataset.ahead);
                const words = isNow ? clock.dataset.nowWords : ahead;
                node.textContent = words.replace('{time}', span(Math.abs(left)));
                node.closest('[data-due]')?.toggleAttribute('data-is-late', left < 0);
            });
            document.querySelectorAll('[data-since]').forEach((node) => {
                const since = span(Math.max(0, now - Number(node.dataset.since)));
                node.textContent = clock.dataset.ago.replace('{time}', since);
            });
            if (clock) {
                clock.textContent = kitchenTime(now * 1000);
            }
        },
    };
}

function span(seconds) {
    const minutes = Math.floor(seconds / 60);
    const hours = Math.floor(minutes / 60);
    if (hours >= 48) return `${Math.floor(hours / 24)} d`;
    if (hours > 0) return `${hours} h ${minutes % 60} min`;
    return `${minutes} min`;
}
