import { closeTo } from '../search/close-to.js';

export const NewArrivals = () => <section class="shelf">{closeTo('the').map((t) => <h3 key={t}>{t}</h3>)}</section>;
