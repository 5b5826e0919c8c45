export const Bells = ({ children }) => <p>{children}</p>;
