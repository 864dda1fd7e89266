/** A screen nobody touches: it stays awake, and dims by the hours of the kitchen. */
export function wall() {
    return {
        init() {
            this.light();
            setInterval(() => this.light(), 60_000);
            this.stayAwake();
            document.addEventListener('visibilitychange', () => this.stayAwake());
        },

        async stayAwake() {
            if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
            try {
                await navigator.wakeLock.request('screen');
            } catch {
                // The device decides; the board is the same.
            }
        },

        light() {
            const { zone, dimFrom, dimTo, themeByDay } = this.$root.dataset;
            const hour = Number(new Intl.DateTimeFormat('en-GB', { hour: '2-digit', timeZone: zone }).format());
            const [from, to] = [Number(dimFrom), Number(dimTo)];
            const isNight = from > to ? hour >= from || hour < to : hour >= from && hour < to;
            document.documentElement.dataset.theme = isNight ? 'night' : themeByDay;
        },
    };
}
