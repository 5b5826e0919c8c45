import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="mx-auto mt-32 max-w-md">
      <h1 className="mb-2 text-lg font-semibold">There is no such page</h1>
      <p className="text-soft">
        The address names no station of Yokeline.{' '}
        <Link className="underline" href="/">
          Open the sample
        </Link>
      </p>
    </main>
  );
}
