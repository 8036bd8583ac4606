/** A mailbox for all mail that is sent here: taken over SMTP, shown as a page, gone when the stand-ins end. */
import { simpleParser, type ParsedMail } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { escapeXml } from '@pandecta/core/formats';

/** The newest first. */
const letters: ParsedMail[] = [];
const MOST = 200;

export function takeMail(port: number): SMTPServer {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    disableReverseLookup: true,
    onData: (stream, _session, done) => {
      simpleParser(stream).then(
        (letter) => {
          letters.unshift(letter);
          letters.length = Math.min(letters.length, MOST);
          done();
        },
        (error: Error) => done(error),
      );
    },
  });
  server.listen(port, '127.0.0.1');
  return server;
}

const addressed = (to: ParsedMail['to']): string =>
  [to ?? []]
    .flat()
    .map((t) => t.text)
    .join(', ');

export const showMail = (): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Mailbox</title><style>body{font:16px/1.5 sans-serif;max-width:44rem;margin:2rem auto;padding:0 1rem}article{border-top:1px solid #999;padding:.5rem 0}pre{white-space:pre-wrap;font:inherit}</style></head><body><h1>Mailbox</h1>${
    letters
      .map(
        (l) =>
          `<article><h2>${escapeXml(l.subject ?? '')}</h2><p>To ${escapeXml(addressed(l.to))}, ${escapeXml(l.date?.toISOString() ?? '')}</p><pre>${escapeXml(l.text ?? '')}</pre></article>`,
      )
      .join('') || '<p>No mail yet.</p>'
  }</body></html>`;
