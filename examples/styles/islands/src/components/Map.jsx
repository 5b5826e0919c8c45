import { useState } from 'preact/hooks';
export default function Map() { const [n] = useState(0); return <b>Map {n}</b>; }
