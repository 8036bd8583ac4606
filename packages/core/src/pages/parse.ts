import { load, type CheerioAPI } from 'cheerio';
import { wholeCharacters } from '../text/index.ts';

/** A page as a tree. Halves of characters, which a script can send, would end its parser. */
export const parsePage = (html: string): CheerioAPI => load(wholeCharacters(html));
