// Checks a packet or a proof (docs/format/proof.md) with nothing but the file. The same as core/Proof, but that it does
// not judge: that takes the rules.
import { ed25519 } from '@noble/curves/ed25519.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, concatBytes, hexToBytes, utf8ToBytes } from '@noble/hashes/utils.js';
import { unzlibSync } from 'fflate';

const ENVELOPE = ['id', 'at', 'by', 'type', 'recorded_at'];
const FACTS = {
    name: ['product_name', 'productName'],
    animal: ['animal', 'animal'],
    form: ['form', 'form'],
    integrity: ['integrity', 'integrity'],
    pieces: ['pieces', 'pieces'],
    wild: ['is_wild', 'isWild'],
    advisory: ['has_advisory', 'hasAdvisory'],
};
const OF_SITE = ['name', 'timezone', 'unit', 'elevation_m'];
const TAIL_BYTES = 4096;
const GENERATIONS = 20;

const words = (...parts) => utf8ToBytes(parts.join('\n'));
const digest = (bytes) => bytesToHex(sha256(bytes));
const latin = (bytes) => {
    let text = '';
    for (let at = 0; at < bytes.length; at += 32768) {
        text += String.fromCharCode(...bytes.subarray(at, at + 32768));
    }
    return text;
};

const isSignedBy = (key, message, signature) => {
    try {
        return ed25519.verify(hexToBytes(signature), message, hexToBytes(key));
    } catch {
        return false;
    }
};

/** How a packet ends. `counted` is 1, or 0 for packets of early versions: their trailer leaves the signature out. */
const tailOf = (end, length, site, key, signature, counted) => {
    const part =
        /trailer\n<< (\/Size (\d{1,9}) \/Root \d{1,9} 0 R .*?)(?: \/Prev \d+)? >>\nstartxref\n(\d+)\n%%EOF\n$/.exec(
            end,
        );
    if (!part) {
        return null;
    }
    const [, said, size, before] = part;
    const entries = said.replace(/^\/Size \d+/, `/Size ${Number(size) + counted}`);
    const object =
        `${size} 0 obj\n<< /Type /VerjuicerSignature /Site (${site}) /Key (${key}) /Signature (${signature}) >>\n` +
        'endobj\n';
    return (
        object +
        `xref\n${size} 1\n${String(length).padStart(10, '0')} 00000 n \n` +
        `trailer\n<< ${entries} /Prev ${before} /VerjuicerSignature ${size} 0 R >>\n` +
        `startxref\n${length + object.length}\n%%EOF\n`
    );
};

/** How many bytes of a PDF are signed, and by what; null where no signature of ours ends it. */
const signatureOf = (bytes) => {
    const end = latin(bytes.subarray(Math.max(0, bytes.length - TAIL_BYTES)));
    const place = end.lastIndexOf('%%EOF\n', end.length - 7);
    const part =
        place < 0
            ? null
            : /\/Site \(([0-9a-f-]{36})\) \/Key \(([0-9a-f]{64})\) \/Signature \(([0-9a-f]{128})\)/.exec(
                  end.slice(place),
              );
    if (!part) {
        return null;
    }
    const length = bytes.length - end.length + place + 6;
    const signedEnd = latin(bytes.subarray(Math.max(0, length - TAIL_BYTES), length));
    const [, site, key, signature] = part;
    return [1, 0].some((counted) => end.slice(place + 6) === tailOf(signedEnd, length, site, key, signature, counted))
        ? { length, site, key, signature }
        : null;
};

/** What is attached to a PDF under a name, as text; null where nothing is. */
const attachedTo = (bytes, name) => {
    const text = latin(bytes);
    const spec = new RegExp(
        `<< /Type /Filespec /F \\(${name.replace('.', '\\.')}\\) [^>]*/EF << /F (\\d+) 0 R >> >>`,
    ).exec(text);
    const start = spec ? text.lastIndexOf(`\n${spec[1]} 0 obj\n<< /Type /EmbeddedFile `) : -1;
    const head = start < 0 ? null : / \/Length (\d+) >>\nstream\n/.exec(text.slice(start, start + TAIL_BYTES));
    if (!head) {
        return null;
    }
    const from = start + head.index + head[0].length;
    return new TextDecoder().decode(unzlibSync(bytes.subarray(from, from + Number(head[1]))));
};

