import './deck.css';
import { useAfter, useCell } from '@saltmarsh/view';
import { drawDeck } from './draw-deck';
import { SeatLegend } from './seat-legend';
import { SEATS } from './seats';

export default function DeckPlan({ ship }: { ship: string }) {
  const [seat, setSeat] = useCell<number | null>(null);
  useAfter(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('.deck canvas');
    if (canvas) drawDeck(canvas, SEATS, seat);
  });
  return (
    <div class="deck">
      <h2>{ship}, upper deck</h2>
      <canvas width="640" height="220" onClick={(event: MouseEvent) => setSeat(Math.floor(event.offsetX / 20))} />
      <SeatLegend />
    </div>
  );
}
