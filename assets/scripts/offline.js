import { kitchenTime } from './clock.js';
import { all, field, know, known, put, remove } from './unsent.js';

const EVERY_SECONDS = 10;
let words = {};

const NUMBER = /^\s*(\d+)(?:[.,]\d+)?\s+(-?\d+(?:[.,]\d)?)/;

/** Makes the pages open without a network, shows what was not sent yet, and sends it when there is one again. */
export async function worksOffline() {
    if (!('serviceWorker' in navigator) || !window.isSecureContext || !('indexedDB' in window)) return;
    navigator.serviceWorker.register('/sw.js').catch(() => {});
    const box = document.getElementById('unsent');
    const account = document.body.dataset.account ?? '';
    await learn(account);
    await meet(account);
    asksBeforeLogOut();
    if (!box) return;
    await show(box, account);
    await send(box, account);
    setInterval(() => send(box, account), EVERY_SECONDS * 1000);
    window.addEventListener('online', () => send(box, account));
    box.addEventListener('click', (event) => decide(event, box, account));
}

/** What it says, in the words of the site: asked once a day, and kept. */
async function learn(account) {
    words = (await known('words')) ?? {};
    if (account === '' || Date.now() - (words.learnt ?? 0) < 86_400_000) return;
    try {
        const answer = await asked('/offline/words');
        if (!answer.ok || answer.redirected) return;
        words = { ...(await answer.json()), learnt: Date.now() };
        await know('words', words);
    } catch {
        // What was learnt before does.
    }
}

/** Who is logged in; and what time it is by the server, where this page was made just now. */
async function meet(account) {
    if (account !== '') await know('account', account);
    const made = Number(document.querySelector('[data-now]')?.dataset.now ?? 0) * 1000;
    const isFresh = performance.getEntriesByType('navigation')[0]?.workerStart === 0;
    if (made > 0 && isFresh) await know('ahead', made - Date.now());
    const age = made === 0 ? 0 : Date.now() + ((await known('ahead')) ?? 0) - made;
    const stale = document.getElementById('stale');
    if (stale && age > 90_000) {
        stale.hidden = false;
        stale.textContent = (words.as_of ?? '')
            .replace('{time}', kitchenTime(made))
            .replace('{minutes}', String(Math.round(age / 60_000)));
    }
}

/** What it says, as it was typed, or by the words of what was tapped. */
function saidBy(entry) {
    const line = field(entry, 'line');
    if (line !== '') return line;
    const what = words.taps?.[field(entry, 'tap')] ?? words.kinds?.[field(entry, 'type')];
    const read = ['temp', ...entry.fields.map(([name]) => name).filter((name) => /^t\d+$/.test(name))];
    const said = [...read, 'piece', 'spot', 'method', 'with', 'place', 'text', 'other', 'words', 'reason'];
    const details = said.map((name) => field(entry, name)).filter(Boolean);
    const place = Object.keys(words.pages ?? {}).find((path) => entry.path.startsWith(path));
    return [what ?? words.pages?.[place] ?? entry.path, ...details].join(' · ');
}

/** As far as plain limits go, the device judges by itself: what is held hot and reads under its limit, say. */
function warns(entry) {
    const [, tag, read] = NUMBER.exec(field(entry, 'line')) ?? [];
    const script = document.querySelector('#pad > script');
    const batch = tag && script ? JSON.parse(script.textContent).tags?.[tag] : null;
    const degrees = Number((read ?? '').replace(',', '.'));
    if (batch?.least && degrees < batch.least) return words.under.replace('{limit}', String(batch.least));
    if (batch?.most && degrees > batch.most) return words.over.replace('{limit}', String(batch.most));
    return '';
}

