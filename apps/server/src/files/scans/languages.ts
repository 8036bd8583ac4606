/** The languages text is recognised in: installed on the server, chosen for the workspace, named in a source's record. */
import { eq } from 'drizzle-orm';
import type { RecognitionLanguages } from '@pandecta/contract';
import { installedLanguages } from '@pandecta/debian/tesseract';
import { setSettings, settingsOf } from '../../access/settings.ts';
import type { Db } from '../../database/connect.ts';
import { within } from '../../database/within.ts';
import { Refusal } from '../../errors.ts';
import { sources } from '../../records/tables.ts';

const FIRST = ['eng'];

const NAMES = new Intl.DisplayNames('en', { type: 'language' });
/** "de" of Tesseract's "deu", "zh" of "chi_sim"; as it comes where no shorter one is known (BCP 47). */
function tagOf(language: string): string {
  const [code = ''] = language.split('_');
  try {
    return Intl.getCanonicalLocales(code)[0] ?? code;
  } catch {
    return code;
  }
}
function nameOf(language: string): string {
  const [, ...kind] = language.split('_');
  return [NAMES.of(tagOf(language)) ?? language, kind.length && `(${kind.join(' ')})`].filter(Boolean).join(' ');
}

export async function recognitionLanguages(db: Db, workspaceId: string): Promise<RecognitionLanguages> {
  const installed = await installedLanguages();
  const { recognition = FIRST } = await settingsOf(db, workspaceId);
  const chosen = recognition.filter((l) => installed.includes(l));
  return {
    installed: installed.map((code) => ({ code, name: nameOf(code) })),
    // A language that was chosen may have been uninstalled since.
    chosen: chosen.length ? chosen : installed.slice(0, 1),
  };
}

/** @throws Refusal where one is not installed */
export async function setLanguages(db: Db, workspaceId: string, languages: string[]): Promise<RecognitionLanguages> {
  await refuseUninstalled(languages);
  await setSettings(db, workspaceId, { recognition: languages });
  return recognitionLanguages(db, workspaceId);
}

export async function refuseUninstalled(languages: string[]): Promise<void> {
  const installed = await installedLanguages();
  const missing = languages.filter((l) => !installed.includes(l));
  if (missing.length)
    throw new Refusal(
      'invalid',
      `${missing.join(', ')} is not installed here; the machine’s keeper installs it with: apt-get install ${missing.map((l) => `tesseract-ocr-${l.replaceAll('_', '-')}`).join(' ')}`,
    );
}

/** Those of the workspace, and before them that of the source's record, where it is installed. */
export async function languagesFor(db: Db, workspaceId: string, source?: string): Promise<string[]> {
  const { installed, chosen } = await recognitionLanguages(db, workspaceId);
  if (!source) return chosen;
  const found = await within(db, workspaceId).first(sources, { record: sources.record }, eq(sources.id, source));
  const tag = /^[a-z]{2,3}(?![a-z])/i.exec(found?.record.language ?? '')?.[0]?.toLowerCase();
  const own = tag && installed.find((l) => tagOf(l.code) === tagOf(tag))?.code;
  return own && !chosen.includes(own) ? [own, ...chosen] : chosen;
}
