/**
 * What of core may be called on the server's own thread, which answers everybody: the linter refuses the rest outside of
 * `workers/`, where heavy computation belongs. `bounded` takes one record, name, question, group to be merged or the like, whose size has a limit
 * (`core/source/limits.ts`, the contract's validators). `grows` takes a list, a document or a file, and takes time in
 * proportion to it: each is doubled in `src/composition/on-the-thread.test.ts`.
 */
export const ON_THE_THREAD = {
  annotations: { bounded: ['TINTS', 'mergedNote', 'senseOf', 'shapeOf'] },
  catalogues: { bounded: ['PROTOCOLS', 'askingFor', 'inOneLine', 'oaiAddress'] },
  changes: {
    bounded: 'editableNote editedNote Conflict HIGHEST_RATING NOTHING_SAID NOT_SORTED keptState sortable NotAChange READING_STATES SUBJECT_KINDS alterableGloss correctable countSources editRecord editable editableCollection editableFile editableMark editedMark enterable joined movesUnder nameable sayable standing'.split(' '), // prettier-ignore
    grows: 'describe fromJson invert isEmpty kindsIn makes ownerOf ownersIn seenBy sourcesOf toJson touches yieldTo'.split(' '), // prettier-ignore
  },
  'citation-key': {
    bounded: ['KEPT_CITATION_KEY', 'LONGEST_CITATION_KEY', 'isCitationKey', 'keptCitationKey', 'wantedCitationKey'],
    grows: ['freeCitationKey'],
  },
  citing: { bounded: ['DEFAULT_STYLE'] },
  documents: {
    bounded: ['correctedPage', 'lineText', 'linesOf', 'spanWithin'],
    grows: ['confidenceOf', 'packWords', 'rectsOf', 'unpackWords'],
  },
  door: { bounded: ['seenInWords'] },
  formats: { bounded: ['EXPORT_INFO', 'TEXT_FORMATS', 'isPdf', 'pictureType', 'readItem'], grows: ['checkColumns'] },
  headings: { bounded: ['nameKey', 'standsInRecords'] },
  identifiers: { bounded: ['normaliseDoi', 'normaliseIsbn', 'normaliseOrcid'] },
  intake: { bounded: ['LACKS', 'lacksInWords', 'lacksOf'] },
  marks: { bounded: ['FIRST_SENSES', 'SHAPE_NAMES', 'findQuote', 'isOnWords', 'quoteAt', 'spanAfter'] },
  'mark-export': { bounded: ['MARK_INFO'] },
  matching: {
    bounded: 'ALL_OF_THEM CERTAIN LARGEST_BLOCK LONGEST_KEY VERDICTS WORTH_A_LOOK areOneWork canCombine compare filledBy givenByLike identifierKeys isTellingTitle matchKeys meetingKeys mergedRecord planMerge titleKey wholeKey'.split(' '), // prettier-ignore
    grows: ['bestOf', 'bestOfField'],
  },
  narrowing: { bounded: ['NO_YEAR', 'PRESENCES', 'setsFrom'], grows: ['mostAlike'] },
  'note-export': { bounded: ['NOTE_INFO'] },
  notes: {
    bounded: ['emptyText', 'eventSpan', 'paragraph', 'quotation'],
    grows: 'faultOf joinTexts lengthOf linksIn plainText quotationsIn sourcesIn takeOut titleFrom'.split(' '),
  },
  'page-numbers': {
    bounded: ['NO_NUMBERING', 'citedPage', 'citedPlace', 'placeWritten', 'citedPages', 'runFrom', 'runOf'],
  },
  pages: { grows: ['withPictures'] },
  printing: { bounded: ['PRINT_INFO'] },
  proofing: { bounded: ['RULES', 'findRules', 'proof', 'ruleOf'] },
  query: {
    bounded: 'QUERY_FIELDS TEXT_FIELDS asTyped codeOf fieldOf isTextField nothingSought parseDays parseQuery parseYears printQuery shifted soughtIn valueMeant'.split(' '), // prettier-ignore
  },
  references: { bounded: ['applyLearnt', 'learn', 'respan', 'valueOf'] },
  source: {
    bounded: 'ALL_KINDS KINDS NAME_VARIABLES TEXT_VARIABLES dateShort filledFields findKinds inPassing isFieldValue isNameVariable isOthers lastDayOf nameInverted nameSpoken namesShort personOf same tooMuchIn variableInWords variableLabel whoOf withoutMarkup yearOf yearShort'.split(' '), // prettier-ignore
  },
  text: { bounded: ['cut', 'firstOf'], grows: ['hasHalfEscapes', 'jsonWithoutNul', 'wholeCharacters', 'withoutNul'] },
  vocabulary: { grows: ['alike', 'writeSkos', 'writeVocabularyTable'] },
  words: {
    bounded: ['fold', 'isFunctionWord', 'stemsBegunBy'],
    grows: ['Lexemes', 'excerpt', 'findLit', 'snippet', 'tokens'],
  },
  wording: { bounded: ['counted', 'formatDate', 'formatNumber'] },
};

/** Selectors of imports that are not listed; of types nothing is called. */
export const offTheThread = Object.entries(ON_THE_THREAD)
  .map(([folder, { bounded = [], grows = [] }]) => ({
    selector: `ImportDeclaration[source.value='@pandecta/core/${folder}'][importKind!='type'] > ImportSpecifier[importKind!='type'][imported.name!=/^(?:${[...bounded, ...grows].join('|')})$/]`,
    message: 'not among what may run on the thread that answers everybody (on-the-thread.mjs): let a worker do it',
  }))
  .concat({
    selector: `ImportDeclaration[source.value=/^@pandecta.core.(?!(?:${Object.keys(ON_THE_THREAD).join('|')})$)/][importKind!='type'] > ImportSpecifier[importKind!='type']`,
    message: 'not among what may run on the thread that answers everybody (on-the-thread.mjs): let a worker do it',
  });
