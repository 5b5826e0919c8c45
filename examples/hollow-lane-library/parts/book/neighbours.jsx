import { closeTo } from '../search/close-to.js';

export const Neighbours = () => <ul>{closeTo('o').map((t) => <li key={t}>{t}</li>)}</ul>;
