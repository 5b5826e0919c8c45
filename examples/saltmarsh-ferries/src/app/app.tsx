import { follow } from '@saltmarsh/wayfinder';
import { useCell, useAfter } from '@saltmarsh/view';
import { routes } from './routes';
import { Outlet } from './outlet';

export function App() {
  const [address, setAddress] = useCell(location.pathname);
  useAfter(() => addEventListener('popstate', () => setAddress(location.pathname)));
  return <Outlet chain={follow(routes, address)} />;
}
