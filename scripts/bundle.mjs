// Bundles a program for Node.js from the sources of this project; what is installed stays outside.
import { build } from 'esbuild';
import { root } from './prepare.mjs';

/** @param options of esbuild: at least what is bundled, and where to */
export function bundle(options) {
  return build({
    absWorkingDir: root,
    bundle: true,
    platform: 'node',
    format: 'esm',
    loader: { '.cjs': 'copy' },
    target: 'node20.19',
    conditions: ['types'],
    logLevel: 'warning',
    plugins: [
      {
        name: 'outside',
        setup: ({ onResolve }) =>
          onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === 'entry-point' || path.startsWith('@pebble/') || path === 'tlds'
              ? undefined
              : { path, external: true },
          ),
      },
    ],
    ...options,
  });
}
