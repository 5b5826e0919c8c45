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
export function openMap(host: HTMLElement, places: Place[]): () => void {
  const sum = camera.run(1) + glyphs.run(2) + layers.run(3) + shaders.run(4) + symbols.run(5) + tiles.run(6);
  host.dataset.places = String(places.length + sum);
  return () => host.replaceChildren();
}
export function distance(a: Place, b: Place): number {
  return projection.run(Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]));
}
