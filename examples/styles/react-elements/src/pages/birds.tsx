export function Birds() {
  return <ul />;
}
