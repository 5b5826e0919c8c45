import { useState } from 'preact/hooks';
export default function Tide() { const [n] = useState(0); return <b>Tide {n}</b>; }
