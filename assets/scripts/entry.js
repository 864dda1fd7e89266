const DRAFT = 'verjuicer.line';

/** The log line: told back while it is typed, kept as a draft until it is in the record, fed by the keypad. */
export function entryLine() {
    return {
        line: '',
        echo: '',
        isGood: false,
        isPadOpen: false,
        asked: 0,
        offers: [],
        spot: '',
        newSpot: '',

        init() {
            const given = this.$refs.line.value;
            const prefix = this.$root.dataset.prefix || '';
            this.line = given || this.draft() || prefix;
            this.isPadOpen = this.$root.dataset.pad === 'open';
            this.$watch('line', () => this.changed());
            this.$watch('newSpot', () => this.ask());
            if (!this.isOnlyTag()) this.ask();
            document.addEventListener('keydown', (event) => this.shortcut(event));
        },

        draft() {
            try {
                return sessionStorage.getItem(DRAFT) || '';
            } catch {
                return '';
            }
        },

        changed() {
            // A tag alone was filled in by the page, and is nobody's draft.
            try {
                sessionStorage.setItem(DRAFT, this.isOnlyTag() ? '' : this.line);
            } catch {
                /* A full or closed store costs only the draft. */
            }
            this.ask();
        },

        isOnlyTag() {
            return /^\s*(\d+([.,]\d*)?)?\s*$/.test(this.line);
        },

        async ask() {
            const turn = ++this.asked;
            if (this.isOnlyTag()) {
                this.echo = '';
                this.offers = [];
                this.spot = '';
                return;
            }
            await new Promise((later) => setTimeout(later, 120));
            if (turn !== this.asked) return;
            try {
                const asked = new URLSearchParams({ line: this.line, new_spot: this.newSpot });
                const answer = await fetch(`${this.$root.dataset.echo}?${asked}`);
                const told = await answer.json();
                if (turn !== this.asked) return;
                this.echo = told.sentence;
                this.isGood = told.ok;
                this.offers = told.offers;
                this.spot = told.spot;
            } catch {
                this.echo = this.$root.dataset.offline;
                this.isGood = false;
            }
        },

        /** L goes to the line from anywhere but a field. */
        shortcut(event) {
            const isField = ['INPUT', 'SELECT', 'TEXTAREA'].includes(event.target.tagName);
            if (event.key.toLowerCase() === 'l' && !isField && !event.ctrlKey && !event.metaKey && !event.altKey) {
                event.preventDefault();
                this.$refs.line.focus();
            }
        },

        togglePad() {
            this.isPadOpen = !this.isPadOpen;
        },

        press(event) {
            const key = event.currentTarget.dataset.key;
            if (key === 'back') this.line = this.line.slice(0, -1);
            else if (key === 'clear') this.line = this.$root.dataset.prefix || '';
            else if (key === 'space')
                this.line = this.line === '' || this.line.endsWith(' ') ? this.line : `${this.line} `;
            else this.line += key;
        },

        /** A tag begins a new line; a spot or a thermometer is a word of it. */
        pressTag(event) {
            this.line = `${event.currentTarget.dataset.key} `;
        },

        pressWord(event) {
            this.line = `${this.line.trimEnd()} ${event.currentTarget.dataset.key} `;
        },

        /** A known word in place of one that was not understood. */
        pressOffer(event) {
            this.line = event.currentTarget.dataset.key;
        },

        /** A spot nobody has read yet is added on purpose. */
        pressSpot() {
            this.newSpot = this.spot;
        },

        get hasOffers() {
            return this.offers.length > 0 || this.spot !== '';
        },

        get hasSpot() {
            return this.spot !== '';
        },

        get spotWords() {
            return this.$root.dataset.newSpot.replace('%spot%', this.spot);
        },

        sent() {
            try {
                sessionStorage.removeItem(DRAFT);
            } catch {
                /* nothing to forget */
            }
        },

        /** The echo takes the place of the help. */
        get helpClass() {
            return this.echo === '' ? '' : 'md:hidden';
        },

        get echoClass() {
            return this.isGood ? 'text-ink' : 'text-soft';
        },
    };
}
