const DRAFT = 'verjuicer.line';

/** The log line: told back while it is typed, kept as a draft until it is in the record, fed by the keypad. */
export function entryLine() {
    return {
        line: '',
        echo: '',
        isGood: false,
        isPadOpen: false,
        wasPadOpen: false,
        asked: 0,
        offers: [],
        spot: '',
        newSpot: '',
        when: '',
        isMore: false,
        tags: {},
        verbs: {},
        likelyIn: {},
        thermometers: [],
        numbers: ['789', '456', '123', '.0-'].map((row) => row.split('')),
        whens: ['', '-5', '-10', '-20', '-30'],

        init() {
            const given = this.$refs.line.value;
            const prefix = this.$root.dataset.prefix || '';
            this.line = given || this.draft() || prefix;
            this.isPadOpen = this.$root.dataset.pad === 'open';
            this.wasPadOpen = this.isPadOpen;
            const { likely, ...keys } = JSON.parse(this.$root.querySelector('#pad > script').textContent);
            Object.entries(keys.tags).forEach(([tag, known]) => (known.tag = Number(tag)));
            Object.assign(this, keys, { likelyIn: likely });
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
            this.wasPadOpen = true;
        },

        closePad() {
            this.isPadOpen = false;
        },

        get isPadClosed() {
            return !this.isPadOpen;
        },

        /** On a phone the open keypad takes the whole screen. */
        get sectionClass() {
            return { 'entry-full': this.isPadOpen };
        },

        get tag() {
            return this.line.match(/^\s*(\d+)(?=[.,\s])/)?.[1] ?? '';
        },

        get piece() {
            return this.line.match(/^\s*\d+[.,](\d+)/)?.[1] ?? '';
        },

        /** What is known of the tag of the line. */
        get batch() {
            const known = this.tags[this.tag] ?? { product: '', stage: 'cook' };
            return { pieces: [], spots: [], verbs: this.likelyIn[known.stage] ?? [], ...known };
        },

        get verb() {
            return this.line.trim().split(/\s+/)[1] ?? '';
        },

        get hasTag() {
            return this.tag in this.tags;
        },

        get hasNoTag() {
            return !this.hasTag;
        },

        get isChoosingTag() {
            return !this.hasTag;
        },

        get allTags() {
            return Object.values(this.tags);
        },

        get allVerbs() {
            return Object.keys(this.verbs);
        },

        wordsOf(batch) {
            return `${this.pad().tagWords.replace('%tag%', batch.tag)} · ${batch.product}`;
        },

        // The number, and below it what is on it.
        tagKey(batch) {
            return `${batch.tag}\n${batch.product}`;
        },

        get tagWords() {
            return this.wordsOf(this.batch);
        },

        get pieces() {
            return this.batch.pieces;
        },

        get hasPieces() {
            return this.pieces.length > 0;
        },

        /** How the verb of the line is done, or where meat is read. */
        get words() {
            return this.verbs[this.verb] ?? this.batch.spots;
        },

        get hasWords() {
            return this.hasTag && this.words.length > 0;
        },

        get isReading() {
            return this.hasTag && !(this.verb in this.verbs);
        },

        isPiece(piece) {
            return String(piece) === this.piece;
        },

        isWhen(when) {
            return when === this.when;
        },

        whenWords(when) {
            return when === '' ? this.pad().now : this.pad().backWords.replace('%minutes%', when.slice(1));
        },

        whenLabel(when) {
            return when === '' ? this.pad().now : this.pad().agoWords.replace('%minutes%', when.slice(1));
        },

        numberWords(key) {
            return key === '-' ? '−' : key;
        },

        numberLabel(key) {
            return key === '-' ? this.pad().minus : key;
        },

        pieceWords(piece) {
            return this.pad().pieceWords.replace('%piece%', piece);
        },

        likely(place) {
            return this.batch.verbs[place] ?? '';
        },

        pad() {
            return this.$root.querySelector('#pad').dataset;
        },

        toggleMore() {
            this.isMore = !this.isMore;
        },

        /** The line without how long ago it was, which stands last. */
        head() {
            const tail = this.when === '' ? '' : ` ${this.when}`;
            if (tail !== '' && this.line.endsWith(tail)) return this.line.slice(0, -tail.length);
            this.when = '';
            return this.line;
        },

        put(head) {
            this.line = this.when === '' ? head : `${head.trimEnd()} ${this.when}`;
        },

        press(event) {
            this.put(this.head() + event.currentTarget.dataset.key);
        },

        erase() {
            if (this.head() !== this.line) {
                this.line = this.head();
                this.when = '';
            } else {
                this.line = this.line.trimEnd().slice(0, -1);
            }
        },

        /** A tag begins a new line. */
        pressTag(event) {
            this.when = '';
            this.line = `${event.currentTarget.dataset.key} `;
        },

        pressOtherTag() {
            this.when = '';
            this.line = '';
        },

        pressPiece(event) {
            const piece = event.currentTarget.dataset.key;
            this.put(this.head().replace(/^(\s*\d+)(?:[.,]\d+)?/, piece === this.piece ? '$1' : `$1.${piece}`));
        },

        pressWord(event) {
            this.put(`${this.head().trimEnd()} ${event.currentTarget.dataset.key} `);
        },

        /** What was done takes the place of what stood after the tag. */
        pressVerb(event) {
            this.say(event.currentTarget.dataset.key);
        },

        pressLikely(event) {
            this.say(this.likely(Number(event.currentTarget.dataset.place)));
        },

        say(verb) {
            this.isMore = false;
            this.put(`${this.line.match(/^\s*\d+(?:[.,]\d+)?/)?.[0] ?? ''} ${verb} `);
        },

        pressWhen(event) {
            const head = this.head();
            this.when = event.currentTarget.dataset.key;
            this.put(this.when === '' ? `${head.trimEnd()} ` : head);
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
