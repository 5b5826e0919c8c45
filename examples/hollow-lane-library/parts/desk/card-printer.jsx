"use client";
import { drawShelves } from '../search/draw-shelves.js';

export const CardPrinter = ({ onDone }) => <dialog open><canvas ref={(c) => c && drawShelves(c.getContext('2d'))} /><button type="button" onClick={onDone}>Done</button></dialog>;
