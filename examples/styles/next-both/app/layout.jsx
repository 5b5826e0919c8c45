export default ({ children }) => <main>{children}</main>;
