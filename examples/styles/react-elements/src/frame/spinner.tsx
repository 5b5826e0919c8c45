export const Spinner = () => <p>…</p>;
