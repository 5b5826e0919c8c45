'use client';

export const Wheel = () => <canvas />;
