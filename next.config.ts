import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { NextConfig } from 'next';

/** Tells one build of the program from any other that may find something else in the same data. */
function build(): string {
  if (process.env.NODE_ENV !== 'production') return `${Date.now()}`;
  const hash = createHash('sha256');
  const src = join(process.cwd(), 'src');
  const files = readdirSync(src, { recursive: true, withFileTypes: true })
    .filter((file) => file.isFile() && /\.tsx?$/.test(file.name) && !/\.test\./.test(file.name))
    .map(({ parentPath, name }) => join(parentPath, name))
    .sort();
  for (const file of files) hash.update(file).update(readFileSync(file));
  return hash.digest('hex').slice(0, 16);
}

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  env: { DIG_BUILD: build() },
  typescript: { ignoreBuildErrors: false },
};

export default config;
