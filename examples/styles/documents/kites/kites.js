import '../shared/wind-sock.js';

const list = document.querySelector('kite-list');
new IntersectionObserver(() => import('./list.js')).observe(list);
