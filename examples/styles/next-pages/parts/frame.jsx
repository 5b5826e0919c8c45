export const Frame = ({ children }) => <p>{children}</p>;
