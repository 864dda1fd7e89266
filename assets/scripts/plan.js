const STEP_MINUTES = 15;
const WAITS = 350; // ms after the last key

/** Moves the dishes of a plan: by arrow keys, or by dragging their bars. The server says what that breaks. */
export function planStrips() {
    return {
        moved: 0,
        timer: null,
        held: null,

        init() {
            this.$root.addEventListener('keydown', (event) => this.key(event));
            this.$root.addEventListener('pointerdown', (event) => this.take(event));
            this.$root.addEventListener('pointermove', (event) => this.drag(event));
            this.$root.addEventListener('pointerup', () => this.drop());
            this.$root.addEventListener('pointercancel', () => this.letGo());
        },

        key(event) {
            const grip = event.target.closest('[data-move]');
            const way = { ArrowLeft: -1, ArrowRight: 1, PageUp: 4, PageDown: -4 }[event.key];
            if (!grip || way === undefined || event.metaKey || event.ctrlKey || event.altKey) return;
            event.preventDefault();
            this.moved += way * STEP_MINUTES;
            this.shift(grip, this.moved);
            clearTimeout(this.timer);
            this.timer = setTimeout(() => {
                const by = this.moved;
                this.moved = 0;
                this.send(grip, by);
            }, WAITS);
        },

        take(event) {
            const grip = event.target.closest('[data-move]');
            if (!grip || event.button !== 0) return;
            event.preventDefault();
            grip.focus();
            grip.setPointerCapture(event.pointerId);
            this.held = { grip, from: event.clientX, by: 0 };
        },

        drag(event) {
            if (!this.held) return;
            const strip = this.held.grip.closest('[data-strip]');
            const seconds = ((event.clientX - this.held.from) / strip.clientWidth) * Number(strip.dataset.seconds);
            this.held.by = Math.round(seconds / 300) * 5;
            this.shift(this.held.grip, this.held.by);
        },

        drop() {
            if (!this.held) return;
            const { grip, by } = this.held;
            this.held = null;
            if (by !== 0) this.send(grip, by);
        },

        letGo() {
            if (this.held) this.shift(this.held.grip, 0);
            this.held = null;
        },

        /** Shows where it would be until the server has said what comes of it. */
        shift(grip, minutes) {
            const strip = grip.closest('[data-strip]');
            const x = ((minutes * 60) / Number(strip.dataset.seconds)) * strip.viewBox.baseVal.width;
            grip.setAttribute('transform', `translate(${x.toFixed(1)} 0)`);
        },

        async send(grip, by) {
            const id = grip.dataset.id;
            const body = new URLSearchParams({ _token: this.$root.dataset.token, by: String(by) });
            const answer = await fetch(grip.dataset.move, { method: 'POST', body }).catch(() => null);
            if (!answer || !answer.ok) {
                this.shift(grip, 0);
                return;
            }
            const page = document.createElement('template');
            page.innerHTML = await answer.text();
            const fresh = page.content.querySelector('[data-part="schedule"]');
            if (fresh) this.$root.querySelector('[data-part="schedule"]').replaceChildren(...fresh.childNodes);
            this.$root.querySelector(`[data-id="${id}"]`)?.focus();
        },
    };
}
