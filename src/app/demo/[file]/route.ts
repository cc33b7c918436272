import { demoArchive, demoFiles } from '../../../demo/files';

const ARCHIVE = 'upkeep.zip';

/** The demo's files, made on the spot by the seeded generator; or the waves and their codebook in one archive. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ file: string }> },
): Promise<Response> {
  const { file } = await params;
  const headers = { 'Cache-Control': 'no-store', 'X-Content-Type-Options': 'nosniff' };
  if (file === ARCHIVE)
    return new Response(demoArchive(), {
      headers: {
        ...headers,
        'Content-Type': 'application/zip',
        'Content-Disposition': `attachment; filename="${ARCHIVE}"`,
      },
    });
  const found = demoFiles().find(({ name }) => name === file);
  if (!found) return new Response('There is no such demo file.\n', { status: 404 });
  return new Response(found.text, { headers: { ...headers, 'Content-Type': found.type } });
}
