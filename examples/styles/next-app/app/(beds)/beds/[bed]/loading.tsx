export default () => <p>…</p>;
