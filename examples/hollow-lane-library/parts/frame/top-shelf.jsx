import { Wordmark } from './wordmark.jsx';

export function TopShelf() {
  return (
    <header class="shelf">
      <Wordmark />
      <nav>
        <a href="/search">Find a book</a>
        <a href="/loans">My loans</a>
        <a href="/visit">Visit us</a>
      </nav>
    </header>
  );
}
