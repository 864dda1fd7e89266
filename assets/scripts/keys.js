/** What keys do, shown by "?"; and the way to the main pages, by "g" and a letter. */
export function keyMap() {
    return {
        isGoing: false,

        init() {
            document.addEventListener('keydown', (event) => this.pressed(event));
        },

        pressed(event) {
            const isField = ['INPUT', 'SELECT', 'TEXTAREA'].includes(event.target.tagName);
            if (isField || event.ctrlKey || event.metaKey || event.altKey) return;
            if (event.key === '?') {
                event.preventDefault();
                this.toggle();
            } else if (this.isGoing) {
                this.isGoing = false;
                const door = this.$root.querySelector(`[data-go="${event.key.toLowerCase()}"]`);
                if (door) location.assign(door.href);
            } else if (event.key.toLowerCase() === 'g') {
                this.isGoing = true;
                setTimeout(() => (this.isGoing = false), 1500);
            }
        },

        toggle() {
            const dialog = this.$root.querySelector('dialog');
            if (dialog.open) dialog.close();
            else dialog.showModal();
        },

        close() {
            this.$root.querySelector('dialog').close();
        },
    };
}
