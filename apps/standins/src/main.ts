/** The outside services that ship with Pandecta: small, simulated, spoken to over the protocols the real ones use. */
import { createServer } from 'node:http';
import { resolveDoi } from './registry.ts';

const port = Number(process.env.PANDECTA_STANDINS_PORT ?? 4790);

const server = createServer((request, response) => {
  const path = decodeURIComponent(new URL(request.url ?? '/', 'http://standin').pathname);
  if (request.method === 'GET' && path.startsWith('/doi/')) {
    const { status, type, body } = resolveDoi(path.slice('/doi/'.length), request.headers.accept ?? '');
    response.writeHead(status, { 'content-type': type }).end(body);
  } else response.writeHead(404, { 'content-type': 'text/plain' }).end('Nothing here\n');
});

server.listen(port, '127.0.0.1', () => process.send?.('ready'));
for (const end of ['SIGINT', 'SIGTERM', 'disconnect'] as const)
  process.on(end, () => server.close(() => process.exit(0)) && server.closeAllConnections());
