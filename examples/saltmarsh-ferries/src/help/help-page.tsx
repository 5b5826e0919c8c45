import './help.css';
import { later, useCell } from '@saltmarsh/view';
import { messages } from '../shared/messages';
import { TOPICS } from './topics';
import { matches } from './search';

const WriteToUs = later(() => import('./write-to-us'));

export default function HelpPage() {
  const [term, setTerm] = useCell('');
  return (
    <main class="help">
      <input type="search" aria-label={messages.search} onInput={(e: Event) => setTerm((e.target as HTMLInputElement).value)} />
      {TOPICS.filter((t) => matches(t, term)).map((t) => (
        <details><summary>{t.title}</summary><p>{t.text}</p></details>
      ))}
      <WriteToUs />
    </main>
  );
}
