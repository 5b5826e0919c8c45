export const Component = () => <p>home</p>;
