import './quiet/index.js';
import { lamp } from './quiet/lamp.js';
import Ring from './ring.js?worker';
import rules from './rules.txt?raw';
import bell from './bell.js?url';

new window.Worker(new URL('points.js', import.meta.url), { type: 'module' });
new Worker(new URL('./levers.js', import.meta.url));

export const box = [lamp, Ring, rules, bell];
