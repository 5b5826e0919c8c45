export default function Map() {
  return <canvas />;
}
