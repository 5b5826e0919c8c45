import { useState } from 'preact/hooks';
export default function Chart() { const [n] = useState(0); return <b>Chart {n}</b>; }
