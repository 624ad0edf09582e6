import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';

const ROOT = resolve(import.meta.dirname, '../../../resources/js');
const files = readdirSync(ROOT, { recursive: true })
  .map(String)
  .filter((f) => /\.(ts|vue)$/.test(f) && !f.endsWith('.d.ts'))
  .map((f) => join(ROOT, f));

/** What a file imports of ours when it is read itself: types are gone by then, and what is asked for later comes later. */
function imports(file: string): string[] {
  const code = readFileSync(file, 'utf8');
  return [...code.matchAll(/^import (?!type )[^;]*?from '([^']+)'|^import '([^']+)'/gm)].flatMap((m) => {
    const name = (m[1] ?? m[2])!;
    if (!name.startsWith('@/') && !name.startsWith('.')) return [];
    const at = name.startsWith('@/') ? join(ROOT, name.slice(2)) : resolve(dirname(file), name);
    return files.filter((f) => [at, `${at}.ts`, `${at}/index.ts`].includes(f));
  });
}

describe('the files of the front end', () => {
  it('know each other in one direction only', () => {
    const of = new Map(files.map((f) => [f, imports(f)]));
    const cycles: string[] = [];
    const done = new Set<string>();
    const walk = (file: string, path: string[]): void => {
      const at = path.indexOf(file);
      if (at >= 0) {
        cycles.push([...path.slice(at), file].map((f) => f.slice(ROOT.length + 1)).join(' → '));
        return;
      }
      if (done.has(file)) return;
      for (const next of of.get(file) ?? []) walk(next, [...path, file]);
      done.add(file);
    };
    for (const file of files) walk(file, []);
    expect(cycles).toEqual([]);
    expect([...of.values()].flat().length).toBeGreaterThan(500);
  });

  it('are all used by another, but for those that begin and what stands in for a package', () => {
    const used = new Set(
      files.flatMap((f) =>
        [...readFileSync(f, 'utf8').matchAll(/from '([^']+)'|import\('([^']+)'\)|import '([^']+)'/g)].map(
          (m) => {
            const name = (m[1] ?? m[2] ?? m[3])!;
            const at = name.startsWith('@/') ? join(ROOT, name.slice(2)) : resolve(dirname(f), name);
            return files.find((x) => [at, `${at}.ts`, `${at}/index.ts`].includes(x));
          },
        ),
      ),
    );
    expect(files.filter((f) => !used.has(f)).map((f) => f.slice(ROOT.length + 1))).toEqual([
      'main.ts',
      'kit/entities.ts',
      'observer/observe.ts',
    ]);
  });
});
