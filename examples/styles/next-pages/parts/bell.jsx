export const Bell = ({ children }) => <p>{children}</p>;
