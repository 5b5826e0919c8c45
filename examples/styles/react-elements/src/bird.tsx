export function Component() {
  return <h1>Arctic tern</h1>;
}
