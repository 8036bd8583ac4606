/** Ports on loopback. */
import { connect, createServer } from 'node:net';
import { Stop } from './say.mjs';

export function isFree(port) {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen({ port, host: '127.0.0.1' }, () => server.close(() => resolve(true)));
  });
}

/** Whether something takes connections there. */
export function answers(port) {
  return new Promise((resolve) => {
    const socket = connect({ port, host: '127.0.0.1' }, () => (socket.destroy(), resolve(true)));
    socket.once('error', () => resolve(false));
  });
}

export async function freePort() {
  return new Promise((resolve) => {
    const server = createServer().listen({ port: 0, host: '127.0.0.1' }, () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}

/** The port a person asked for must be free; the usual one may give way to a free one near it. */
export async function choosePort(asked, usual) {
  if (asked !== undefined) {
    if (!(asked > 0 && asked < 65536))
      throw new Stop(
        `PANDECTA_PORT is “${process.env.PANDECTA_PORT}”, which is not a port; use a number from 1 to 65535.`,
      );
    if (!(await isFree(asked)))
      throw new Stop(`Port ${asked} is in use; stop what uses it, or choose another with PANDECTA_PORT=… npm start.`);
    return asked;
  }
  for (let port = usual; port < usual + 20; port += 1) if (await isFree(port)) return port;
  throw new Stop(`Ports ${usual} to ${usual + 19} are all in use; choose another with PANDECTA_PORT=… npm start.`);
}
