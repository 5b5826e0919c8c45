import { useState } from 'preact/hooks';
export default function Logo() { const [n] = useState(0); return <b>Logo {n}</b>; }
