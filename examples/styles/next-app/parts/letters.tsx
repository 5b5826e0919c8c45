'use client';

export const Letters = () => <ol />;
