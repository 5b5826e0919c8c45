import { closeTo } from './close-to.js';

export const Results = () => <ol>{closeTo('').map((t) => <li key={t} class="spine">{t}</li>)}</ol>;
