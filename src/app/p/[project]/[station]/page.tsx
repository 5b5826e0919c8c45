import { notFound, redirect } from 'next/navigation';
import { FORMER_STATIONS, isStation } from '../../../../core/vocabulary/stations.ts';
import { store } from '../../../../server/context.ts';
import { firstPage } from '../../../../server/first-look.ts';
import { Workbench } from '../../../../ui/frame/workbench.tsx';

interface Asked {
  params: Promise<{ project: string; station: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function Page({ params, searchParams }: Asked) {
  const { project, station } = await params;
  const query = new URLSearchParams(
    Object.entries(await searchParams).flatMap(([key, value]) =>
      [value ?? []].flat().map((text): [string, string] => [key, text]),
    ),
  ).toString();
  const present = FORMER_STATIONS.get(station);
  if (present) redirect(`/p/${encodeURIComponent(project)}/${present}?${query}`);
  if (!isStation(station)) notFound();
  return <Workbench key={project} projectId={project} station={station} first={firstPage(store, project, query)} />;
}
