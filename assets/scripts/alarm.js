const QUIET_MINUTES = 10;
const EVERY_SECONDS = 6;
/** Three steps up, a fourth each, where an ear is keenest and a kitchen is not loud: hertz. */
const STEPS = [1100, 1467, 1956];
const STEP_SECONDS = 0.13;
const KEY = 'alarm-quiet-until';
const TOLD = 'alarm-told';

let context = null;
let soundedAt = 0;

/** Sounds while the page shows an alarm nobody has taken; can be silenced for a time, never for ever. */
export function soundAlarms() {
    setInterval(look, 1000);
    // A browser lets a page sound only once somebody touched it.
    ['pointerdown', 'keydown'].forEach((name) => document.addEventListener(name, wakeUp, { passive: true }));
    document.addEventListener('click', async (event) => {
        if (event.target.closest?.('[data-notify]')) {
            await Notification.requestPermission();
            look();
        }
        const button = event.target.closest?.('[data-quiet]');
        if (!button) return;
        localStorage.setItem(KEY, isQuiet() ? '0' : String(Date.now() + QUIET_MINUTES * 60_000));
        look();
    });
}

function wakeUp() {
    context ??= new AudioContext();
    if (context.state === 'suspended') context.resume();
}

function isQuiet() {
    const until = Number(localStorage.getItem(KEY) ?? 0);
    // A clock that was set back silences nothing for longer.
    return until > Date.now() && until <= Date.now() + QUIET_MINUTES * 60_000;
}

function look() {
    const panel = document.querySelector('[data-alarms]');
    const isSounding = Boolean(panel && panel.dataset.sounding.trim() !== '');
    const button = panel?.querySelector('[data-quiet]');
    if (button) {
        button.hidden = !isSounding;
        const words = isQuiet() ? button.dataset.loud : button.dataset.quiet;
        if (button.textContent !== words) button.textContent = words;
    }
    const ask = panel?.querySelector('[data-notify]');
    if (ask) ask.hidden = !('Notification' in window) || Notification.permission !== 'default';
    if (isSounding) notify(panel);
    if (!isSounding || isQuiet() || Date.now() - soundedAt < EVERY_SECONDS * 1000) return;
    soundedAt = Date.now();
    play();
}

/** Once a device and alarm, also where the page is behind others; nothing outside this machine is asked for it. */
async function notify(panel) {
    if (!('Notification' in window) || Notification.permission !== 'granted' || !navigator.serviceWorker) return;
    const told = JSON.parse(localStorage.getItem(TOLD) ?? '[]');
    const fresh = panel.dataset.sounding.split(' ').filter((id) => id !== '' && !told.includes(id));
    if (fresh.length === 0) return;
    localStorage.setItem(TOLD, JSON.stringify([...told, ...fresh].slice(-200)));
    const worker = await navigator.serviceWorker.ready;
    for (const id of fresh) {
        const line = panel.querySelector(`a[href$="/alarms/${id}"]`);
        const title = line?.querySelector('strong')?.textContent ?? panel.querySelector('h2').textContent.trim();
        const body = line?.lastElementChild?.textContent.trim() ?? '';
        worker.showNotification(title, { body, tag: id, icon: '/icons/drop-192.png', data: `/alarms/${id}` });
    }
}

function play() {
    document.documentElement.dataset.sounded = String(Number(document.documentElement.dataset.sounded ?? 0) + 1);
    if (!context || context.state !== 'running') return;
    const start = context.currentTime;
    for (let round = 0; round < 2; ++round) {
        STEPS.forEach((hertz, step) => {
            const from = start + round * 0.55 + step * STEP_SECONDS;
            const tone = context.createOscillator();
            const loud = context.createGain();
            tone.type = 'square';
            tone.frequency.value = hertz;
            loud.gain.setValueAtTime(0, from);
            loud.gain.linearRampToValueAtTime(0.6, from + 0.01);
            loud.gain.linearRampToValueAtTime(0, from + STEP_SECONDS);
            tone.connect(loud).connect(context.destination);
            tone.start(from);
            tone.stop(from + STEP_SECONDS);
        });
    }
}
