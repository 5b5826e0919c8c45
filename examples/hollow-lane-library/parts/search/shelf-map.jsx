"use client";
import { drawShelves } from './draw-shelves.js';

export function ShelfMap() {
  return <canvas ref={(canvas) => canvas && drawShelves(canvas.getContext('2d'))} />;
}
