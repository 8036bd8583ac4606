/** Words by which the lines at the front of a document are told apart. Common practice in the languages met. */

/** Headings of parts, which end the front or stand above it, and are no title. */
const HEADING =
  /^(?:(?:\d+|[ivx]+)\.?\s+)?(?:abstract|summary|(?:table of )?contents|introduction|key ?words|preface|foreword|acknowledge?ments?|résumé|table des matières|sommaire|zusammenfassung|inhalt(?:sverzeichnis)?|kurzfassung|einleitung|resumen|índice|introducción|riassunto|indice|resumo|sumário|samenvatting|inhoud(?:sopgave)?|references|bibliography|list of (?:figures|tables)|appendix|摘\s*要|目\s*录|目\s*次|要旨)[\s.:—–-]*$/iu;

/** A heading that begins a line of prose: "Abstract. The gate …" */
const HEADING_RUN_IN = /^(?:abstract|summary|key ?words|résumé|zusammenfassung|resumen|resumo)\s*[.:—–-]/i;

export const isHeading = (text: string): boolean => HEADING.test(text) || HEADING_RUN_IN.test(text);

/** What kind of text it is, set above its title. */
export const LABEL =
  /^(?:an?\s+)?(?:(?:original|research|review|regular|short|full|invited|open)\s+)*(?:article|paper|letter|communication|note|report|review|editorial|preprint|manuscript|survey|tutorial|case study|open access|technical report|working paper|discussion paper|master'?s? thesis|ph\.?d\.? thesis|doctoral thesis|bachelor'?s? thesis|thesis|dissertation|masterarbeit|bachelorarbeit|diplomarbeit|seminararbeit|projektarbeit|thèse|mémoire|tesis|supplementary (?:material|information)|chapter|kapitel|chapitre|capítulo|capitolo|lecture|lesson|博士学位论文|硕士学位论文)(?:\s*\w?\d*)?$/iu;

export const VERSION =
  /^\(?(?:for\s+)?(?:version|v\.?\s?\d|release[d]?\s+\d|rev(?:ision)?\.?\s+\d|draft|build\s+\d|edition\s+\d)/i;

/** The line of a periodical over an article. */
export const MASTHEAD =
  /\b(?:vol(?:ume)?\.?|no\.|nr\.|núm\.?|issue|bd\.)\s*\d|\bissn\b|\b(?:19|20)\d\d\s*;\s*\d+|\d+\s*\((?:\d{1,3}|\d{4})\)\s*[,:]?\s*\d|\bpp?\.\s*\d|\bpágs?\.|^(?:proceedings of|proc\.|transactions of|preprint|submitted to|to appear|published (?:in|online)|accepted|received|advance access|contents lists|journal homepage|available online)|^arxiv:|\bdoi\b|https?:\/\/|www\./i;

/** The name of a periodical that stands alone. */
export const PERIODICAL =
  /^(?:the\s+)?(?:[\p{L}-]+\s+){0,4}(?:journal|annals|transactions|proceedings|bulletin|letters|review|revue|annales|zeitschrift|archiv|acta|gaceta|rivista|revista|mitteilungen|quarterly|notices)\b(?:\s+(?:of|de|der|für|on|for|in|di)\b.*)?$/iu;

export const PLACE_OF_WORK =
  /universi|univ\.|institut|department|departm|dept\b|faculty|fakultät|faculté|facultad|college|school|laborator|labor\b|\blabs?\b|cent(?:re|er)\b|zentrum|hospital|clinic|academy|akademie|école|escuela|hochschule|politec|polytech|technische|research\b|forschung|ministry|agency|council|foundation|corporation|company|\binc\b|\bltd\b|\bllc\b|\bllp\b|\bgmbh\b|\bs\.a\.|press\b|verlag|publish|society|association|bureau|office\b|division|sciences?\b|medizin|statistics|statistik|mathemat|physics|physik|engineering|informatik|informatics|computing|campus|street|straße|strasse|avenue|\broad\b|p\.?o\.? box|zip|postcode|@|https?:|www\.|\bat\b.*\bdot\b|orcid|affiliation|secondary|project\b|team\b|group\b|enthusiasts|program(?:me)?\b|library|museum|observatory|大学|学院|研究所|学会|대학|연구/iu;

/** Words that are no part of a person's name. */
export const NOT_A_NAME =
  /^(?:the|an?|of|for|in|on|with|to|and|or|by|from|at|as|is|are|this|that|our|your|how|why|what|using|towards?|version|vignette|package|class|document|documentation|manual|guide|introduction|overview|draft|member|fellow|student|professor|assistant|associate|lecturer|senior|editor|authors?|coauthors?|contributors?|names?|first ?name|last ?name|firstname|lastname|second|third|fourth|fifth|maintainers?|supervisors?|advisors?|abstract|contents|chapter|section|part|volume|journal|article|paper|title|subtitle|theory|analysis|methods?|models?|data|tests?|examples?|template|sample|date|dated|submitted|received|accepted|published|january|february|march|april|may|june|july|august|september|october|november|december|university|international|national|european|american|austria|germany|france|italy|spain|switzerland|netherlands|belgium|norway|sweden|denmark|finland|poland|canada|australia|usa|uk|england|scotland|wales|ireland|japan|china|india|brazil|hungary|kingdom|states|united|york|city|country|state|province|prepared|copyright|license|public|open|user|users|former|computer|software|free|general|new|simple|advanced|some|notes?|thesis|science|social|applied|support|bureau|studies|system|systems|processes|master|bachelor|computational|home|page|web|site|website|table|figure|repository|contact|gaceta|revista|revue|annals|bulletin|disclaimer|lorem|ipsum|dolor|sit|amet|autor|autora|auteur|verfasser|un|una|une|ein|eine|\p{L}*(?:ology|istics|atics|metrics|istry|ation|ution|tional|ography|onomy|icine|ware|schaft|ungen|ität))$/iu;

/** Lines of a thesis about its examination: what follows is not of its authors. */
export const EXAMINATION =
  /supervis|advisor|betreuer|gutachter|referent|prüfer|directeur|rapporteur|examin|eingereicht|vorgelegt|submitted|matrikel|studiengang|student(?:en)?(?:nummer| nr)|jury\b|committee|committ|导\s*师|指导/i;
