import './shelves.css';
import { TopShelf } from '../parts/frame/top-shelf.jsx';
import { BackMatter } from '../parts/frame/back-matter.jsx';
import { FolkMenu } from '../parts/frame/folk-menu.jsx';
import { useNarrow } from '../parts/frame/use-narrow.js';
import { useReader } from '../parts/reader/use-reader.js';
import { ReaderCard } from '../parts/reader/reader-card.jsx';
import { JoinRibbon } from '../parts/reader/join-ribbon.jsx';

export default function Layout({ children }) {
  const narrow = useNarrow();
  const user = useReader();
  return (
    <html lang="en">
      <body>
        <TopShelf />
        {narrow && <FolkMenu />}
        {user ? <ReaderCard reader={user} /> : <JoinRibbon />}
        {children}
        <BackMatter />
      </body>
    </html>
  );
}
