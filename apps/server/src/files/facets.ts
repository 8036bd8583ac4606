import { sql } from 'drizzle-orm';
import { fixedNames, type Facets } from '../indexing/facet.ts';

export const fileFacets: Facets = {
  kinds: [
    {
      type: 'file',
      offered: { name: 'File', most: 4 },
      names: fixedNames({
        text: 'Has full text',
        'image only': 'Image only, no text',
        other: 'Other file',
        none: 'No file',
      }),
    },
  ],
  pairs: ({ workspace, ids }) => sql`select c.id, 'file',
      case when f.text then 'text' when f.image then 'image only' when f.id is not null then 'other' else 'none' end
    from chosen c left join (
      select sf.source_id as id, bool_or(f.state = 'text') as text, bool_or(f.state = 'image only') as image
      from source_files sf join files f on f.workspace_id = ${workspace} and f.id = sf.file_id
      where sf.workspace_id = ${workspace} and sf.source_id = any(${ids}) group by 1) f on f.id = c.id`,
};
