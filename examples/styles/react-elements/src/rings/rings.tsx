export const Rings = () => <p>Rings read this year.</p>;
