'use client';

export default ({ children }) => <div>{children}</div>;
