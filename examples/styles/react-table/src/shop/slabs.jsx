export const Slabs = () => <p>Slabs</p>;
