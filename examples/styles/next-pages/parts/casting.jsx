export const Casting = ({ children }) => <p>{children}</p>;
