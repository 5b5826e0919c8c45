'use client';

export default () => <canvas />;
