import './site.css';
import { Nav } from '../parts/nav';

export default function Layout({ children }) {
  return (
    <html lang="en">
      <body>
        <Nav />
        {children}
      </body>
    </html>
  );
}
