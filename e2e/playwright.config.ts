import { defineConfig } from '@playwright/test';
import { onServer } from './onServer';

export default defineConfig({
  ...onServer({ port: Number(process.env['E2E_PORT'] ?? 4655), name: 'e2e' }),
  testDir: './tests',
  timeout: 90_000,
  expect: { timeout: 20_000 },
});
