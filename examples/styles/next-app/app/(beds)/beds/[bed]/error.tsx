'use client';

export default ({ reset }) => <button onClick={reset}>Try again</button>;