// The same in any language: its \s is not.
const WHITE = /[\t-\r \u00a0\u2000-\u200a\u2028\u2029\u202f\u205f\u3000]+/g;
const bareText = (text) => text.replace(WHITE, '');

/** The text of each page, as core/Proof/PageText reads it; null if the file is built otherwise. */
const pageTexts = (bytes) => {
    const text = latin(bytes);
    const places = new Map();
    for (const found of text.matchAll(/\n(\d{1,9}) 0 obj\n/g)) {
        places.set(found[1], [...(places.get(found[1]) ?? []), found.index + found[0].length]);
    }
    const dictionary = (place) => {
        const ends = [text.indexOf('\nendobj', place), text.indexOf('\nstream\n', place)].filter((end) => end >= 0);
        return text.slice(place, Math.min(...ends));
    };
    const object = (number) => {
        const found = places.get(number) ?? [];
        if (found.length !== 1) {
            throw new Error(`object ${number} is defined ${found.length} times`);
        }
        return dictionary(found[0]);
    };
    const reference = (name, from) => {
        const quoted = name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
        const part = new RegExp(`/${quoted}\\s+(\\d+) 0 R`).exec(from);
        if (!part) {
            throw new Error(`no reference to ${name}`);
        }
        return part[1];
    };
    const stream = (number) => {
        const head = object(number);
        const length = /\/Length (\d+)\n?>>$/.exec(head);
        if (!length) {
            throw new Error(`object ${number} is no stream`);
        }
        const start = places.get(number)[0] + head.length + '\nstream\n'.length;
        const content = bytes.subarray(start, start + Number(length[1]));
        return latin(head.includes('/FlateDecode') ? unzlibSync(content) : content);
    };
    const characters = (font) => {
        const pairs = stream(reference('ToUnicode', object(font))).matchAll(/^<([0-9a-f]{4})> <((?:[0-9a-f]{4})+)>$/gm);
        return new Map(
            [...pairs].map(([, glyph, units]) => [
                glyph,
                String.fromCharCode(...units.match(/.{4}/g).map((unit) => parseInt(unit, 16))),
            ]),
        );
    };
    const page = (number) => {
        const head = object(number);
        const fonts = object(reference('Font', object(reference('Resources', head))));
        const known = new Map();
        let font = '';
        let shown = '';
        const content = stream(reference('Contents', head));
        for (const [, name, strings] of content.matchAll(/\/(\S+) [\d.]+ Tf$|\[([^\]]*)\] TJ$/gm)) {
            if (strings === undefined) {
                font = name;
                known.set(font, known.get(font) ?? characters(reference(font, fonts)));
            } else {
                const glyphs = [...strings.matchAll(/<([0-9a-f]*)>/g)].map(([, one]) => one).join('');
                shown += (glyphs.match(/.{4}/g) ?? []).map((glyph) => known.get(font)?.get(glyph) ?? '').join('');
            }
        }
        return bareText(shown);
    };
    try {
        const roots = new Set([...text.matchAll(/\/Root (\d+) 0 R/g)].map(([, root]) => root));
        const catalogues = roots.size === 1 ? (places.get([...roots][0]) ?? []) : [];
        const trees = new Set(catalogues.map((place) => reference('Pages', dictionary(place))));
        if (trees.size !== 1) {
            return null;
        }
        const kids = /\/Kids \[([ \dR]*)\]/.exec(object([...trees][0]));
        return [...(kids?.[1] ?? '').matchAll(/(\d+) 0 R/g)].map(([, number]) => page(number));
    } catch {
        return null;
    }
};

/** What the heading of a batch on its page begins with, without white space. */
const heading = (code) => `${bareText(code)}·`;

/** What should be a list, whatever a stranger made of it. */
const list = (value) => (value && typeof value === 'object' ? Object.values(value) : []);

const bare = (value) => Object.entries(value).filter(([, one]) => one !== null && one !== undefined);

/** Objects are the same by their members, whatever the order of these; what is null is not there. */
const isSame = (one, other) => {
    const [first, second] = [one ?? null, other ?? null];
    if (first === null || second === null || typeof first !== 'object' || typeof second !== 'object') {
        return first === second;
    }
    const [mine, theirs] = [bare(first), new Map(bare(second))];
    return (
        mine.length === theirs.size &&
        mine.every(([name, value]) => theirs.has(name) && isSame(value, theirs.get(name)))
    );
};

