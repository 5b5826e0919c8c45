import type { PartFont } from '../load/types.ts';
import { browserMs, byRequest, type PageContext } from './page-context.ts';
import type { Fetching, Parsing, TextFonts, TextShown, Then } from './pieces.ts';
import type { Cause } from './types.ts';

/** How long text stays invisible, and until when its font may still take the place of another one. In ms (CSS Fonts; as browsers have it). */
const BLOCKED_MS = { auto: 3000, block: 3000, swap: 0, fallback: 100, optional: 0 } as const;
const SWAPPED_MS = { auto: Infinity, block: Infinity, swap: Infinity, fallback: 3100, optional: 0 } as const;
/** So much longer the first frame waits at most for a font that was fetched ahead (fact 42). */
const HOLD_MS = 100;

/** Fonts: found when text is laid out, asked for, waited for. Their files are named by their index in the program. */
interface Needs extends PageContext {
  fetcher: Pick<Fetching, 'request' | 'requestOf' | 'requests' | 'onArrival' | 'hasArrived'>;
  parser: Pick<Parsing, 'holdLoad' | 'whenStyled'>;
}

export class Fonts implements TextFonts {
  private readonly asked = new Set<number>();

  constructor(private readonly page: Needs) {}

  /** A text is there whose font has to be fetched: it is found once the styles are, and doesn't wait for a frame (fact 37). */
  laidOut({ resource, declaredBy }: PartFont): void {
    const { page } = this;
    if (this.asked.has(resource)) return;
    this.asked.add(resource);
    page.fetcher.onArrival(declaredBy, (style) => {
      page.parser.whenStyled(() => {
        page.clock.at(page.clock.now + browserMs(page, page.costs.findFont), () => {
          const cause = { ...style, kind: 'parser', what: 'text in its font' } as const;
          page.fetcher.request(resource, { cause, from: 'font', priority: 0, anonymous: true });
          page.parser.holdLoad([resource]);
        });
      });
    });
  }

  /** Shows a text that could be painted now: when all of it can be seen, in whatever font; and when all of it is in its own. */
  show(fonts: readonly PartFont[], { shown, inFont }: TextShown, by: Cause): void {
    let hidden = fonts.length;
    let foreign = 0;
    const seen: Then = (cause) => {
      if (--hidden === 0) shown(cause);
    };
    const inOther = (cause: Cause) => {
      foreign++;
      seen(cause);
    };
    const own: Then = (cause) => {
      if (--foreign === 0 && hidden === 0) inFont(cause);
    };
    if (fonts.length === 0) shown(by);
    for (const font of fonts) this.showIn(font, { shown: seen, inOther, inFont: own }, by);
  }

  /** `inOther`: it shows, but in another font. */
  private showIn(
    { resource, display }: PartFont,
    { shown, inOther, inFont }: TextShown & { inOther: Then },
    by: Cause,
  ): void {
    const { page } = this;
    const since = page.clock.now;
    const drawn = (ms: number, then: Then) => (cause: Cause) =>
      page.clock.at(page.clock.now + page.costs.frameWait + browserMs(page, ms), () => then(cause));
    if (page.fetcher.hasArrived(resource)) {
      shown(by);
      return;
    }
    let visible = BLOCKED_MS[display] === 0;
    if (visible) inOther(by);
    else
      page.clock.at(since + BLOCKED_MS[display], () => {
        if (visible) return;
        visible = true;
        inOther(by);
      });
    page.fetcher.onArrival(resource, (cause) => {
      if (!visible) {
        visible = true;
        drawn(page.costs.fontPaint, shown)(cause);
      } else if (page.clock.now - since <= SWAPPED_MS[display]) drawn(page.costs.fontSwap, inFont)(cause);
    });
  }

  /** Calls back when the first frame needs to wait no longer for fonts that are on their way because a hint asked for them. */
  whenPaintMay(then: (cause: Cause | null) => void): void {
    const { page } = this;
    const { requests } = page.fetcher;
    const ahead = requests.filter((r) => r.type === 'font' && r.hint && !page.fetcher.hasArrived(r.resource));
    let open = ahead.length;
    if (open === 0) {
      then(null);
      return;
    }
    let over = false;
    const end = (cause: Cause) => {
      if (over) return;
      over = true;
      then(cause);
    };
    const [first] = ahead;
    const at = requests.indexOf(first);
    page.clock.at(page.clock.now + HOLD_MS, () => end(byRequest(page, 'parser', `waited for ${first.name}`, at)));
    for (const { resource } of ahead)
      page.fetcher.onArrival(resource, (cause) => {
        if (--open === 0) end(cause);
      });
  }
}
