"use client";
import { loaded, useState } from '#kit';

const Suggestions = loaded(() => import('./suggestions.jsx'));

export function SearchBox() {
  const [text, setText] = useState('');
  return (
    <form action="/search">
      <input name="q" aria-label="Title, author or shelf mark" onInput={(event) => setText(event.target.value)} />
      {text !== '' && <Suggestions for={text} />}
    </form>
  );
}
