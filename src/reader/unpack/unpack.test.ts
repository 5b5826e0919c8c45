import fs from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { type Zippable, zipSync } from 'fflate';
import tar from 'tar-stream';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { LIMITS } from './limits.ts';
import { unpack } from './unpack.ts';

afterAll(removeFolders);

const bytes = (text: string) => new TextEncoder().encode(text);

function saved(name: string, content: Uint8Array): { file: string; into: string } {
  const folder = folderOf({});
  const file = path.join(folder, name);
  fs.writeFileSync(file, content);
  return { file, into: path.join(folder, 'out') };
}

function zip(files: Zippable) {
  return saved('app.zip', zipSync(files));
}

async function tarball(entries: (Partial<tar.Header> & { name: string; text?: string })[]) {
  const pack = tar.pack();
  for (const { text = '', ...header } of entries) pack.entry(header, text);
  pack.finalize();
  const pieces: Uint8Array[] = [];
  for await (const piece of pack) pieces.push(piece as Uint8Array);
  return saved('app.tar.gz', gzipSync(Buffer.concat(pieces)));
}

describe('an archive', () => {
  it('is unpacked from the one folder that holds everything, without what no app ships', async () => {
    const { file, into } = zip({
      'shop/index.html': bytes('<p>'),
      'shop/src/a.ts': bytes('a'),
      'shop/.git/HEAD': bytes('x'),
    });
    const got = await unpack(file, 'app.zip', into);
    expect(got).toEqual({ folder: path.join(into, 'shop'), files: 2, links: [] });
    expect(fs.readFileSync(path.join(got.folder, 'src/a.ts'), 'utf8')).toBe('a');
    expect(fs.existsSync(path.join(got.folder, '.git'))).toBe(false);
  });

  it('may be a compressed tar, whose links are left out and told', async () => {
    const { file, into } = await tarball([
      { name: 'index.html', text: '<p>' },
      { name: 'to-passwords', type: 'symlink', linkname: '/etc/passwd' },
      { name: 'twin', type: 'link', linkname: 'index.html' },
      { name: 'deep/a.js', text: 'a' },
    ]);
    expect(await unpack(file, 'app.tar.gz', into)).toEqual({ folder: into, files: 2, links: ['to-passwords', 'twin'] });
    expect(fs.readdirSync(into).sort()).toEqual(['deep', 'index.html']);
  });

  it('in zip form leaves out links as well', async () => {
    const { file, into } = zip({ 'a.js': bytes('a'), link: [bytes('/etc/passwd'), { os: 3, attrs: 0o120777 << 16 }] });
    expect(await unpack(file, 'app.zip', into)).toMatchObject({ files: 1, links: ['link'] });
  });

  it.each(['../out.js', 'a/../../out.js', '/etc/out.js'])('with the name %s is refused', async (name) => {
    const asZip = zip({ [name]: bytes('x') });
    await expect(unpack(asZip.file, 'app.zip', asZip.into)).rejects.toThrow(/lead|whole path/);
    const asTar = await tarball([{ name, text: 'x' }]);
    await expect(unpack(asTar.file, 'app.tar.gz', asTar.into)).rejects.toThrow(/leads out|whole path/);
    expect(fs.existsSync(path.join(path.dirname(asTar.into), 'out.js'))).toBe(false);
  });

  it('that grows far beyond its size, or holds too much, is refused with the entry', async () => {
    const bomb = zip({ 'zeros.js': new Uint8Array(30_000_000) });
    await expect(unpack(bomb.file, 'app.zip', bomb.into)).rejects.toMatchObject({ at: 'app.zip: zeros.js' });
    const tight = { ...LIMITS, files: 2, fileBytes: 10, totalBytes: 15 };
    const many = zip({ a: bytes('1'), b: bytes('2'), c: bytes('3') });
    await expect(unpack(many.file, 'app.zip', many.into, tight)).rejects.toThrow('more than 2 files');
    const large = zip({ a: bytes('12345678901') });
    await expect(unpack(large.file, 'app.zip', large.into, tight)).rejects.toThrow('One file is larger');
    const sum = zip({ a: bytes('123456789'), b: bytes('123456789') });
    await expect(unpack(sum.file, 'app.zip', sum.into, tight)).rejects.toThrow('Unpacked it is larger');
  });

  it('that is damaged or no archive is refused in words', async () => {
    const whole = zipSync({ 'a.js': bytes('a'.repeat(500)) });
    const cut = saved('cut.zip', whole.slice(0, whole.length - 30));
    await expect(unpack(cut.file, 'cut.zip', cut.into)).rejects.toThrow('Archive can’t be read');
    const torn = saved('torn.tar.gz', gzipSync(Buffer.alloc(4096, 7)).subarray(0, 30));
    await expect(unpack(torn.file, 'torn.tar.gz', torn.into)).rejects.toThrow('Archive can’t be read');
    const text = saved('a.zip', bytes('just text'));
    await expect(unpack(text.file, 'a.zip', text.into)).rejects.toThrow('Not an archive');
  });

  it.each<[string, (Partial<tar.Header> & { name: string; text?: string })[]]>([
    ['.', [{ name: '.', text: 'x', type: 'file' }]],
    [
      'a file where a folder is',
      [
        { name: 'a/b.js', text: 'x' },
        { name: 'a', text: 'x' },
      ],
    ],
    [
      'a name that is there twice',
      [
        { name: 'b.js', text: 'x' },
        { name: 'b.js', text: 'y' },
      ],
    ],
    ['a name of 300 letters', [{ name: `${'n'.repeat(300)}.js`, text: 'x' }]],
  ])('with %s is refused by the entry, without a path of this machine', async (_, entries) => {
    const { file, into } = await tarball(entries);
    const refused = await unpack(file, 'app.tar.gz', into).catch((error: Error) => error);
    expect(refused).toMatchObject({ title: expect.stringMatching(/^Archive/) });
    expect(String((refused as Error).message)).not.toContain(path.dirname(into));
  });

  it('counts what is left out of it like everything else', async () => {
    const { file, into } = await tarball([{ name: '.git/pack', text: 'x'.repeat(3000) }]);
    const limits = { ...LIMITS, fileBytes: 2000 };
    await expect(unpack(file, 'app.tar.gz', into, limits)).rejects.toMatchObject({ title: 'Archive refused' });
  });
});
