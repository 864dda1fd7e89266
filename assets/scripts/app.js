import Alpine from '@alpinejs/csp';
import { entryLine } from './entry.js';
import { keepCurrent } from './live.js';
import { readings } from './picture.js';

Alpine.data('entryLine', entryLine);
Alpine.data('keepCurrent', keepCurrent);
Alpine.data('readings', readings);
Alpine.start();
