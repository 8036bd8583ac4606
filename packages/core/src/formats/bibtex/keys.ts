/**
 * Words that BibLaTeX keeps as keys and prints in the language of the document: types of theses and reports, states of
 * publication, languages. Source: BibLaTeX manual, sections 4.9.2.11 to 4.9.2.14 and table 2, with the subtags of BCP 47.
 */
const TYPES: Record<string, string> = {
  bathesis: 'Bachelor’s thesis',
  mathesis: 'Master’s thesis',
  phdthesis: 'PhD thesis',
  candthesis: 'Candidate thesis',
  techreport: 'technical report',
  resreport: 'research report',
  software: 'computer software',
  datacd: 'data CD',
  audiocd: 'audio CD',
  patent: 'patent',
  patentde: 'German patent',
  patenteu: 'European patent',
  patentfr: 'French patent',
  patentuk: 'British patent',
  patentus: 'U.S. patent',
  patreq: 'patent request',
  patreqde: 'German patent request',
  patreqeu: 'European patent request',
  patreqfr: 'French patent request',
  patrequk: 'British patent request',
  patrequs: 'U.S. patent request',
};

const STATES: Record<string, string> = {
  inpreparation: 'in preparation',
  submitted: 'submitted',
  forthcoming: 'forthcoming',
  inpress: 'in press',
  prepublished: 'pre-published',
};

const LANGUAGES: Record<string, string> = {
  acadian: 'fr-CA',
  american: 'en-US',
  usenglish: 'en-US',
  australian: 'en-AU',
  austrian: 'de-AT',
  naustrian: 'de-AT',
  basque: 'eu',
  brazil: 'pt-BR',
  brazilian: 'pt-BR',
  british: 'en-GB',
  ukenglish: 'en-GB',
  bulgarian: 'bg-BG',
  canadian: 'en-CA',
  canadien: 'fr-CA',
  catalan: 'ca',
  chinese: 'zh',
  croatian: 'hr-HR',
  czech: 'cs-CZ',
  danish: 'da-DK',
  dutch: 'nl-NL',
  english: 'en',
  estonian: 'et-EE',
  finnish: 'fi-FI',
  francais: 'fr-FR',
  french: 'fr-FR',
  galician: 'gl',
  ngerman: 'de-DE',
  german: 'de-DE',
  germanb: 'de-DE',
  greek: 'el-GR',
  hungarian: 'hu-HU',
  magyar: 'hu-HU',
  icelandic: 'is-IS',
  irish: 'ga',
  italian: 'it-IT',
  japanese: 'ja-JP',
  korean: 'ko-KR',
  latin: 'la',
  latvian: 'lv-LV',
  lithuanian: 'lt-LT',
  newzealand: 'en-NZ',
  norsk: 'nb-NO',
  norwegian: 'nb-NO',
  nynorsk: 'nn-NO',
  polish: 'pl-PL',
  portuges: 'pt-PT',
  portuguese: 'pt-PT',
  romanian: 'ro-RO',
  russian: 'ru-RU',
  scottish: 'gd',
  serbian: 'sr-RS',
  slovak: 'sk-SK',
  slovene: 'sl-SI',
  slovenian: 'sl-SI',
  spanish: 'es-ES',
  swedish: 'sv-SE',
  swissgerman: 'de-CH',
  nswissgerman: 'de-CH',
  turkish: 'tr-TR',
  ukrainian: 'uk-UA',
  vietnamese: 'vi-VN',
  welsh: 'cy',
};

const KEYS: Record<string, Record<string, string>> = {
  type: TYPES,
  pubstate: STATES,
  langid: LANGUAGES,
  hyphenation: LANGUAGES,
  language: LANGUAGES,
};

/** The value a key of the field stands for; any other value is itself. */
export function keyword(field: string, value: string): string {
  return KEYS[field]?.[value.toLowerCase()] ?? value;
}

const LANGID = new Map(
  Object.entries(LANGUAGES)
    .reverse()
    .map(([key, tag]) => [tag, key]),
);

/** The key of a language for `langid`, which takes no other; nothing when it has none. */
export function langid(tag: string): string | undefined {
  return LANGID.get(tag);
}
