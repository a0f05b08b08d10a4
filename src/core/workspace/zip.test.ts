/** Workspaces as zips: out and in again to the byte, and what others make of zips. */
import { strToU8, zipSync } from 'fflate';
import { expect, test } from 'vitest';
import { readFolder } from '../../workers/files';
import { firstWorkspace } from './first';
import { BrokenWorkspace, readWorkspace } from './workspace';
import { writeWorkspace } from './write';
import { baseIn, packed, textsIn } from './zip';

const digest = (text: string) => `${text.length}`;
const unpacked = (bytes: Uint8Array) => readWorkspace(textsIn(bytes));

const demo = readWorkspace(readFolder('demo'));
const files = (workspace = firstWorkspace('Ferry')) =>
  Object.fromEntries([...writeWorkspace(workspace)].map(([path, text]) => [path, strToU8(text)]));
const says = (bytes: Uint8Array): string => {
  try {
    unpacked(bytes);
    return 'taken';
  } catch (caught) {
    if (!(caught instanceof BrokenWorkspace)) throw caught;
    return caught.message;
  }
};

test('the demo goes out and in again to the byte, and the same workspace gives the same zip', () => {
  const zip = packed(demo, 'demo', digest);
  expect(unpacked(zip)).toEqual(demo);
  expect(Buffer.compare(packed(unpacked(zip), 'demo', digest), zip)).toBe(0);
});

test('a zip says what it was made from, unit by unit', () => {
  const base = new Map(baseIn(textsIn(packed(demo, 'demo', digest))));
  const texts = writeWorkspace(demo);
  expect(base.get('workspace.json')).toBe(`${texts.get('workspace.json')!.length}`);
  expect(base.get('tables/berths.json')).toBe(
    `${texts.get('tables/berths.json')!.length + texts.get('tables/berths.csv')!.length}`,
  );
  expect(base.has('tables/berths.csv')).toBe(false);
  expect(baseIn(new Map([['.tavro-base.json', '{"a": 1}']]))).toBe(null);
  expect(baseIn(new Map([['.tavro-base.json', 'nope']]))).toBe(null);
});

test('a zip is taken with its files at the top or in one folder, and what else is in it is left', () => {
  expect(says(zipSync(files()))).toBe('taken');
  const below = Object.fromEntries(
    Object.entries(files()).map(([path, bytes]) => [`my ferry/${path}`, bytes]),
  );
  expect(
    says(zipSync({ ...below, 'my ferry/.git/config': strToU8('x'), 'other.txt': strToU8('x') })),
  ).toBe('taken');
});

test('what cannot be taken is said in words, by file and line', () => {
  expect(says(strToU8('no zip at all'))).toMatch(/no zip, or is damaged/);
  expect(says(zipSync(files()).slice(0, 300))).toMatch(/no zip, or is damaged/);
  expect(says(zipSync({ 'a.txt': strToU8('x') }))).toBe(
    'zip:1: holds no workspace.json, at its top or in one folder',
  );
  expect(
    says(zipSync({ ...files(), 'forms/first_form/form.json': strToU8('{\n  "name": 5\n}\n') })),
  ).toMatch(/^forms\/first_form\/form.json:2: name: /);
  expect(says(zipSync({ ...files(), 'workspace.json': new Uint8Array([0x7b, 0xff, 0xfe]) }))).toBe(
    'workspace.json:1: is not a text in UTF-8',
  );
  // Paths that lead out of the folder are none of its files.
  expect(says(zipSync({ ...files(), '../../etc/passwd': strToU8('x') }))).toBe('taken');
});

test('a zip that unpacks to more than a workspace may hold is refused before it does', () => {
  const large = new Uint8Array(70 * 1024 * 1024);
  expect(
    says(
      zipSync({
        ...files(),
        'tables/a.csv': [large, { level: 1 }],
        'tables/b.csv': [large, { level: 1 }],
      }),
    ),
  ).toBe('zip:1: unpacks to more than 128 MB');
});

test('a zip that lies about its sizes is held to what it says', () => {
  const zip = zipSync(files());
  const { length } = files()['forms/first_form/form.json']!;
  const view = new DataView(zip.buffer, zip.byteOffset, zip.byteLength);
  // The uncompressed size in each central directory entry (APPNOTE 4.3.12, offset 24).
  for (let at = 0; at < zip.length - 30; at++)
    if (view.getUint32(at, true) === 0x02014b50 && view.getUint32(at + 24, true) === length)
      view.setUint32(at + 24, 10, true);
  expect(says(zip)).toMatch(/^forms\/first_form\/form.json:/);
});
