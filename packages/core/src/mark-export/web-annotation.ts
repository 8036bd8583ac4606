/** The W3C Web Annotation Data Model (Recommendation of 23 February 2017) as JSON-LD. */
import { isOnWords } from '../marks/index.ts';
import { shortCitation, type ExportedMark } from './write.ts';

const CONTEXT = 'http://www.w3.org/ns/anno.jsonld';
/** How a place in a PDF is written after its address: RFC 8118, 3; the model's table of specifications (4.2.1) names RFC 3778. */
const PDF_FRAGMENT = 'http://tools.ietf.org/rfc/rfc3778';

/** One page of annotations (5.2), which holds all of them. */
export function webAnnotations(marks: readonly ExportedMark[]): string {
  return `${JSON.stringify({ '@context': CONTEXT, id: 'urn:pandecta:marks', type: 'AnnotationPage', items: marks.map(annotationOf) }, null, 2)}\n`;
}

function annotationOf(mark: ExportedMark): object {
  const { exact, prefix, suffix } = mark.quote;
  const text = (purpose: string, value: string): object => ({
    type: 'TextualBody',
    purpose,
    value,
    format: 'text/plain',
  });
  return {
    id: `urn:uuid:${mark.id}`,
    type: 'Annotation',
    motivation: mark.gloss ? 'commenting' : 'highlighting',
    created: mark.at,
    ...(mark.by && { creator: { type: 'Person', name: mark.by } }),
    body: [
      text('classifying', mark.sense),
      text('identifying', `${mark.citation || shortCitation(mark)} (p. ${mark.cited})`),
      ...(mark.gloss ? [text('commenting', mark.gloss)] : []),
    ],
    target: {
      type: 'SpecificResource',
      source: `urn:uuid:${mark.fileId}`,
      selector: [
        { type: 'FragmentSelector', conformsTo: PDF_FRAGMENT, value: fragmentOf(mark) },
        ...(isOnWords(mark.shape) && exact ? [{ type: 'TextQuoteSelector', exact, prefix, suffix }] : []),
      ],
    },
  };
}

/** The page and, in points, left, top, width and height of what is marked there. */
function fragmentOf({ page, rects }: ExportedMark): string {
  if (!rects.length) return `page=${page}`;
  const x0 = Math.min(...rects.map((r) => r.x0));
  const y0 = Math.min(...rects.map((r) => r.y0));
  const [width, height] = [Math.max(...rects.map((r) => r.x1)) - x0, Math.max(...rects.map((r) => r.y1)) - y0];
  return `page=${page}&viewrect=${[x0, y0, width, height].map((n) => Number(n.toFixed(1))).join(',')}`;
}