const instant = (value) => (typeof value === 'string' ? Date.parse(value) : NaN);
const isSameTime = (one, other) => (one ?? null) === (other ?? null) || instant(one) === instant(other);

class Rows {
    byKind = new Map();
    events = new Map();
    facts = new Map();
    labels = new Map();
    checks = new Map();
    pits = new Map();
    sites = [];

    add(kind, id, row) {
        this.byKind.set(`${kind} ${id}`, row);
        if (kind === 'event') {
            this.events.set(row.batch_id, [...(this.events.get(row.batch_id) ?? []), id]);
        } else if (kind === 'batch_fact') {
            this.facts.set(row.batch_id, { ...this.facts.get(row.batch_id), ...row.facts });
        } else if (kind === 'thermometer_check') {
            const of = `${row.thermometer_id} ${instant(row.at)}`;
            this.checks.set(of, [...(this.checks.get(of) ?? []), row]);
        } else if (kind === 'row_kept' && row.of_table === 'thermometer') {
            this.labels.set(row.row_id, row.content?.label);
        } else if (kind === 'row_kept' && row.of_table === 'pit') {
            this.pits.set(row.row_id, row.content?.name);
        } else if (kind === 'row_kept' && row.of_table === 'site') {
            this.sites.push(row.content ?? {});
        }
    }

    of(kind, id) {
        return this.byKind.get(`${kind} ${id}`) ?? null;
    }

    checksOf(label, at) {
        return [...this.labels]
            .filter(([, name]) => name === label)
            .flatMap(([id]) => this.checks.get(`${id} ${at}`) ?? []);
    }
}

class ProofCheck {
    rows = new Rows();
    digests = new Map();
    older = new Set();
    seals = new Map();
    keys = [];
    runs = [];
    batches = [];
    pages = [];
    shown = {
        faults: [],
        site: '',
        siteId: '',
        made: '',
        key: '',
        batches: [],
        events: 0,
        links: 0,
        seals: 0,
        older: 0,
        pages: 0,
    };

    fault(name, of = '') {
        this.shown.faults.push({ name, of: String(of) });
    }

    /** @param texts of the pages the proof is attached to; null if there are none */
    of(text, texts = null) {
        const hash = sha256.create();
        let isSigned = false;
        for (let from = 0; from < text.length;) {
            const end = text.indexOf('\n', from);
            const line = text.slice(from, end < 0 ? text.length : end + 1);
            from += line.length;
            let data = null;
            try {
                data = JSON.parse(line);
            } catch {
                data = null;
            }
            if (data === null || typeof data !== 'object' || isSigned) {
                this.fault(isSigned ? 'altered_file' : 'not_a_proof');
                return this.shown;
            }
            if (data.signature) {
                this.signature(data.signature, bytesToHex(hash.digest()));
                isSigned = true;
            } else {
                hash.update(utf8ToBytes(line));
                this.take(data);
            }
        }
        if (!isSigned) {
            this.fault('not_signed');
        }
        this.chain();
        this.batches.forEach((batch) => this.batch(batch));
        if (texts !== null && this.pages.length > 0) {
            this.comparePages(texts);
        }
        return this.shown;
    }

    take(data) {
        if (data.proof) {
            this.head(data.proof);
        } else if (data.row) {
            const { kind, id, is, form } = data.row;
            const of = `${kind} ${id}`;
            let content = {};
            try {
                content = JSON.parse(is);
            } catch {
                content = {};
            }
            this.rows.add(kind, id, content);
            this.digests.set(of, digest(utf8ToBytes(String(is))));
            if (form === 1) {
                this.older.add(of);
                this.shown.older += 1;
            }
            if (content.id !== id) {
                this.fault('row_altered', of);
            }
        } else if (data.seal) {
            this.seals.set(data.seal.position, data.seal);
        } else if (data.run) {
            this.runs.push(data.run);
        } else if (data.batch) {
            this.batches.push(data.batch);
        } else if (data.page) {
            this.pages.push(data.page);
        }
    }

    head(proof) {
        this.shown.site = proof.site?.name ?? '';
        this.shown.siteId = proof.site?.id ?? '';
        this.shown.made = proof.made_at ?? '';
        list(proof.verified?.breaks).forEach((one) => this.fault('said_broken', one));
        list(proof.keys).forEach(({ public: key, before, vouched, reason }) => {
            if (before && !isSignedBy(before, words('verjuicer-key/1', this.shown.siteId, before, key), vouched)) {
                this.fault('key_unvouched', reason);
            }
            this.keys.push(key);
        });
    }

