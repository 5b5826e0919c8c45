export async function Reviews() { return <ul />; }
