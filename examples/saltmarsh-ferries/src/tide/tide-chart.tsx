import './tide.css';
import { plot } from '@saltmarsh/tidewright';
import { tideLevel } from '../shared/tide-level';
import { messages } from '../shared/messages';

const HOURS = Array.from({ length: 25 }, (_, h) => (Math.sin((h / 12.4) * Math.PI * 2) + 1) / 2);

export default function TideChart() {
  return (
    <figure class="tide">
      <figcaption>{messages.tide}</figcaption>
      <svg viewBox="0 0 240 80">{plot(HOURS.map(tideLevel), 80)}</svg>
    </figure>
  );
}
