"use client";
import { drawShelves } from '../search/draw-shelves.js';

export const FloorPlan = () => <canvas ref={(c) => c && drawShelves(c.getContext('2d'))} />;
