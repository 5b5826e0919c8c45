export const HomeIcon = () => <p>icons</p>;
