export const Today = () => <p>Low water at noon.</p>;
