// The page that checks a packet on an inspector's own machine: opened from a file, without a network.
import { check } from './proof.js';

const words = JSON.parse(document.getElementById('words').textContent);
const out = document.getElementById('result');
const file = document.getElementById('file');
const key = document.getElementById('key');

const say = (text, values = {}) =>
    Object.entries(values).reduce((told, [name, value]) => told.replaceAll(`{${name}}`, String(value)), text);

const add = (parent, tag, text, name = '') => {
    const element = document.createElement(tag);
    element.textContent = text;
    if (name) {
        element.className = name;
    }
    parent.append(element);
    return element;
};

const show = (shown) => {
    out.replaceChildren();
    const isGood = shown.faults.length === 0;
    // A false packet is whole, too, under a key made for it: only a key the reader had before makes it green.
    const good = shown.older > 0 ? words.holds_here : words.holds;
    if (!isGood) {
        add(out, 'h2', words.broken, 'bad');
    } else if (shown.isExpected) {
        add(out, 'h2', good, 'good');
    } else {
        add(out, 'h2', words.unaltered, 'unknown');
    }
    if (shown.site) {
        add(out, 'p', say(words.made, { site: shown.site, made: shown.made }));
    }
    if (!isGood) {
        const list = add(out, 'ul', '');
        shown.faults.slice(0, 200).forEach(({ name, of }) => {
            add(list, 'li', `${words.faults[name] ?? name}${of ? ` (${of})` : ''}`);
        });
    }
    add(out, 'p', say(words.counts, shown.counts));
    if (shown.isPacket) {
        add(out, 'p', shown.pages > 0 ? say(words.pages, { count: shown.pages }) : words.pages_signed);
    }
    if (shown.older > 0) {
        add(out, 'p', say(words.older, { count: shown.older }));
    }
    if (shown.key) {
        add(out, 'p', words.key);
        add(out, 'p', shown.key, 'key');
        add(out, 'p', shown.isExpected ? words.key_same : words.key_help);
    }
    if (shown.batches.length > 0) {
        add(out, 'h2', words.batches);
        add(out, 'p', words.not_judged);
        const table = add(out, 'table', '');
        const head = add(add(table, 'thead', ''), 'tr', '');
        words.columns.forEach((one) => add(head, 'th', one).setAttribute('scope', 'col'));
        const body = add(table, 'tbody', '');
        shown.batches.forEach((batch) => {
            const row = add(body, 'tr', '');
            [batch.code, batch.name, words.verdicts[batch.verdict] ?? batch.verdict, batch.at].forEach((one) =>
                add(row, 'td', one),
            );
        });
    }
    out.focus();
};

const look = async () => {
    const given = file.files[0];
    if (!given) {
        return;
    }
    out.replaceChildren();
    add(out, 'p', words.reading);
    const shown = check(new Uint8Array(await given.arrayBuffer()));
    const expected = key.value.trim().toLowerCase();
    if (expected && expected !== shown.key) {
        shown.faults.push({ name: 'key_not_named', of: expected });
    }
    show({
        ...shown,
        isExpected: expected !== '' && expected === shown.key,
        counts: {
            batches: shown.batches.length,
            events: shown.events,
            links: shown.links,
            seals: shown.seals,
        },
    });
};

file.addEventListener('change', look);
key.addEventListener('change', look);
