import type { RequestRole } from '../../core/sim/types.ts';

interface RoleLook {
  name: string;
  words: string;
  fill: string;
  stroke: string;
}

/** Why something travels. Colour says it, and texture says it again, in grey and to those who see colours otherwise; `needed` alone is full. */
export const ROLES: Record<RequestRole, RoleLook> = {
  needed: {
    name: 'needed',
    words: 'the moment can’t happen without it',
    fill: 'var(--needed)',
    stroke: 'var(--needed)',
  },
  hinted: {
    name: 'hinted',
    words: 'needed, and asked for early by a hint',
    fill: 'url(#role-stripes)',
    stroke: 'var(--hinted)',
  },
  'on demand': {
    name: 'on demand',
    words: 'asked for by a later moment',
    fill: 'url(#role-bars)',
    stroke: 'var(--on-demand)',
  },
  'in case': { name: 'in case', words: 'fetched speculatively', fill: 'url(#role-dots)', stroke: 'var(--in-case)' },
  wasted: { name: 'wasted', words: 'fetched, never used', fill: 'url(#role-hatch)', stroke: 'var(--wasted)' },
  content: { name: 'content', words: 'document, images, data', fill: 'var(--content-fill)', stroke: 'var(--content)' },
};

/** What fills a bar that is too thin for an outline: content, otherwise nearly empty, is full there. */
export function thinFill(role: RequestRole): string {
  return role === 'content' ? 'var(--content)' : ROLES[role].fill;
}

/** The textures; once per page. */
export function RoleTextures() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true">
      <title>textures</title>
      <defs>
        <pattern id="role-dots" width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" fill="var(--sheet)" />
          <circle cx="1.600" cy="1.600" r="1.300" fill="var(--in-case)" />
        </pattern>
        <pattern id="role-stripes" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill="var(--hinted)" />
          <line x1="0" y1="0" x2="0" y2="7" stroke="var(--sheet)" strokeWidth="3" />
        </pattern>
        <pattern id="role-bars" width="4" height="4" patternUnits="userSpaceOnUse">
          <rect width="4" height="4" fill="var(--on-demand)" />
          <line x1="0.700" y1="0" x2="0.700" y2="4" stroke="var(--sheet)" strokeWidth="1.400" />
        </pattern>
        <pattern id="role-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--wasted)" strokeWidth="2" />
        </pattern>
        <pattern id="stand-in" width="4" height="4" patternUnits="userSpaceOnUse">
          <line x1="0" y1="2" x2="4" y2="2" stroke="var(--needed)" strokeWidth="1" opacity="0.7" />
        </pattern>
      </defs>
    </svg>
  );
}

/** A small sample of a role, for legends and details. */
export function RoleMark({ role }: { role: RequestRole }) {
  const look = ROLES[role];
  return (
    <svg width="14" height="10" className="inline-block shrink-0" aria-hidden="true">
      <title>{look.name}</title>
      <rect x="0.500" y="0.500" width="13" height="9" fill={look.fill} stroke={look.stroke} />
    </svg>
  );
}
