const LEAST = 1;
const MOST = 6;

/**
 * Reading after reading by the arrow keys, or the one that is touched or pointed at, told in words below the picture;
 * nearer and farther by keys, wheel or two fingers.
 */
export function readings() {
    return {
        told: '',
        zoom: 1,
        apart: 0,

        /** On a narrow screen the picture begins at its end: now. */
        init() {
            this.road().scrollLeft = this.road().scrollWidth;
        },

        road() {
            return this.$root.querySelector('[data-scroll]');
        },

        marks() {
            return [...this.$root.querySelectorAll('[data-reading]')].sort(
                (one, other) => one.dataset.at - other.dataset.at,
            );
        },

        pressed(event) {
            const move = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
            if (move && event.shiftKey) this.road().scrollBy({ left: move * 120 });
            else if (move) this.step(move);
            else if (event.key === '+') this.zoomTo(this.zoom * 1.5);
            else if (event.key === '-') this.zoomTo(this.zoom / 1.5);
            else return;
            event.preventDefault();
        },

        step(move) {
            const marks = this.marks();
            const at = marks.indexOf(document.activeElement);
            const first = move > 0 ? 0 : marks.length - 1;
            const next = marks[at < 0 ? first : Math.max(0, Math.min(marks.length - 1, at + move))];
            next?.focus();
        },

        nearer() {
            this.zoomTo(this.zoom * 1.5);
        },

        farther() {
            this.zoomTo(this.zoom / 1.5);
        },

        /** What is in the middle stays there. */
        zoomTo(zoom) {
            const road = this.road();
            const middle = (road.scrollLeft + road.clientWidth / 2) / road.scrollWidth;
            this.zoom = Math.max(LEAST, Math.min(MOST, zoom));
            road.style.setProperty('--zoom', String(this.zoom));
            road.scrollLeft = middle * road.scrollWidth - road.clientWidth / 2;
        },

        /** With the control key, as pages are zoomed; without it the page scrolls on. */
        wheeled(event) {
            if (!event.ctrlKey && !event.metaKey) return;
            event.preventDefault();
            this.zoomTo(this.zoom * (event.deltaY < 0 ? 1.15 : 1 / 1.15));
        },

        pinchBegins(event) {
            this.apart = event.touches.length === 2 ? distance(event.touches) : 0;
        },

        pinched(event) {
            if (event.touches.length !== 2 || this.apart === 0) return;
            event.preventDefault();
            const now = distance(event.touches);
            this.zoomTo(this.zoom * (now / this.apart));
            this.apart = now;
        },

        tell(event) {
            const mark = event.target.closest('[data-reading]');
            if (mark) this.told = mark.dataset.reading;
        },
    };
}

function distance(touches) {
    return Math.hypot(touches[0].clientX - touches[1].clientX, touches[0].clientY - touches[1].clientY);
}
