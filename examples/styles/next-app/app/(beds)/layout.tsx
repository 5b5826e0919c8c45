export default ({ children }) => <section>{children}</section>;
