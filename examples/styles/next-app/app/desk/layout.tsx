export default ({ children, post }) => (
  <>
    {children}
    {post}
  </>
);
