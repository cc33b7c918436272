import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import '@fontsource-variable/source-sans-3';
import '@fontsource-variable/source-code-pro';
import 'bootstrap/dist/css/bootstrap.min.css';
import '../ui/look/tokens.css';
import '../ui/look/frame.css';
import '../ui/look/parts.css';
import '../ui/look/stations.css';
import '../ui/look/sets.css';
import '../ui/look/rows.css';
import '../ui/look/cross.css';

export const metadata: Metadata = {
  title: 'Dig First',
  description: 'Know what is in an extract before you analyse it.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1, colorScheme: 'light dark' };

export default async function Layout({ children }: { children: ReactNode }) {
  // Read for each request, so that the page is made with its nonce.
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html lang="en" data-nonce={nonce} suppressHydrationWarning>
      <body>{children}</body>
    </html>
  );
}
