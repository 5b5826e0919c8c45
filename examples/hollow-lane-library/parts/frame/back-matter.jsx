export const BackMatter = () => <footer>Open every day but Wednesday. Mind the step.</footer>;
