import '../site.css';
import { Frame } from '../parts/frame';

export default function App({ Component, pageProps }) {
  return (
    <Frame>
      <Component {...pageProps} />
    </Frame>
  );
}
