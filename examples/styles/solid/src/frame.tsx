export function Frame(props: { children: unknown }) {
  return (
    <>
      <header>Kiln</header>
      <main>{props.children}</main>
    </>
  );
}
