export const Saws = () => <p>Saws</p>;
