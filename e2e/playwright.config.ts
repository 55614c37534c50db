import { defineConfig } from '@playwright/test';
import { onServer } from './onServer';

export default defineConfig({
  ...onServer({ port: Number(process.env['E2E_PORT'] ?? 4655), name: 'e2e' }),
  testDir: './tests',
  // A machine may be three times as slow as another.
  timeout: 180_000,
  expect: { timeout: 45_000 },
});
