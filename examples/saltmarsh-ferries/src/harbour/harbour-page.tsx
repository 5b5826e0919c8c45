import './harbour.css';
import { openMap } from '@saltmarsh/mapkeel';
import { useAfter } from '@saltmarsh/view';
import { BERTHS } from './berths';
import { BerthList } from './berth-list';

export default function HarbourPage() {
  useAfter(() => {
    const host = document.querySelector<HTMLElement>('.harbour-map');
    if (host) openMap(host, BERTHS);
  });
  return (
    <main class="harbour">
      <div class="harbour-map" />
      <BerthList />
    </main>
  );
}
