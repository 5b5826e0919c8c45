"use client";
export function FolkMenu() {
  return (
    <details>
      <summary>Menu</summary>
      <a href="/search">Find a book</a>
      <a href="/loans">My loans</a>
      <a href="/visit">Visit us</a>
    </details>
  );
}
