export function NotFound() {
  return (
    <main class="empty">
      <h1>No such pier</h1>
      <p>The address doesn't lead to any of our pages. <a href="/">Back to the next sailings</a></p>
    </main>
  );
}
