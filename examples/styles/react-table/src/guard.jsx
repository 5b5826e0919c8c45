export const Guard = () => <p>guard</p>;
