import './sea-nav.js';
import './sea-log.js';
const more = document.querySelector('#more');
more.addEventListener('click', async () => { await import('./sea-chart.js'); document.body.append(document.createElement('sea-chart')); });
