"use client";
import { useState } from '#kit';
import { ReviewForm } from './review-form.jsx';

export function Reviews({ of }) {
  const [writing, setWriting] = useState(false);
  const write = () => setWriting(true);
  if (!writing) return <button type="button" onClick={write}>Write about {of.title}</button>;
  return <ReviewForm book={of} />;
}
