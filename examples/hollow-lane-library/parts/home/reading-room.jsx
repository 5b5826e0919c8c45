"use client";
import { drawShelves } from '../search/draw-shelves.js';

export const ReadingRoom = () => <canvas ref={(canvas) => canvas && drawShelves(canvas.getContext('2d'))} />;
