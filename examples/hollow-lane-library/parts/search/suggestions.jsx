import { closeTo } from './close-to.js';

export default function Suggestions({ for: text }) {
  return <ul>{closeTo(text).map((t) => <li key={t}>{t}</li>)}</ul>;
}
