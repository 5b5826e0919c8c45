"use client";
import { drawShelves } from '../search/draw-shelves.js';

export const PageFlip = ({ onClose }) => <dialog open><canvas ref={(c) => c && drawShelves(c.getContext('2d'))} /><button type="button" onClick={onClose}>Close</button></dialog>;
