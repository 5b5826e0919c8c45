import type { PlannedApp } from '../chunks/planned.ts';
import { linkKey } from '../plan/effective.ts';
import type { ClassicScript, ScriptPlacement } from '../snapshot/document-types.ts';
import { escapedAttribute, htmlComment } from '../text/html-text.ts';

/**
 * Tags that documents carry already and that a plan wants otherwise, as HTML: scripts at another place or in another mode (HTML, the script element),
 * and links that go. Empty where the plan changes none.
 */
export function placedTags({ snapshot, plan }: PlannedApp): string {
  const scripts = snapshot.scripts.flatMap((script) => {
    const placement = plan.placements.get(script.id);
    if (placement === undefined || placement === script.placement) return [];
    return [
      `<!-- ${WHERE[placement]}, instead of the tag of ${htmlComment(script.address)}${placeOf(script)} -->`,
      tagAt(script.address, placement),
    ];
  });
  const links = snapshot.links
    .filter((link) => plan.dropped.has(linkKey(link)))
    .map((link) => `<!-- leave out the ${link.rel} of ${htmlComment(link.address)}${placeOf(link)} -->`);
  const lines = [...scripts, ...links];
  return lines.length === 0 ? '' : ['<!-- tags that are there already, in every document -->', ...lines].join('\n');
}

/** Where the changed tag stands. */
const WHERE: Record<ScriptPlacement, string> = {
  blocking: 'in the head',
  async: 'in the head',
  defer: 'in the head',
  module: 'in the head',
  'end of body': 'at the end of the body',
  'after load': 'in the head',
  inlined: 'in the head, with the text of the file inside',
};

function tagAt(address: string, placement: ScriptPlacement): string {
  const src = `src="${escapedAttribute(address)}"`;
  switch (placement) {
    case 'blocking':
    case 'end of body':
      return `<script ${src}></script>`;
    case 'async':
    case 'defer':
      return `<script ${src} ${placement}></script>`;
    case 'module':
      return `<script type="module" ${src}></script>`;
    case 'after load': {
      // Inside a script element nothing may look like its end.
      const text = JSON.stringify(address).replace(/</g, '\\u003c');
      return `<script>addEventListener('load', () => document.head.append(Object.assign(document.createElement('script'), { src: ${text} })));</script>`;
    }
    case 'inlined':
      return `<script>/* ${htmlComment(address).replace(/\*\//g, '* /')} */</script>`;
  }
}

function placeOf({ evidence }: Pick<ClassicScript, 'evidence'>): string {
  return evidence ? ` (${htmlComment(evidence.path)}:${evidence.line})` : '';
}
