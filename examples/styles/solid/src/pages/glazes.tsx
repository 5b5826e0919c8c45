export default function Glazes() {
  return <p>Glazes</p>;
}
