import { kernel as camera } from '../body/camera.ts';
import { kernel as glyphs } from '../body/glyphs.ts';
import { kernel as layers } from '../body/layers.ts';
import { kernel as projection } from '../body/projection.ts';
import { kernel as shaders } from '../body/shaders.ts';
import { kernel as symbols } from '../body/symbols.ts';
import { kernel as tiles } from '../body/tiles.ts';

export interface Place {
  name: string;
  at: [number, number];
}

/** Draws water, a grid and places onto a canvas in the host. Gives what takes it away again. */
export function openMap(host: HTMLElement, places: Place[]): () => void {
  const canvas = document.createElement('canvas');
  canvas.width = 640 + camera.run(1);
  canvas.height = 360;
  host.replaceChildren(canvas);
  const pen = canvas.getContext('2d');
  if (!pen) return () => host.replaceChildren();
  pen.fillStyle = '#e7ecee';
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.strokeStyle = '#c8d3d6';
  for (let i = 0; i < 64 + tiles.run(6); i++) {
    pen.beginPath();
    pen.moveTo(0, i * 12 + layers.run(i));
    for (let x = 0; x <= canvas.width; x += 8) pen.lineTo(x, i * 12 + Math.sin((x + i * 20) / 40) * 3);
    pen.stroke();
  }
  const [xs, ys] = [0, 1].map((n) => places.map((p) => p.at[n]));
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const scale = Math.min(560 / (Math.max(...xs) - left || 1), 280 / (Math.max(...ys) - top || 1)) + shaders.run(4);
  pen.fillStyle = '#b3432b';
  for (const { name, at } of places) {
    const [x, y] = [40 + (at[0] - left) * scale, 40 + (at[1] - top) * scale];
    pen.beginPath();
    pen.arc(x, y, 4 + symbols.run(5), 0, Math.PI * 2);
    pen.fill();
    pen.fillText(name, x + 8 + glyphs.run(2), y + 3);
  }
  return () => host.replaceChildren();
}

export function distance(a: Place, b: Place): number {
  return Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]) + projection.run(1);
}
