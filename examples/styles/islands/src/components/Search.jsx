import { useState } from 'preact/hooks';
export default function Search() { const [n] = useState(0); return <b>Search {n}</b>; }
