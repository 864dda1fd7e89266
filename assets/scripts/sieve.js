/** A list that is all on the page: narrowed by words, a table of it sorted by its columns. */
export function sieve() {
    return {
        words: '',
        shown: 0,

        init() {
            this.shown = this.rows().length;
            this.$watch('words', () => this.narrow());
            this.$root.querySelectorAll('th').forEach((head) => this.sortable(head));
        },

        rows() {
            return [...this.$root.querySelectorAll('[data-row]')];
        },

        narrow() {
            const wanted = this.words.toLowerCase().trim().split(/\s+/);
            this.shown = 0;
            this.rows().forEach((row) => {
                const text = row.textContent.toLowerCase();
                row.hidden = !wanted.every((word) => text.includes(word));
                this.shown += row.hidden ? 0 : 1;
            });
        },

        get isEmpty() {
            return this.shown === 0;
        },

        sortable(head) {
            const button = document.createElement('button');
            button.type = 'button';
            button.className = 'sort';
            button.append(...head.childNodes);
            head.append(button);
            button.addEventListener('click', () => this.sort(head));
        },

        sort(head) {
            const isUp = head.getAttribute('aria-sort') !== 'ascending';
            this.$root.querySelectorAll('th').forEach((other) => other.removeAttribute('aria-sort'));
            head.setAttribute('aria-sort', isUp ? 'ascending' : 'descending');
            const of = (row) => row.cells[head.cellIndex].textContent.trim();
            const order = new Intl.Collator(document.documentElement.lang, { numeric: true });
            const rows = this.rows().sort((one, other) => (isUp ? 1 : -1) * order.compare(of(one), of(other)));
            rows[0]?.parentElement.append(...rows);
        },
    };
}
