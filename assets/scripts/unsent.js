import { openDB } from 'idb';

const REMEMBERED = 300;

/** What was entered without a network, in its order, until it is sent; and what is known of the server. */
const opened = openDB('verjuicer', 1, {
    upgrade(db) {
        db.createObjectStore('entries', { keyPath: 'place', autoIncrement: true });
        db.createObjectStore('known');
    },
});

/** @returns {Promise<Array<object>>} in the order they were made */
export async function all() {
    return (await opened).getAll('entries');
}

/** What a field of it says; '' where it has none. */
export function field(entry, name) {
    return entry.fields.find(([one]) => one === name)?.[1] ?? '';
}

export async function add(entry) {
    const entries = await all();
    // The same sent twice is one entry.
    const id = field(entry, 'id');
    if (id !== '' && entries.some((one) => field(one, 'id') === id)) return;
    await (await opened).add('entries', entry);
}

export async function put(entry) {
    await (await opened).put('entries', entry);
}

export async function remove(place) {
    await (await opened).delete('entries', place);
}

/**
 * The id that what a form sends is kept under: the form's own, so that the same sent again is kept once; another where
 * a page out of the cache sends something else under the id it sent before.
 */
export async function idOf(fields) {
    const used = (await known('ids')) ?? [];
    const id = fields.find(([name]) => name === 'id')[1];
    const content = JSON.stringify(fields.filter(([name]) => !['_token', 'id', 'sure'].includes(name)));
    const before = used.find(([one]) => one === id);
    const own = before === undefined || before[1] === content ? id : newId();
    await know('ids', [...used.filter(([one]) => one !== own), [own, content]].slice(-REMEMBERED));

    return own;
}

/** A UUID of version 7: in the order of time (RFC 9562, 5.7). */
function newId() {
    const bytes = crypto.getRandomValues(new Uint8Array(16));
    new DataView(bytes.buffer).setBigUint64(0, (BigInt(Date.now()) << 16n) | BigInt((bytes[6] << 8) | bytes[7]));
    bytes[6] = (bytes[6] & 0x0f) | 0x70;
    bytes[8] = (bytes[8] & 0x3f) | 0x80;
    const hex = Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');

    return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}

/** Who is logged in, and by how many milliseconds the server's clock is ahead of this one. */
export async function know(name, value) {
    await (await opened).put('known', value, name);
}

export async function known(name) {
    return (await opened).get('known', name);
}