    signature({ sha256: said, key, signature }, real) {
        this.shown.key = key;
        if (said !== real) {
            this.fault('altered_file');
        }
        if (!isSignedBy(key, words('verjuicer-proof/1', this.shown.siteId, real), signature)) {
            this.fault('not_signed');
        }
        if (!this.keys.includes(key)) {
            this.fault('key_not_named');
        }
    }

    chain() {
        const linked = new Map();
        this.runs.forEach((run) => {
            let place = run.from - 1;
            let hash = run.before ? hexToBytes(run.before) : new Uint8Array();
            list(run.links).forEach(([kind, id, recorded, of]) => {
                place += 1;
                hash = sha256(
                    concatBytes(hash, words('verjuicer-link/2', this.shown.siteId, place, kind, id, recorded, of)),
                );
                linked.set(`${kind} ${id}`, of);
                this.shown.links += 1;
            });
            if (this.seals.get(place)?.digest !== bytesToHex(hash)) {
                this.fault('chain_broken', place);
            }
        });
        this.seals.forEach((seal) => {
            this.shown.seals += 1;
            const message = words('verjuicer-seal/1', this.shown.siteId, seal.position, seal.digest, seal.at);
            if (!this.keys.some((key) => isSignedBy(key, message, seal.signature))) {
                this.fault('seal_not_signed', seal.position);
            }
        });
        this.digests.forEach((of, name) => {
            if (!this.older.has(name) && linked.get(name) !== of) {
                this.fault(linked.has(name) ? 'row_altered' : 'row_not_chained', name);
            }
        });
    }

    /** Every page reads as it was signed, and every batch stands on one with the verdict of its assessment. */
    comparePages(texts) {
        this.shown.pages = this.pages.length;
        if (texts.length !== this.pages.length) {
            this.fault('page_differs', texts.length);
        }
        this.pages.forEach(({ sha256: said }, index) => {
            if (said !== digest(utf8ToBytes(texts[index] ?? ''))) {
                this.fault('page_differs', index + 1);
            }
        });
        this.batches.forEach(({ id, record, assessment }) => {
            const code = record?.batch?.code ?? '';
            const isShown = this.pages.some(
                ({ batches }, index) =>
                    batches?.[id] === assessment?.verdict && (texts[index] ?? '').includes(heading(code)),
            );
            if (!isShown) {
                this.fault('page_differs', code);
            }
        });
    }

    batch({ id, record, assessment }) {
        const code = record?.batch?.code ?? '';
        this.shown.batches.push({
            code,
            name: record?.batch?.product?.name ?? '',
            verdict: assessment?.verdict ?? '',
            at: assessment?.as_of ?? '',
        });
        const known = new Set();
        list(record?.batch?.events).forEach((event) => {
            this.shown.events += 1;
            known.add(event.id);
            const row = this.rows.of('event', event.id);
            const ofPit = row ? null : this.rows.of('site_event', event.id);
            if (!row && !ofPit) {
                this.fault('event_not_written', `${code} ${event.id}`);
            } else if (!(row ? this.isOfRow(event, row, id) : this.isOfPit(event, ofPit))) {
                this.fault('event_differs', `${code} ${event.id}`);
            }
        });
        (this.rows.events.get(id) ?? [])
            .filter((one) => !known.has(one))
            .forEach((one) => this.fault('event_left_out', `${code} ${one}`));
        list(record?.thermometers).forEach((thermometer) => this.thermometer(thermometer, code));
        const wasStuffed = this.wasStuffed(list(record?.batch?.events));
        if (!this.isOfBatch(record?.batch?.product ?? {}, record?.rules, wasStuffed, id)) {
            this.fault('batch_differs', code);
        }
        if (!this.isOfSite(record?.site ?? {})) {
            this.fault('site_differs', code);
        }
    }

    isSameEnvelope(event, row) {
        return (
            event.by === row.initials && isSameTime(event.at, row.at) && isSameTime(event.recorded_at, row.recorded_at)
        );
    }

