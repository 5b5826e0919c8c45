export const Tours = () => <p>tours</p>;
