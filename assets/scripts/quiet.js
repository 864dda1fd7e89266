/** A shared tablet nobody touches for a while asks who stands there. What was typed is kept by the line itself. */
export function watchQuiet() {
    const minutes = Number(document.body.dataset.quiet ?? 0);
    if (!minutes) return;
    let last = Date.now();
    const touch = () => {
        last = Date.now();
    };
    ['pointerdown', 'keydown', 'input'].forEach((event) => document.addEventListener(event, touch, { passive: true }));
    setInterval(() => {
        if (Date.now() - last > minutes * 60_000) {
            location.assign(`/who?back=${encodeURIComponent(location.pathname)}`);
        }
    }, 5_000);
}