    isOfRow(event, row, id) {
        const members = { ...row.members };
        ['replaces', 'reason'].forEach((name) => {
            if (row[name] !== null && row[name] !== undefined) {
                members[name] = row[name];
            }
        });
        const said = Object.fromEntries(Object.entries(event).filter(([name]) => !ENVELOPE.includes(name)));
        return (
            this.isOfFamily(row.batch_id, id) &&
            event.type === row.type &&
            this.isSameEnvelope(event, row) &&
            isSame(said, members)
        );
    }

    isOfPit(event, row) {
        const [type, said, written] = {
            set: ['pit_set', event.set, row.members?.temp],
            reading: ['pit_reading', event.temp, row.members?.temp],
        }[row.type] ?? ['note', event.text, row.members?.words];
        return (
            row.subject === 'pit' &&
            event.pit === this.rows.pits.get(row.subject_id) &&
            event.type === type &&
            this.isSameEnvelope(event, row) &&
            isSame(said, written)
        );
    }

    isOfFamily(batch, id) {
        let one = id;
        for (let generation = 0; one && generation < GENERATIONS; generation += 1) {
            if (one === batch) {
                return true;
            }
            one = this.rows.of('batch', one)?.parent_id;
        }
        return false;
    }

    thermometer({ id: label, checks }, code) {
        list(checks).forEach((check) => {
            const isWritten = this.rows
                .checksOf(label, instant(check.at))
                .some(
                    (row) =>
                        row.method === check.method &&
                        isSame(row.expected, check.expected) &&
                        isSame(row.read, check.read),
                );
            if (!isWritten) {
                this.fault('check_not_written', `${code} ${label}`);
            }
        });
    }

    /** Whether it was stuffed after it was begun, and nobody took that back. */
    wasStuffed(events) {
        const replaced = new Set(events.map((event) => event.replaces));
        return events.some((event) => event.type === 'tenderize' && event.stuffed === true && !replaced.has(event.id));
    }

    isOfBatch(product, rules, wasStuffed, id) {
        const row = this.rows.of('batch', id);
        if (!row || row.rule_set !== rules) {
            return false;
        }
        const facts = this.rows.facts.get(id) ?? {};
        const isRight = Object.entries(FACTS).every(([member, [column, fact]]) => {
            const written = fact in facts ? facts[fact] : row[column];
            return isSame(product[member] ?? (typeof written === 'boolean' ? false : null), written);
        });
        const grams = 'rawGrams' in facts ? facts.rawGrams : row.raw_grams;
        const said = typeof product.raw_weight_kg === 'number' ? Math.round(1000 * product.raw_weight_kg) : null;
        const isStuffed = 'isStuffed' in facts ? facts.isStuffed : row.is_stuffed;
        const isStuffedRight = (product.stuffed ?? false) === (isStuffed === true || wasStuffed);
        return isRight && isStuffedRight && isSame(said, grams);
    }

    isOfSite(site) {
        return this.rows.sites.some(
            (kept) =>
                OF_SITE.every((name) => isSame(site[name], kept[name])) &&
                isSame(site.house_limits ?? {}, kept.house_limits ?? {}),
        );
    }
}

const looked = (bytes) => {
    if (latin(bytes.subarray(0, 5)) !== '%PDF-') {
        return new ProofCheck().of(new TextDecoder().decode(bytes));
    }
    const proof = attachedTo(bytes, 'proof.ndjson');
    if (proof === null) {
        const checker = new ProofCheck();
        checker.fault('not_a_proof');
        return checker.shown;
    }
    const shown = new ProofCheck().of(proof, pageTexts(bytes) ?? []);
    shown.isPacket = true;
    const tail = signatureOf(bytes);
    const isSigned =
        tail !== null &&
        isSignedBy(
            tail.key,
            words('verjuicer-packet/1', tail.site, digest(bytes.subarray(0, tail.length))),
            tail.signature,
        );
    if (!isSigned) {
        shown.faults.push({ name: 'not_signed', of: 'PDF' });
    } else if (tail.key !== shown.key || tail.site !== shown.siteId) {
        shown.faults.push({ name: 'key_not_named', of: 'PDF' });
    }
    return shown;
};

/** What a file shows: `faults` (name, of what), site, key, batches with their verdicts, counts. */
export const check = (bytes) => {
    try {
        return looked(bytes);
    } catch {
        // Of another shape than anything we make.
        const checker = new ProofCheck();
        checker.fault('not_a_proof');
        return checker.shown;
    }
};
