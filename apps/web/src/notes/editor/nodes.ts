/** What the text of a note is made of, beside what every editor of rich text knows: quotations and references. */
import { mergeAttributes, Node, type Editor } from '@tiptap/core';
import { TableKit } from '@tiptap/extension-table';
import { Placeholder } from '@tiptap/extensions';
import StarterKit from '@tiptap/starter-kit';
import { HOW_NAMES, type How } from '@pandecta/core/notes';
import { suggestion, type Offering } from './offering.ts';

/** What is told below a quotation: where it stands, and whether it does. */
export interface Told {
  where: string;
  to: string;
  stands: string;
  /** Whether something is to be looked at. */
  isOff: boolean;
}

export interface Surroundings {
  /** Of the quotation at a place among those of the note. */
  told: (place: number, attrs: Record<string, unknown>) => Told;
  offering: Offering;
  placeholder: string;
  go: (to: string) => void;
}

const ORIGIN = { source: null, file: null, page: null, cited: '', mark: null };

/** The quotations of an editor say anew where they stand. */
export function retell(editor: Editor): void {
  for (const element of editor.view.dom.querySelectorAll('[data-quotation]'))
    element.dispatchEvent(new CustomEvent('retell'));
}

const quotation = ({ told, go }: Surroundings) =>
  Node.create({
    name: 'quotation',
    group: 'block',
    content: 'inline*',
    marks: '',
    defining: true,
    addAttributes() {
      return Object.fromEntries(
        Object.entries(ORIGIN).map(([name, none]) => [
          name,
          {
            default: none,
            parseHTML: (element: HTMLElement) => {
              const value = element.getAttribute(`data-${name}`);
              return name === 'page' && value ? Number(value) : (value ?? none);
            },
            renderHTML: (attrs: Record<string, unknown>) =>
              attrs[name] === null || attrs[name] === '' ? {} : { [`data-${name}`]: String(attrs[name]) },
          },
        ]),
      );
    },
    parseHTML: () => [{ tag: 'blockquote[data-quotation]', priority: 60 }],
    renderHTML: ({ HTMLAttributes }) => ['blockquote', mergeAttributes(HTMLAttributes, { 'data-quotation': '' }), 0],
    addNodeView() {
      return ({ node, editor, getPos }) => {
        let attrs: Record<string, unknown> = node.attrs;
        const dom = document.createElement('blockquote');
        dom.dataset.quotation = '';
        const contentDOM = dom.appendChild(document.createElement('p'));
        const foot = dom.appendChild(document.createElement('footer'));
        foot.contentEditable = 'false';
        const link = foot.appendChild(document.createElement('a'));
        const says = foot.appendChild(document.createElement('span'));
        link.addEventListener('click', (event) => {
          event.preventDefault();
          go(link.getAttribute('href')!);
        });
        const tell = (): void => {
          const at = getPos();
          let place = 0;
          if (at === undefined) return;
          editor.state.doc.nodesBetween(
            0,
            at,
            (n, pos) => void (n.type.name === 'quotation' && pos < at && (place += 1)),
          );
          const { where, to, stands, isOff } = told(place, attrs);
          link.textContent = where;
          link.hidden = !where;
          link.href = to;
          says.textContent = stands;
          says.className = isOff ? 'is-off' : '';
        };
        dom.addEventListener('retell', tell);
        requestAnimationFrame(tell);
        return {
          dom,
          contentDOM,
          ignoreMutation: (mutation) => foot.contains(mutation.target),
          update(next) {
            if (next.type.name !== 'quotation') return false;
            attrs = next.attrs;
            tell();
            return true;
          },
        };
      };
    },
    addKeyboardShortcuts() {
      return {
        // At the end of a quotation one goes on writing below it.
        Enter: ({ editor }) => {
          const { $from, empty } = editor.state.selection;
          if ($from.parent.type.name !== 'quotation' || !empty || $from.parentOffset < $from.parent.content.size) return false; // prettier-ignore
          return editor.chain().insertContentAt($from.after(), { type: 'paragraph' }).setTextSelection($from.after() + 1).run(); // prettier-ignore
        },
      };
    },
  });

/** Where a place in a source is looked at: its mark or page, or the source where no document is named. */
export const addressOfPlace = (at: { source?: unknown; file?: unknown; page?: unknown; mark?: unknown }): string => {
  const { source, file, page, mark } = at;
  if (!file) return `/sources/${String(source)}`;
  return `/read/${String(source)}/${String(file)}?${mark ? `mark=${String(mark)}` : `page=${String(page ?? 1)}`}`;
};

export const addressOf = ({ to, id }: { to?: unknown; id?: unknown }): string =>
  to === 'source' ? `/sources/${String(id)}` : `/notes?${to === 'heading' ? 'heading' : 'note'}=${String(id)}`;

const reference = ({ go, offering }: Surroundings) =>
  Node.create({
    name: 'reference',
    group: 'inline',
    inline: true,
    atom: true,
    selectable: true,
    addAttributes() {
      const attribute = (name: string) => ({
        default: null,
        parseHTML: (element: HTMLElement) => element.getAttribute(`data-${name}`),
        renderHTML: (attrs: Record<string, unknown>) =>
          typeof attrs[name] === 'string' ? { [`data-${name}`]: attrs[name] } : {},
      });
      return Object.fromEntries(['to', 'id', 'label', 'how'].map((name) => [name, attribute(name)]));
    },
    parseHTML: () => [{ tag: 'a[data-reference]', priority: 60 }],
    renderHTML({ node, HTMLAttributes }) {
      const how = HOW_NAMES[node.attrs.how as How];
      const words = (how ? [['span', { class: 'how' }, how], ' '] : []) as unknown[];
      const attributes = mergeAttributes(HTMLAttributes, { 'data-reference': '', href: addressOf(node.attrs) });
      return ['a', attributes, ...words, String(node.attrs.label ?? '')] as never;
    },
    renderText: ({ node }) => String(node.attrs.label ?? ''),
    addNodeView() {
      return ({ node }) => {
        const dom = document.createElement('a');
        dom.dataset.reference = '';
        dom.href = addressOf(node.attrs);
        const how = HOW_NAMES[node.attrs.how as How];
        if (how) Object.assign(dom.appendChild(document.createElement('span')), { className: 'how', textContent: `${how} ` }); // prettier-ignore
        dom.append(String(node.attrs.label ?? ''));
        // A click chooses it, so that one can say how it is linked; a second one follows it.
        dom.addEventListener('click', (event) => event.preventDefault());
        dom.addEventListener('dblclick', () => go(dom.getAttribute('href')!));
        return { dom };
      };
    },
    addProseMirrorPlugins() {
      return [suggestion(this.editor, offering)];
    },
  });

export const extensionsFor = (around: Surroundings) => [
  StarterKit.configure({
    heading: { levels: [1, 2, 3] },
    link: { openOnClick: false, autolink: true, HTMLAttributes: { rel: 'noopener noreferrer nofollow' } },
  }),
  TableKit.configure({ table: { resizable: false } }),
  Placeholder.configure({ placeholder: around.placeholder }),
  quotation(around),
  reference(around),
];
