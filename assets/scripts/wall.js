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
            const { zone, opensAt, closesAt, themeByDay } = this.$root.dataset;
            const time = new Intl.DateTimeFormat('en-GB', {
                hour: '2-digit',
                minute: '2-digit',
                timeZone: zone,
            }).format();
            const isNight =
                opensAt < closesAt ? time < opensAt || time >= closesAt : time < opensAt && time >= closesAt;
            document.documentElement.dataset.theme = isNight ? 'night' : themeByDay;
        },
    };
}
