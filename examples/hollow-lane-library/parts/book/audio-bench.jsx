"use client";
export const AudioBench = ({ book }) => <audio controls src={`/spoken/${book.id}.ogg`} />;
