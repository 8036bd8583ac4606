/** A mail server for tests: it keeps what it is handed. */
import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';

export interface Post {
  /** Where mail is handed over. */
  smtp: string;
  /** As they came, headers and all, the oldest first. */
  letters: string[];
  close(): Promise<void>;
}

export async function startPost(): Promise<Post> {
  const letters: string[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onData: (stream, _, done) => {
      let text = '';
      stream.on('data', (part) => (text += String(part)));
      stream.on('end', () => (letters.push(text), done()));
    },
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return {
    smtp: `smtp://127.0.0.1:${(server.server.address() as AddressInfo).port}`,
    letters,
    close: () => new Promise<void>((ended) => server.close(() => ended())),
  };
}
