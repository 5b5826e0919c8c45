import { createFileRoute } from '@loft/router';
import { Route as rootRoute } from './routes/__root';
import { Route as BirdsIdImport } from './routes/birds.$id';
import { Route as BirdsImport } from './routes/birds';
import { Route as IndexImport } from './routes/index';

const RacesLazyImport = createFileRoute('/races')();
const RacesLazy = RacesLazyImport.update({ id: '/races', path: '/races', getParentRoute: () => rootRoute }).lazy(() =>
  import('./routes/races.lazy').then((d) => d.Route),
);
const Index = IndexImport.update({ id: '/', path: '/', getParentRoute: () => rootRoute });
const Birds = BirdsImport.update({ id: '/birds', path: '/birds', getParentRoute: () => rootRoute });
const BirdsId = BirdsIdImport.update({ id: '/$id', path: '/$id', getParentRoute: () => Birds });

export const routeTree = rootRoute.addChildren([Index, Birds.addChildren([BirdsId]), RacesLazy]);
