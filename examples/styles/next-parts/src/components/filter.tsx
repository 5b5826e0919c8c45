export function Filter() { return <form />; }
