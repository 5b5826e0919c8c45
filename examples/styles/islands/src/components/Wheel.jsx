import { useState } from 'preact/hooks';
export default function Wheel() { const [n] = useState(0); return <b>Wheel {n}</b>; }
