export const Week = () => <table />;
