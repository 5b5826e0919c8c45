export const Root = () => <p>root</p>;
