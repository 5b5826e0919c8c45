import type { Seat } from './seats';
import { hull } from './hull';

export function drawDeck(canvas: HTMLCanvasElement, seats: Seat[], chosen: number | null): void {
  const pen = canvas.getContext('2d');
  if (!pen) return;
  pen.clearRect(0, 0, canvas.width, canvas.height);
  hull(pen, canvas.width, canvas.height);
  for (const seat of seats) {
    pen.fillStyle = seat.number === chosen ? '#9c4a1a' : seat.taken ? '#aaa' : '#16404d';
    pen.fillRect(40 + seat.row * 20, 60 + seat.side * 30, 14, 14);
  }
}
