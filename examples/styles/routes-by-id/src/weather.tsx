export function Weather() {
  return <p>Fair</p>;
}
