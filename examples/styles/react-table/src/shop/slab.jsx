export const Component = () => <p>A slab</p>;
