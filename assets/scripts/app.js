import { showGlobals } from './globals.js';
import Alpine from '@alpinejs/csp';
import { soundAlarms } from './alarm.js';
import { entryLine } from './entry.js';
import { keyMap } from './keys.js';
import { keepCurrent } from './live.js';
import { worksOffline } from './offline.js';
import { readings } from './picture.js';
import { planStrips } from './plan.js';
import { watchQuiet } from './quiet.js';
import { sieve } from './sieve.js';
import { wall } from './wall.js';
import { ownZone } from './zone.js';

showGlobals();
watchQuiet();
soundAlarms();
worksOffline();
Alpine.data('entryLine', entryLine);
Alpine.data('keepCurrent', keepCurrent);
Alpine.data('keyMap', keyMap);
Alpine.data('planStrips', planStrips);
Alpine.data('readings', readings);
Alpine.data('sieve', sieve);
Alpine.data('wall', wall);
Alpine.data('ownZone', ownZone);
// A task of its own: what is tapped meanwhile waits half as long.
setTimeout(() => Alpine.start());
