import { useCell } from '@saltmarsh/view';
import { read, write } from '../shared/storage';
import { messages } from '../shared/messages';

export function ConsentBar() {
  const [asked, setAsked] = useCell(read('consent') !== null);
  if (asked) return null;
  const answer = (value: string) => { write('consent', value); setAsked(true); };
  return (
    <div class="consent" role="region" aria-label={messages.consent}>
      <p>{messages.consent}</p>
      <button type="button" onClick={() => answer('all')}>{messages.agree}</button>
      <button type="button" onClick={() => answer('needed')}>{messages.needed}</button>
    </div>
  );
}
