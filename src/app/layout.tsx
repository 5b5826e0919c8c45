import '@fontsource/ibm-plex-sans/latin-400.css';
import '@fontsource/ibm-plex-sans/latin-500.css';
import '@fontsource/ibm-plex-sans/latin-600.css';
import '@fontsource/ibm-plex-mono/latin-400.css';
import './globals.css';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Fonts } from '../ui/frame/fonts.tsx';
import { FONT_SCRIPT } from '../ui/frame/own-fonts.ts';
import { THEME_SCRIPT } from '../ui/frame/theme.ts';
import { Notices } from '../ui/parts/notices.tsx';

const BEFORE_PAINT = THEME_SCRIPT + FONT_SCRIPT;

export const metadata: Metadata = {
  title: 'Yokeline',
  description: 'Plan split points, predict the startup waterfall, choose hints.',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Inline scripts run only with the nonce of the answer.
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: sets theme and fonts before the first paint; constants of ours */}
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: BEFORE_PAINT }} />
      </head>
      <body>
        {children}
        <Notices />
        <Fonts />
      </body>
    </html>
  );
}
