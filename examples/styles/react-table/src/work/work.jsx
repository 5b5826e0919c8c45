export const Component = () => <p>Work</p>;
