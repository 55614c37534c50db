// While the interface is developed it is served by itself; what it asks of the API goes to the server, with the key of its data folder.
import { readFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';

const port = process.env.PORT ?? '4620';
const data = process.env.PEBBLE_DATA ?? join(homedir(), '.pebble-thread');

export default {
  '/api': {
    target: `http://127.0.0.1:${port}`,
    changeOrigin: true,
    configure(proxy) {
      proxy.on('proxyReq', (asked) => {
        asked.removeHeader('origin');
        asked.removeHeader('cookie');
        asked.setHeader('sec-fetch-site', 'same-origin');
        asked.setHeader('authorization', `Bearer ${readFileSync(join(data, 'access-token'), 'utf8').trim()}`);
      });
    },
  },
};
