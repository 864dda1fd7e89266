/** A time of day as the kitchen writes it: in its zone and its hours, whatever this device is set to. */
export function kitchenTime(milliseconds) {
    const clock = document.getElementById('clock');
    const is12 = clock?.dataset.hours === '12';
    return new Intl.DateTimeFormat(is12 ? 'en-US' : 'en-GB', {
        hour: is12 ? 'numeric' : '2-digit',
        minute: '2-digit',
        timeZone: clock?.dataset.zone,
    })
        .format(milliseconds)
        .toLowerCase();
}
