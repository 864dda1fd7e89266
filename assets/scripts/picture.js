/** Reading after reading by the arrow keys, or the one under the pointer, told in words below the picture. */
export function readings() {
    return {
        told: '',

        /** On a narrow screen the picture begins at its end: now. */
        init() {
            const road = this.$root.querySelector('[data-scroll]');
            road.scrollLeft = road.scrollWidth;
        },

        marks() {
            return [...this.$root.querySelectorAll('[data-reading]')].sort(
                (one, other) => one.dataset.at - other.dataset.at,
            );
        },

        move(event) {
            const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
            if (!step) return;
            event.preventDefault();
            const marks = this.marks();
            const at = marks.indexOf(document.activeElement);
            const next =
                marks[at < 0 ? (step > 0 ? 0 : marks.length - 1) : Math.max(0, Math.min(marks.length - 1, at + step))];
            next?.focus();
        },

        tell(event) {
            const mark = event.target.closest('[data-reading]');
            if (mark) this.told = mark.dataset.reading;
        },
    };
}