async function show(box, account) {
    const entries = await all();
    box.hidden = entries.length === 0;
    const list = box.querySelector('ul');
    list.replaceChildren(
        ...entries.map((entry) => {
            const line = document.createElement('li');
            line.className = 'border-t border-rule py-2';
            const said = document.createElement('strong');
            said.textContent = saidBy(entry);
            const time = kitchenTime(entry.at);
            const state = document.createElement('span');
            state.textContent = ` · ${time} · ${stateOf(entry, account)}`;
            line.append(said, state);
            const warning = warns(entry);
            if (warning !== '') {
                const told = document.createElement('strong');
                told.className = 'block text-ember';
                told.textContent = warning;
                line.append(told);
            }
            if (entry.question) line.append(...choices(entry));
            return line;
        }),
    );
}

function stateOf(entry, account) {
    if (entry.question) return entry.question;
    return entry.account === account ? words.waits : words.of.replace('{who}', entry.account);
}

function choices(entry) {
    const change = document.createElement('a');
    change.className = 'key mt-1 mr-2';
    const line = field(entry, 'line');
    change.href = line === '' ? entry.from : `/log?line=${encodeURIComponent(line)}`;
    change.textContent = words.change;
    change.dataset.drop = String(entry.place);
    const drop = document.createElement('button');
    drop.type = 'button';
    drop.className = 'key mt-1';
    drop.textContent = words.drop;
    drop.dataset.drop = String(entry.place);
    drop.dataset.sure = words.sure;
    return [change, drop];
}

async function decide(event, box, account) {
    const chosen = event.target.closest('[data-drop]');
    if (!chosen) return;
    if (chosen.dataset.sure && !window.confirm(chosen.dataset.sure)) return;
    if (chosen.href) event.preventDefault();
    await remove(Number(chosen.dataset.drop));
    await show(box, account);
    if (chosen.href) location.assign(chosen.href);
}

/** In their order, one page at a time; what a person has to decide waits, and holds up nobody else. */
async function send(box, account) {
    await navigator.locks.request('unsent', { ifAvailable: true }, async (lock) => {
        const entries = lock ? (await all()).filter((one) => !one.question && one.account === account) : [];
        if (entries.length === 0) return;
        const tokens = await asked('/offline/tokens').catch(() => null);
        if (!tokens?.ok || tokens.redirected) return;
        const { account: whose, tokens: byPath } = await tokens.json();
        if (whose !== account) return;
        for (const entry of entries) {
            if (!(await sendOne(entry, byPath))) break;
        }
        await show(box, account);
    });
}

/** @returns {Promise<boolean>} whether the next may be sent */
async function sendOne(entry, tokens) {
    const kind = Object.keys(tokens).find((path) => new RegExp(path).test(entry.path));
    const made = new Date(entry.at + ((await known('ahead')) ?? 0)).toISOString();
    const body = new URLSearchParams([...entry.fields, ['_token', tokens[kind] ?? ''], ['made_offline', made]]);
    let answer;
    try {
        answer = await asked(entry.path, { method: 'POST', body });
    } catch {
        return false;
    }
    if (answer.status >= 500 || new URL(answer.url).pathname === '/login') return false;
    if (answer.redirected && answer.ok) {
        await remove(entry.place);
        return true;
    }
    const page = new DOMParser().parseFromString(await answer.text(), 'text/html');
    const told = page.querySelector('[role="alert"], #doubt-title, [id^="problem-"]')?.textContent ?? '';
    await put({ ...entry, question: told.trim().replace(/\s+/g, ' ').slice(0, 200) || words.asks });
    return true;
}

function asked(path, options = {}) {
    return fetch(path, { ...options, signal: AbortSignal.timeout(20_000), headers: { Accept: 'text/html' } });
}

function asksBeforeLogOut() {
    let isSure = false;
    document.querySelectorAll('form[action="/logout"]').forEach((form) => {
        form.addEventListener('submit', async (event) => {
            if (isSure) return;
            event.preventDefault();
            const count = (await all()).length;
            const question = words.log_out ?? '';
            isSure = count === 0 || window.confirm(question.replace('{count}', String(count)));
            if (isSure) form.requestSubmit();
        });
    });
}
